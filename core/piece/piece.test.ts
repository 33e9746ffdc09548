import { describe, expect, it } from "vitest";
import {
  applyMove,
  changeLetter,
  editableNumber,
  formatLength,
  freeId,
  graphemesOf,
  LIMITS,
  type Piece,
  PieceError,
  parseLength,
  parsePiece,
  retype,
  STOCKS,
  stockByName,
  type Word,
} from "./index";

const piece = (parts: object[] = [], more: object = {}): Piece => parsePiece({ name: "Test", stock: STOCKS[0], parts, ...more });
const word = (text: string, more: object = {}) => ({
  kind: "word",
  id: "w",
  text,
  font: "pacifico",
  size: { by: "cap-height", mm: 20 },
  ...more,
});

describe("reading pieces", () => {
  it("fills in what a hand-written document leaves out", () => {
    const [part] = piece([word("Zoë")]).parts;
    expect(part).toMatchObject({ keys: ["k1", "k2", "k3"], changes: {}, tracking: 0, align: "centre", at: { x: 0, y: 0 } });
  });

  it("reads what it wrote", () => {
    const made = piece([word("Kit"), { kind: "bar", id: "b" }, { kind: "stick", id: "s" }]);
    expect(parsePiece(JSON.parse(JSON.stringify(made)))).toEqual(made);
  });

  it.each([
    ["not an object", 7, "JSON object"],
    ["another document", { format: "else" }, "not a piece"],
    ["a newer version", { version: 99 }, "newer Mend Joint"],
    ["no name", { name: " ", stock: STOCKS[0], parts: [] }, "name"],
    ["a size of zero", { name: "x", stock: STOCKS[0], parts: [word("a", { size: { by: "width", mm: 0 } })] }, "parts[0].size.mm"],
    [
      "a negative size",
      { name: "x", stock: STOCKS[0], parts: [word("a", { size: { by: "width", mm: -3 } })] },
      "parts[0].size.mm",
    ],
    [
      "a size that is not a number",
      { name: "x", stock: STOCKS[0], parts: [word("a", { size: { by: "width", mm: Number.NaN } })] },
      "size.mm",
    ],
    ["a huge size", { name: "x", stock: STOCKS[0], parts: [word("a", { size: { by: "width", mm: 1e9 } })] }, "size.mm"],
    [
      "a letter 10 m away",
      { name: "x", stock: STOCKS[0], parts: [word("a", { changes: { k1: { dx: 10_000 } } })] },
      "changes.k1.dx",
    ],
    ["5,000 letters", { name: "x", stock: STOCKS[0], parts: [word("a".repeat(5000))] }, "5000 letters"],
    ["two lines in a word", { name: "x", stock: STOCKS[0], parts: [word("a\nb")] }, "single line"],
    ["the same id twice", { name: "x", stock: STOCKS[0], parts: [word("a"), word("b")] }, "used twice"],
    ["an unknown field", { name: "x", stock: STOCKS[0], parts: [], colour: "red" }, "colour"],
  ])("refuses %s with a sentence that says where", (_, document, says) => {
    expect(() => parsePiece(document)).toThrow(PieceError);
    expect(() => parsePiece(document)).toThrow(says);
  });

  it("takes empty text, emoji and right-to-left text as text", () => {
    for (const text of ["", "🦀", "שלום", "Ángela", "e\u0301"]) expect((piece([word(text)]).parts[0] as Word).text).toBe(text);
  });
});

describe("letters and their keys", () => {
  it("counts letters as Unicode does (UAX #29)", () => {
    expect(graphemesOf("e\u0301a")).toEqual(["e\u0301", "a"]);
    expect(graphemesOf("👩‍🚀!")).toHaveLength(2);
  });

  const changed = (text: string, keys: string[]) =>
    piece([word(text, { keys, changes: Object.fromEntries(keys.map((key, i) => [key, { dx: i + 1 }])) })]).parts[0] as Word;

  it("letters that stay keep their changes; new ones have none; lost ones are forgotten", () => {
    const before = changed("Isolde", ["a", "b", "c", "d", "e", "f"]);
    const after = retype(before, "Isoldes");
    expect(after.keys.slice(0, 6)).toEqual(before.keys);
    expect(after.changes).toEqual(before.changes);
    const inserted = retype(before, "Is-olde");
    expect(inserted.keys[3]).toBe("c");
    expect(inserted.changes.f).toEqual(before.changes.f);
    const shorter = retype(before, "Isde");
    expect(shorter.keys).toEqual(["a", "b", "e", "f"]);
    expect(Object.keys(shorter.changes)).toEqual(["a", "b", "e", "f"]);
  });

  it("never uses a key twice", () => {
    let now = changed("ab", ["k1", "k2"]);
    for (const text of ["b", "bab", "xbabx", "", "abab"]) {
      now = retype(now, text);
      expect(new Set(now.keys).size).toBe(graphemesOf(text).length);
    }
  });
});

describe("moves by hand", () => {
  const start = piece([word("Kit"), { kind: "bar", id: "bar", overlap: 1 }, { kind: "stick", id: "stick", bite: 4 }]);
  const part = (of: Piece, id: string) => of.parts.find((each) => each.id === id)!;

  it("move letters and dots, add up, and vanish when they come to nothing", () => {
    const there = applyMove(start, { what: "letter", wordId: "w", key: "k2", dx: 1.234, dy: -0.5 });
    expect((part(there, "w") as Word).changes.k2).toMatchObject({ dx: 1.23, dy: -0.5, dotDx: 0 });
    const dotted = applyMove(there, { what: "dots", wordId: "w", key: "k2", dx: 0, dy: -2 });
    expect((part(dotted, "w") as Word).changes.k2).toMatchObject({ dx: 1.23, dotDy: -2 });
    const back = applyMove(there, { what: "letter", wordId: "w", key: "k2", dx: -1.23, dy: 0.5 });
    expect(back).toEqual(start);
    expect((part(start, "w") as Word).changes).toEqual({});
  });

  it("a bar moved up overlaps more, a stick moved up bites more", () => {
    const moved = applyMove(applyMove(start, { what: "holder", id: "bar", dx: 2, dy: 0.5 }), {
      what: "holder",
      id: "stick",
      dx: -1,
      dy: 1,
    });
    expect(part(moved, "bar")).toMatchObject({ dx: 2, overlap: 1.5 });
    expect(part(moved, "stick")).toMatchObject({ dx: -1, bite: 5 });
  });

  it("stops at the bounds of a piece instead of making one that cannot be kept", () => {
    const far = applyMove(start, { what: "letter", wordId: "w", key: "k1", dx: 1e6, dy: -1e6 });
    expect((part(far, "w") as Word).changes.k1).toMatchObject({ dx: LIMITS.coordinate, dy: -LIMITS.coordinate });
    expect(() => parsePiece(applyMove(far, { what: "holder", id: "bar", dx: 1e5, dy: 1e5 }))).not.toThrow();
  });

  it("finds free ids", () => {
    expect(freeId(start, "bar")).toBe("bar2");
    expect(freeId(start, "ring")).toBe("ring");
  });
});

describe("lengths", () => {
  it.each([
    ["12", "mm", 12],
    ["12", "in", 304.8],
    ["12.5 mm", "in", 12.5],
    ["1,5 cm", "mm", 15],
    ["1/4 in", "mm", 6.35],
    ['1 1/2"', "mm", 38.1],
    ["3/8", "in", 9.525],
    ["-0.5", "mm", -0.5],
    [".25in", "mm", 6.35],
  ] as const)("reads %s (bare numbers in %s)", (text, units, mm) => {
    expect(parseLength(text, units)).toBeCloseTo(mm, 9);
  });

  it.each(["", "mm", "12 furlongs", "1/0", "NaN", "1e400", "--2", "1 2"])("does not read %j", (text) => {
    expect(parseLength(text, "mm")).toBeNull();
  });

  it("writes a sensible number of digits", () => {
    expect(formatLength(0.8123)).toBe("0.8 mm");
    expect(formatLength(0.8123, "in")).toBe("0.032 in");
    expect(formatLength(-0.001)).toBe("0.0 mm");
    expect(editableNumber(6.35, "in")).toBe("0.25");
  });

  it("finds stock by id or name", () => {
    expect(stockByName("Birch 3 mm")?.id).toBe("birch-3");
    expect(stockByName("oak")).toBeUndefined();
  });
});

describe("changes of one letter", () => {
  const named = piece([{ kind: "word", id: "w", text: "Kit", font: "pacifico", size: { by: "cap-height", mm: 20 } }]);
  const changesOf = (of: Piece) => (of.parts[0] as Word).changes;

  it("a letterform and left-out pieces are kept beside moves, and go when nothing is left of them", () => {
    const formed = changeLetter(named, "w", "k1", (old) => ({ ...old, form: "salt" }));
    const moved = applyMove(formed, { what: "letter", wordId: "w", key: "k1", dx: 1, dy: 0 });
    expect(changesOf(moved).k1).toMatchObject({ form: "salt", dx: 1 });
    const still = applyMove(moved, { what: "letter", wordId: "w", key: "k1", dx: -1, dy: 0 });
    expect(changesOf(still).k1).toMatchObject({ form: "salt", dx: 0 });
    expect(changesOf(changeLetter(still, "w", "k1", ({ form: _, ...old }) => old))).toEqual({});
    expect(changesOf(named)).toEqual({});
  });

  it("refuses what is no feature of a font", () => {
    for (const form of ["", "salt=", "s", "salt=123", "salt;x"]) {
      expect(() => parsePiece({ ...named, parts: [{ ...named.parts[0], changes: { k1: { form } } }] }), form).toThrow("feature");
    }
  });

  it("documents from before there were accepted findings have none", () => {
    const { accepted: _, ...old } = named;
    expect(parsePiece(old).accepted).toEqual([]);
  });

  it("a filling goes along with its place when it is dragged", () => {
    const filled = piece([{ kind: "fill", id: "f", at: { x: 1, y: 2 }, width: 0.3, reach: 3 }]);
    expect(applyMove(filled, { what: "holder", id: "f", dx: 0.5, dy: -1 }).parts[0]).toMatchObject({ at: { x: 1.5, y: 1 } });
  });
});
