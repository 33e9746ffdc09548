import { describe, expect, it } from "vitest";
import {
  addLine,
  addPart,
  applyMove,
  changeLetter,
  courseOf,
  dressAlike,
  fillIn,
  followWords,
  inBuildOrder,
  insertAfter,
  isStill,
  nameOfWords,
  type Piece,
  PieceError,
  parsePiece,
  removeLetter,
  removeNode,
  retype,
  STARTERS,
  STOCKS,
  starterById,
  type Tie,
  UNCHANGED_LETTER,
  UNNAMED,
  type Word,
  withCourse,
} from "./index";

const piece = (more: object = {}, ...parts: object[]): Piece =>
  parsePiece({
    name: "p",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: "Kate", font: "anton", size: { by: "cap-height", mm: 20 }, ...more }, ...parts],
  });
const word = ({ parts }: Piece) => parts.find((part): part is Word => part.kind === "word")!;

describe("a tie", () => {
  const start = piece(
    {},
    {
      kind: "tie",
      id: "t",
      width: 2,
      ends: [
        { letter: { wordId: "w", key: "k1" }, x: 5, y: 5 },
        { x: 40, y: 9 },
      ],
    },
  );
  const tieIn = ({ parts }: Piece) => parts.find((part): part is Tie => part.kind === "tie")!;

  it("is pulled by one end, which stays with its letter", () => {
    const { ends } = tieIn(applyMove(start, { what: "end", id: "t", index: 0, dx: 1, dy: -2 }));
    expect(ends[0]).toEqual({ letter: { wordId: "w", key: "k1" }, x: 6, y: 3 });
    expect(ends[1]).toEqual({ x: 40, y: 9 });
  });

  it("is turned and made longer about its middle, whichever end is which", () => {
    // The letter's origin lies at (20, −3): the first end at (25, 2), the second at (40, 9).
    const places: [{ x: number; y: number }, { x: number; y: number }] = [
      { x: 25, y: 2 },
      { x: 40, y: 9 },
    ];
    const after = (tie: Tie): typeof places => [
      { x: tie.ends[0].x + 20, y: tie.ends[0].y - 3 },
      { x: tie.ends[1].x, y: tie.ends[1].y },
    ];
    expect(courseOf(places).length).toBeCloseTo(Math.hypot(15, 7), 9);
    const turned = after(withCourse(tieIn(start), places, { angle: -30, length: 10 }));
    expect(courseOf(turned).angle).toBeCloseTo(-30, 0);
    expect(courseOf(turned).length).toBeCloseTo(10, 1);
    expect((turned[0].x + turned[1].x) / 2).toBeCloseTo(32.5, 1);
    expect((turned[0].y + turned[1].y) / 2).toBeCloseTo(5.5, 1);
    expect(turned[0].x).toBeLessThan(turned[1].x);
    const [second, first] = places;
    expect(courseOf([first, second])).toEqual(courseOf(places));
  });
});

describe("moves of the hand", () => {
  it("several letters go together; each keeps what was done to it before", () => {
    const start = changeLetter(piece(), "w", "k1", (old) => ({ ...old, dx: 1, turn: 10 }));
    const letters = ["k1", "k3"].map((key) => ({ wordId: "w", key }));
    const { changes } = word(applyMove(start, { what: "letters", letters, dx: 2, dy: -1 }));
    expect(changes.k1).toMatchObject({ dx: 3, dy: -1, turn: 10 });
    expect(changes.k3).toMatchObject({ dx: 2, dy: -1 });
    expect(changes.k2).toBeUndefined();
  });

  it("a letter is turned further, and never by more than half a turn", () => {
    const turn = (now: Piece, by: number) => applyMove(now, { what: "turn", wordId: "w", key: "k2", turn: by });
    expect(word(turn(piece(), 30)).changes.k2!.turn).toBe(30);
    expect(word(turn(turn(piece(), 170), 30)).changes.k2!.turn).toBe(-160);
    // Turned back, nothing is left of the change.
    expect(word(turn(turn(piece(), 30), -30)).changes.k2).toBeUndefined();
  });

  it("a point of a curve moves alone; on a straight line there is none", () => {
    const points = [
      { x: 0, y: 0 },
      { x: 50, y: 5 },
    ];
    const move = { what: "node", wordId: "w", index: 1, dx: 3, dy: 4 } as const;
    expect(word(applyMove(piece({ path: { kind: "curve", points } }), move)).path).toMatchObject({
      points: [
        { x: 0, y: 0 },
        { x: 53, y: 9 },
      ],
    });
    expect(word(applyMove(piece(), move)).path).toBeUndefined();
  });

  it("ornaments and drawings are turned about their middle, once round at most", () => {
    const at = { x: 1, y: 1 };
    const both = parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        { kind: "ornament", id: "o", name: "heart", at, turn: 170 },
        { kind: "drawing", id: "d", name: "gate", outline: "M0 0L9 0L0 9Z", height: 9, at },
        { kind: "bar", id: "b" },
      ],
    });
    const after = ["o", "d", "b"].reduce((now, id) => applyMove(now, { what: "turn part", id, turn: 25 }), both);
    expect(after.parts.map((part) => "turn" in part && part.turn)).toEqual([-165, 25, false]);
  });

  it("shapes, ornaments and loops move in their own ways, backings stay with their words", () => {
    const all = piece(
      {},
      { kind: "shape", id: "shape" },
      { kind: "ornament", id: "heart", name: "heart", at: { x: 1, y: 1 } },
      { kind: "loop", id: "loop", angle: 90 },
      { kind: "backing", id: "backing" },
    );
    const after = (id: string) => applyMove(all, { what: "holder", id, dx: 2, dy: 3 }).parts.find((part) => part.id === id);
    expect(after("shape")).toMatchObject({ dx: 2, dy: 3 });
    expect(after("heart")).toMatchObject({ at: { x: 3, y: 4 } });
    expect(after("loop")).toMatchObject({ angle: 70 });
    expect(after("backing")).toEqual(all.parts.find(({ id }) => id === "backing"));
    expect(applyMove(all, { what: "loop", id: "loop", turn: -40 }).parts.find(({ id }) => id === "loop")).toMatchObject({
      angle: 50,
    });
  });

  it("a move of nothing is known as such", () => {
    expect(isStill({ what: "turn part", id: "o", turn: 0 })).toBe(true);
    expect(isStill({ what: "turn", wordId: "w", key: "k1", turn: 0 })).toBe(true);
    expect(isStill({ what: "loop", id: "loop", turn: 2 })).toBe(false);
    expect(isStill({ what: "word", wordId: "w", dx: 0, dy: 0.1 })).toBe(false);
  });
});

describe("parts that are added", () => {
  it("come where they belong in the build order, with ids of their own", () => {
    const kinds = ["tie", "loop", "stick", "bar", "backing", "ornament", "shape", "bar"] as const;
    const made = kinds.reduce<Piece>((now, kind) => {
      const ends = [
        { x: 0, y: 0 },
        { x: 5, y: 0 },
      ];
      const more = kind === "tie" ? { width: 2, ends } : kind === "ornament" ? { name: "star", at: { x: 0, y: 0 } } : {};
      return addPart(now, { kind, ...more });
    }, piece());
    expect(made.parts.map(({ kind }) => kind)).toEqual([
      "backing",
      "shape",
      "word",
      "bar",
      "bar",
      "ornament",
      "stick",
      "loop",
      "tie",
    ]);
    expect(new Set(made.parts.map(({ id }) => id)).size).toBe(made.parts.length);
  });

  it("a word that comes later still lies over the base shapes", () => {
    const [shape, first] = [addPart(piece(), { kind: "shape" }).parts[0]!, word(piece())];
    const kinds = inBuildOrder([first, { ...first, id: "w9" }, shape]).map(({ id }) => id);
    expect(kinds).toEqual([shape.id, "w", "w9"]);
  });

  it("a line looks and meets as the one above it does, and lies below it", () => {
    const first = { ...word(piece()), meets: "halo", gap: 2, dots: "tie", size: { by: "cap-height", mm: 20 } } as Word;
    const bent = { ...first, path: { kind: "stacked", joint: 2 }, changes: { k1: { ...UNCHANGED_LETTER, dx: 3 } } } as Word;
    for (const last of [first, bent]) {
      const added = addLine({ ...piece(), parts: [last] }).parts[1] as Word;
      expect(added).toMatchObject({
        text: "",
        meets: "halo",
        gap: 2,
        dots: "tie",
        size: first.size,
        font: first.font,
        changes: {},
      });
      expect(added.path).toBeUndefined();
      expect(added.at.y).toBe(first.at.y - 27);
      expect(added.id).not.toBe(first.id);
    }
    const wide = { ...first, size: { by: "width", mm: 165 } } as Word;
    expect(addLine({ ...piece(), parts: [wide] }).parts[1]).toMatchObject({ size: { by: "cap-height" } });
    expect(addLine({ ...piece(), parts: [] }).parts).toMatchObject([{ kind: "word", text: "" }]);
  });

  it("that cannot be are refused", () => {
    expect(() => addPart(piece(), { kind: "ornament", name: "dragon", at: { x: 0, y: 0 } })).toThrow(PieceError);
    expect(() => addPart(piece(), { kind: "loop", outer: -3 })).toThrow(PieceError);
  });
});

describe("starters", () => {
  it("have names of their own, carry the words, and are pieces that can be kept", () => {
    expect(new Set(STARTERS.map(({ id }) => id)).size).toBe(STARTERS.length);
    for (const { id, lines, make } of STARTERS) {
      const made = make(["Zoë", "Kit"]);
      const texts = made.parts.flatMap((part) => (part.kind === "word" ? [part.text.toLowerCase()] : []));
      expect(texts, id).toHaveLength(lines);
      expect(texts[0]).toContain("zoë");
      expect(made.name).toBe(lines === 2 ? "Zoë · Kit" : "Zoë");
      expect(parsePiece(JSON.parse(JSON.stringify(made)))).toEqual(made);
      expect(make([]).name.length).toBeGreaterThan(3);
    }
    expect(() => starterById("dragon")).toThrow();
  });

  it("a piece of one's own is filled in word by word; changes stay with letters that stay", () => {
    const own = { ...piece({ changes: { k1: { dx: 2 } } }), starter: true };
    const filled = fillIn(own, ["Kit"]);
    expect(word(filled).text).toBe("Kit");
    expect(word(filled).changes.k1).toMatchObject({ dx: 2 });
    expect([filled.name, filled.starter]).toEqual(["Kit", undefined]);
    // Nothing typed leaves the word as it is.
    expect(word(fillIn(own, [" "])).text).toBe("Kate");
  });
});

describe("the name of a piece", () => {
  const named = (name: string, ...texts: string[]): Piece => ({
    ...piece(),
    name,
    parts: texts.map((text, i) => ({ ...retype(word(piece()), text), id: `w${i}` })),
  });

  it("follows its words until its maker names it", () => {
    const kit = named("Kit · Leo", "Kit", "Leo");
    expect(followWords(kit, named("Kit · Leo", "Kit", "Leon")).name).toBe("Kit · Leon");
    expect(followWords(kit, named("Kit · Leo", "Kit")).name).toBe("Kit");
    expect(followWords(kit, named("For the ferry", "Kit", "Leon")).name).toBe("For the ferry");
    expect(followWords(named("For the ferry", "Kit"), named("For the ferry", "Leo")).name).toBe("For the ferry");
    expect(followWords(named(UNNAMED, ""), named(UNNAMED, "Kit")).name).toBe("Kit");
    expect(followWords(named("Kit", "Kit"), named("Kit", "")).name).toBe(UNNAMED);
  });

  it("follows a word that a beginning has set in capitals", () => {
    const made = starterById("nameplate").make(["Harbour"]);
    expect(word(made).text).toBe("HARBOUR");
    expect(followWords(made, { ...made, parts: [retype(word(made), "QUAY")] }).name).toBe("QUAY");
  });

  it("stays when something else changes", () => {
    const made = { ...named(UNNAMED, "Kit"), name: UNNAMED };
    expect(followWords(made, { ...made, stock: STOCKS[1]! }).name).toBe(UNNAMED);
  });

  it("is cut off between letters where it would be too long", () => {
    expect(nameOfWords(["a".repeat(75), "👩‍🚀👩‍🚀"])).toBe(`${"a".repeat(75)} ·`);
    expect(nameOfWords([" ", ""])).toBe(UNNAMED);
  });
});

describe("letters that are typed on the piece", () => {
  const moved = { ...UNCHANGED_LETTER, dx: 2 };
  const anna = (): Word => ({ ...retype(word(piece()), "Anna"), changes: {} });

  it("come after the letter in the hand, also between two that are alike, and leave what was done to others", () => {
    const before = anna();
    const [, second, third] = before.keys as [string, string, string];
    const changed = { ...before, changes: { [third]: moved } };
    const { word: after, key } = insertAfter(changed, second, "n")!;
    expect(after.text).toBe("Annna");
    expect(after.keys.indexOf(key)).toBe(2);
    expect(after.keys[3]).toBe(third);
    expect(after.changes).toEqual({ [third]: moved });
    expect(new Set(after.keys).size).toBe(5);
  });

  it("a mark goes onto the letter before it", () => {
    const before = anna();
    const { word: after, key } = insertAfter(before, before.keys[3]!, "\u0301")!;
    expect([after.text.normalize("NFC"), after.keys.length, key]).toEqual(["Anná", 4, before.keys[3]]);
  });

  it("are refused beyond what a line can have, and after a letter that is not there", () => {
    const long = retype(anna(), "a".repeat(500));
    expect(insertAfter(long, long.keys[0]!, "b")).toBeNull();
    expect(insertAfter(anna(), "gone", "b")).toBeNull();
  });

  it("one is taken out, and the one before it comes into the hand", () => {
    const before = anna();
    const changed = { ...before, changes: { [before.keys[0]!]: moved, [before.keys[2]!]: moved } };
    const { word: after, key } = removeLetter(changed, before.keys[2]!);
    expect([after.text, key, after.changes]).toEqual(["Ana", before.keys[1], { [before.keys[0]!]: moved }]);
    expect(removeLetter(changed, before.keys[0]!).key).toBe(before.keys[1]);
    const last = { ...before, text: "A", keys: [before.keys[0]!] };
    expect(removeLetter(last, before.keys[0]!)).toMatchObject({ word: { text: "", keys: [] }, key: undefined });
  });
});

describe("several lines", () => {
  it("are set alike, each in its own size", () => {
    const other = { ...word(piece()), id: "w2", font: "pacifico", size: { by: "cap-height" as const, mm: 9 }, slant: 8 };
    const { parts } = dressAlike({ ...piece(), parts: [word(piece()), other] }, "w2");
    expect(parts).toMatchObject([
      { font: "pacifico", slant: 8, size: { mm: 20 } },
      { font: "pacifico", size: { mm: 9 } },
    ]);
  });

  it("a point is taken out of a curve, two are left", () => {
    const points = [
      { x: 0, y: 0 },
      { x: 10, y: 5 },
      { x: 20, y: 0 },
    ];
    const curved = piece({ path: { kind: "curve", points } });
    const pointsOf = (one: Piece) => {
      const { path } = word(one);
      return path?.kind === "curve" ? path.points : [];
    };
    const two = removeNode(curved, "w", 1);
    expect(pointsOf(two)).toEqual([points[0], points[2]]);
    expect(pointsOf(removeNode(two, "w", 0))).toEqual(pointsOf(two));
  });
});
