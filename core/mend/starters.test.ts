/**
 * Every starter with several words and letterings: it holds at once, or says why not.
 */
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { type Examination, examine } from "../examine";
import { backwards, difference, type Region, regionArea, regionPerimeter, ringArea } from "../geometry";
import { openFindings } from "../judge";
import { type Loop, type Piece, parsePiece, STARTERS, STOCKS, type Stick, type Word } from "../piece";
import { sentencesOf } from "../tests/sentences";
import { beginPiece, bridgePlace, counterPlace, stickPlace, tieUp, uprightAngle } from "./index";

const library = shippedLibrary();
const WORDS = ["Kit", "Isolde", "Jiří", "Zoë", "Bjørn", "Wilhelmina"];
const FONTS = ["pacifico", "lobster", "alfa-slab-one", "baloo-2-extra-bold"];

const inFont = (piece: Piece, font: string): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "word" ? { ...part, font } : part)),
});

describe.each(STARTERS.map((starter) => [starter.id, starter] as const))("%s", (id, starter) => {
  it("holds with a short word in its own lettering, without the hand of a user", () => {
    const piece = beginPiece(id, ["Kate", "Ben"], library);
    const { verdict, pieces } = examine(piece, library);
    expect([verdict, pieces]).toEqual(["holds", 1]);
  });

  it("with other words and letterings it holds, or a finding names what does not", () => {
    WORDS.forEach((word, i) => {
      const made = starter.make([word, "Ben"]);
      for (const font of [undefined, FONTS[i % FONTS.length]!]) {
        const piece = font ? inFont(made, font) : made;
        const tied = starter.ties ? tieUp(piece, library, { width: starter.ties }).piece : piece;
        const examination = examine(tied, library);
        const { verdict, findings, pieces } = examination;
        const open = openFindings(findings);
        expect(verdict === "holds", `${word} ${font}`).toBe(open.length === 0);
        if (pieces > 1) expect(verdict, `${word} ${font}`).toBe("falls");
        for (const sentence of sentencesOf({ ...examination, findings: open })) expect(sentence.length).toBeGreaterThan(20);
      }
    });
  });
});

it("overlaid names hold with short and with long ones in front, whatever scraps they leave of the letters behind", () => {
  for (const front of ["Oda", "Kit", "dill", "oyster", "Wilhelmina"]) {
    const examination = examine(beginPiece("overlaid-names", [front, "Skerrow"], library), library);
    expect([front, examination.verdict, examination.pieces]).toEqual([front, "holds", 1]);
    // Ties that others have covered are gone again.
    const isTie = (id: string | undefined) => examination.solids.some((solid) => solid.id === id && solid.label.kind === "tie");
    expect(examination.findings.filter(({ kind, parts }) => kind === "swallowed" && isTie(parts[0]))).toEqual([]);
    // A scrap has a width that a beam leaves something of.
    for (const { region } of examination.solids)
      expect(regionArea(region) > 0.05 || 2 * regionArea(region) > 0.05 * regionPerimeter(region)).toBe(true);
  }
});

describe("tying up", () => {
  const plate = (text: string) =>
    parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        { kind: "shape", id: "shape", form: "plate" },
        { kind: "word", id: "w", text, font: "titan-one", size: { by: "cap-height", mm: 30 }, meets: "carve" },
      ],
    });

  it("takes one tie for each island, or two, and all then hold", () => {
    const { piece, added, pieces } = tieUp(plate("BOA"), library, { width: 2.6 });
    expect([added, pieces]).toEqual([4, 1]);
    expect(examine(piece, library).verdict).toBe("holds");
    const twice = tieUp(plate("OQO"), library, { width: 2.6, count: 2 });
    expect(twice.added).toBe(6);
    const { holds, solids } = examine(twice.piece, library);
    solids.forEach(({ label }, i) => {
      if (label.kind === "island") expect(holds[i]!.ties).toBe(2);
    });
  });

  it("ties live with the letters: they follow when the word moves", () => {
    const { piece } = tieUp(plate("O"), library, { width: 3 });
    const parts = piece.parts.map((part) => (part.kind === "word" ? { ...part, at: { x: 30, y: 5 } } : part));
    expect(examine({ ...piece, parts }, library).pieces).toBe(1);
  });

  it("leaves a piece alone that is one already", () => {
    const piece = beginPiece("topper", ["Kate"], library);
    expect(tieUp(piece, library, { width: 2 })).toEqual({ piece, added: 0, pieces: 1 });
  });
});

describe("places", () => {
  it("a loop is put where the piece hangs straight", () => {
    const piece = parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        { kind: "backing", id: "backing", distance: 5 },
        { kind: "word", id: "w", text: "Wiii", font: "archivo-black", size: { by: "cap-height", mm: 20 }, meets: "engrave" },
        { kind: "loop", id: "loop", angle: 60 },
      ],
    });
    const before = examine(piece, library);
    expect(before.findings.some(({ kind }) => kind === "hangs-askew")).toBe(true);
    const angle = uprightAngle(piece, "loop", library)!;
    const parts = piece.parts.map((part) => (part.kind === "loop" ? ({ ...part, angle } satisfies Loop) : part));
    expect(Math.abs(examine({ ...piece, parts }, library).hangers[0]!.turn!)).toBeLessThan(0.5);
  });

  it("a stick goes where it is solid over its whole width, next below the centre of mass; never under a counter", () => {
    const piece = parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text: "OHO", font: "archivo-black", size: { by: "cap-height", mm: 40 }, overlap: 1.5 },
        { kind: "stick", id: "stick", width: 6, bite: 4 },
      ],
    });
    // In the middle, between the stems of H, there is nothing below.
    const dx = stickPlace(piece, "stick", library)!;
    expect(Math.abs(dx)).toBeGreaterThan(4);
    const parts = piece.parts.map((part) => (part.kind === "stick" ? ({ ...part, dx } satisfies Stick) : part));
    const { verdict, holds, solids } = examine({ ...piece, parts }, library);
    expect(verdict).toBe("holds");
    expect(holds[solids.findIndex(({ id }) => id === "stick")]!.width).toBeGreaterThan(5.5);
    const alone = { ...piece, parts: piece.parts.filter(({ kind }) => kind === "stick") };
    expect(stickPlace(alone, "stick", library)).toBeNull();
  });
});

describe("an ornament in the place of a counter", () => {
  const piece = parsePiece({
    name: "p",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: "OL", font: "archivo-black", size: { by: "cap-height", mm: 30 }, overlap: 1 }],
  });
  const [o, l] = (piece.parts[0] as Word).keys as [string, string];

  // A star, one that is wider than high, one that is higher than wide.
  it.each(["star", "arrow", "moon"] as const)(
    "a %s stands in its middle, goes with its letter, and leaves the walls as they were",
    (name) => {
      const place = counterPlace(piece, { wordId: "w", key: o }, name, library)!;
      const star = { kind: "ornament", id: "s", name, ...place, meets: "carve", closes: true };
      const before = examine(piece, library);
      const after = examine(parsePiece({ ...piece, parts: [...piece.parts, star] }), library);
      const holes = ({ material }: Pick<Examination, "material">): Region =>
        material.filter((ring) => ringArea(ring) < 0).map(backwards);
      const [was, is] = [holes(before), holes(after)];
      expect(place.at.letter).toEqual({ wordId: "w", key: o });
      expect([was.length, is.length]).toEqual([1, 1]);
      expect(regionArea(is)).toBeLessThan(0.8 * regionArea(was));
      expect(regionArea(difference(is, was))).toBeLessThan(0.01);
      expect(after.verdict).toBe("holds");
    },
  );

  it("has no place in a letter without one, or that is not there", () => {
    expect(counterPlace(piece, { wordId: "w", key: l }, "star", library)).toBeNull();
    expect(counterPlace(piece, { wordId: "w", key: "gone" }, "star", library)).toBeNull();
  });
});

describe("an ornament as a bridge", () => {
  const piece = (text: string, tracking: number) =>
    parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text, font: "archivo-black", size: { by: "cap-height", mm: 20 }, tracking },
        { kind: "ornament", id: "o", name: "disc", height: 12, at: { x: 100, y: 100 } },
      ],
    });

  it("is put where it joins what stands apart, and follows the letter there", () => {
    const start = piece("HI", 3);
    const at = bridgePlace(start, "o", library)!;
    expect(at.letter).toBeDefined();
    const parts = start.parts.map((part) => (part.kind === "ornament" ? { ...part, at } : part));
    expect(examine(start, library).pieces).toBe(3);
    expect(examine({ ...start, parts }, library).pieces).toBe(1);
  });

  it("is put to the nearest letter when everything is too far apart", () => {
    const start = piece("HI", 40);
    const at = bridgePlace(start, "o", library)!;
    const parts = start.parts.map((part) => (part.kind === "ornament" ? { ...part, at } : part));
    expect(examine(start, library).pieces).toBe(3);
    const after = examine({ ...start, parts }, library);
    expect(after.pieces).toBe(2);
    const own = after.solids.findIndex(({ id }) => id === "o");
    const widths = after.joints.filter((joint) => joint.parts.includes(own)).map(({ width }) => width);
    expect(Math.max(...widths)).toBeGreaterThanOrEqual(after.leastWidth - 0.005);
  });

  it("is put between two lines that hang together by one joint only", () => {
    const line = (id: string, text: string, y: number) => ({
      kind: "word",
      id,
      text,
      font: "archivo-black",
      size: { by: "cap-height", mm: 20 },
      overlap: 1,
      at: { x: 0, y },
    });
    const tie = {
      kind: "tie",
      id: "t",
      width: 2.5,
      ends: [
        { x: -34, y: 4 },
        { x: -34, y: -12 },
      ],
    };
    const start = parsePiece({
      name: "p",
      stock: STOCKS[0],
      parts: [
        line("w1", "HARBOUR", 0),
        line("w2", "HARBOUR", -26),
        { kind: "ornament", id: "o", name: "disc", height: 12, at: { x: 200, y: 100 } },
        tie,
      ],
    });
    expect(examine({ ...start, parts: start.parts.filter(({ kind }) => kind !== "ornament") }, library).verdict).toBe("holds");
    const at = bridgePlace(start, "o", library)!;
    const parts = start.parts.map((part) => (part.kind === "ornament" ? { ...part, at } : part));
    const { solids, joints } = examine({ ...start, parts }, library);
    const own = solids.findIndex(({ id }) => id === "o");
    const joinedTo = joints
      .filter((joint) => joint.parts.includes(own))
      .flatMap((joint) => joint.parts.map((i) => solids[i]!.partId));
    expect(joinedTo).toEqual(expect.arrayContaining(["w1", "w2"]));
  });

  it("has no better place than where it is joined, and none where there is nothing to join", () => {
    const alone = { ...piece("HI", 0), parts: piece("HI", 0).parts.slice(1) };
    expect(bridgePlace(alone, "o", library)).toBeNull();
  });
});
