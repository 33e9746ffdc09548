import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { PROFILES, planCut } from "../cut";
import { examine, layOutWords } from "../examine";
import { readSvg, writeSvg } from "../formats";
import { islandsOf, regionArea, regionBox, regionPerimeter, roundInnerCorners, roundOuterCorners, union } from "../geometry";
import { parsePiece, retype, STOCKS, type Word } from "../piece";
import { sentencesOf } from "../tests/sentences";
import { rectangle } from "../tests/shapes";

const library = shippedLibrary();
const pieceOf = (text: string, font: string, more: object = {}) =>
  parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...more }],
  });

/** Width and height as another program would read them from the cut file. */
function sizeInFile(piece: ReturnType<typeof pieceOf>): [number, number] {
  const { material, box } = examine(piece, library);
  const plan = planCut(piece, { material, engrave: [], score: [], box }, { profile: PROFILES[0]! });
  const { shapes } = readSvg(writeSvg(plan));
  const all = regionBox(shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)))!;
  return [all.maxX - all.minX, all.maxY - all.minY];
}

const TREATMENTS: [string, object][] = [
  ["as it is", {}],
  ["thickened with sharp corners", { thicken: 1.2, corners: "sharp" }],
  ["thinned", { thicken: -0.6 }],
  ["slanted", { slant: 14 }],
  ["rounded", { roundOuter: 0.8, roundInner: 0.5 }],
  ["overlapped", { overlap: 0.8 }],
  ["joined", { join: 2 }],
  ["on an arc", { path: { kind: "arc", radius: 200 } }],
  ["with a turned and a larger letter", { changes: { k1: { turn: 20 }, k3: { scale: 1.5 } } }],
  ["with joined dots", { dots: "bite" }],
];

describe.each(TREATMENTS)("a finished size is exact: %s", (_, more) => {
  it.each(["pacifico", "alfa-slab-one"])("%s", (font) => {
    const [width] = sizeInFile(pieceOf("Jiří", font, { size: { by: "width", mm: 90 }, ...more }));
    expect(Math.abs(width - 90)).toBeLessThan(0.02);
    const [, height] = sizeInFile(pieceOf("Jiří", font, { size: { by: "height", mm: 31.75 }, ...more }));
    expect(Math.abs(height - 31.75)).toBeLessThan(0.02);
    const both = sizeInFile(pieceOf("Jiří", font, { size: { by: "both", mm: 120, height: 30 }, ...more }));
    expect(Math.abs(both[0] - 120)).toBeLessThan(0.02);
    expect(Math.abs(both[1] - 30)).toBeLessThan(0.02);
    const within = sizeInFile(pieceOf("Jiří", font, { size: { by: "within", mm: 50.8, height: 50.8 }, ...more }));
    expect(Math.max(...within)).toBeGreaterThan(50.78);
    expect(Math.max(...within)).toBeLessThan(50.82);
  });
});

it("a finished size is held while the word and its lettering change", () => {
  let word = pieceOf("Kit", "pacifico", { size: { by: "width", mm: 100 } }).parts[0] as Word;
  for (const [text, font] of [
    ["Kite", "pacifico"],
    ["Kittiwake", "lobster"],
    ["Zoë", "anton"],
  ] as const) {
    word = { ...retype(word, text), font };
    const box = layOutWords({ ...pieceOf("", font), parts: [word] }, library).layouts[0]!.box!;
    expect(Math.abs(box.maxX - box.minX - 100)).toBeLessThan(0.02);
  }
});

describe("one letter at a time", () => {
  const letters = (changes: object) => examine(pieceOf("HAH", "archivo-black", { changes }), library).words[0]!.letters;
  const box = (letter: ReturnType<typeof letters>[number]) => regionBox(letter.islands[0]!.region)!;

  it("kerning moves a letter and all after it", () => {
    const [plain, kerned] = [letters({}), letters({ k2: { kern: 3 } })];
    const gaps = (row: typeof plain) => [box(row[1]!).minX - box(row[0]!).maxX, box(row[2]!).minX - box(row[1]!).maxX];
    expect(gaps(kerned)[0]! - gaps(plain)[0]!).toBeCloseTo(3, 3);
    expect(gaps(kerned)[1]!).toBeCloseTo(gaps(plain)[1]!, 3);
  });

  it("a larger letter stands on the same line and gets its room; a mirrored and a turned one keep their place", () => {
    const [plain, large] = [letters({}), letters({ k2: { scale: 2 } })];
    expect(box(large[1]!).maxY).toBeCloseTo(2 * box(plain[1]!).maxY, 2);
    expect(box(large[1]!).minY).toBeCloseTo(2 * box(plain[1]!).minY, 2);
    const gap = (row: typeof plain) => box(row[2]!).minX - box(row[1]!).maxX;
    expect(gap(large)).toBeGreaterThan(gap(plain) - 0.01);
    const mirrored = letters({ k2: { mirror: true } });
    expect(regionArea(mirrored[1]!.islands[0]!.region)).toBeCloseTo(regionArea(plain[1]!.islands[0]!.region), 4);
    expect(box(mirrored[1]!).minX).toBeCloseTo(box(plain[1]!).minX, 2);
    // A half turn about the middle of the foot puts the head as far below the line as it was above.
    const turned = letters({ k2: { turn: 180 } });
    expect(box(turned[1]!).minY).toBeCloseTo(-box(plain[1]!).maxY, 3);
    expect(turned[1]!.angle).toBeCloseTo(Math.PI);
  });
});

describe("ties for dots", () => {
  it.each(["tie", "slanted", "neighbour"] as const)("%s: every dot holds, by a tie as wide as asked", (dots) => {
    for (const font of ["pacifico", "baloo-2-extra-bold", "fredoka-bold"]) {
      const { holds, solids } = examine(pieceOf("Jiří", font, { dots, overlap: 1, tieWidth: 2 }), library);
      solids.forEach(({ label, letterId, id }, i) => {
        if (id === letterId) return;
        expect(holds[i]!.falls, `${label.kind} of ${label.text} in ${font}`).toBe(false);
        expect(holds[i]!.width, `${label.kind} of ${label.text} in ${font}`).toBeGreaterThan(1.4);
      });
    }
  });

  it.each(["tie", "slanted"] as const)("%s: alone on its stem, the tie decides the hold", (dots) => {
    const { holds, solids } = examine(pieceOf("i", "fredoka-bold", { dots, tieWidth: 1.6 }), library);
    expect(solids).toHaveLength(2);
    expect(Math.abs(holds[1]!.width - 1.6)).toBeLessThan(0.1);
  });

  it("one letter may be treated otherwise than the word", () => {
    const { holds, solids } = examine(
      pieceOf("ili", "fredoka-bold", { dots: "tie", overlap: 0.4, changes: { k3: { dots: "leave" } } }),
      library,
    );
    const falls = solids.flatMap(({ id, letterId }, i) => (id === letterId ? [] : [holds[i]!.falls]));
    expect(falls).toEqual([false, true]);
  });
});

describe("letters joined by a measured width", () => {
  it.each(["archivo-black", "titan-one", "bevan", "nunito-black"])("%s: every pair gets the joint asked for", (font) => {
    for (const join of [2, 3.5]) {
      const { joints, solids, holds } = examine(pieceOf("HARBOUR", font, { join }), library);
      for (let i = 1; i < solids.length; i++) {
        const between = joints.filter(({ parts }) => parts.includes(i) && parts.includes(i - 1)).map(({ width }) => width);
        // Where the two meet in several places, or flow into each other, no single joint has the width.
        // Straight sides meet along their whole height at once; beside a slanted stroke the narrowest way is a little shorter.
        if (between.length === 1) expect(between[0]!, `pair ${i}`).toBeGreaterThan(0.95 * join);
        expect(holds[i]!.falls).toBe(false);
      }
    }
  });
});

it.each(["archivo-black", "titan-one", "nunito-black"])("%s: round letters get just the joint asked for", (font) => {
  for (const path of [undefined, { kind: "arc", radius: 80 }]) {
    for (const join of [2, 3.5]) {
      const { joints, solids } = examine(pieceOf("OCOSCO", font, { join, path }), library);
      for (let i = 1; i < solids.length; i++) {
        const between = joints.filter(({ parts }) => parts.includes(i) && parts.includes(i - 1)).map(({ width }) => width);
        // Thin places of the letters themselves are necks as well; one of them is the joint.
        expect(Math.min(...between.map((width) => Math.abs(width / 1.02 - join))), `pair ${i}`).toBeLessThan(0.05);
      }
    }
  }
});

describe("rounding (checked against plane geometry)", () => {
  const square = [rectangle(0, 0, 20, 20)];

  it("a square loses (4 − π)·r² at its corners", () => {
    for (const r of [1, 3]) expect(regionArea(roundOuterCorners(square, r))).toBeCloseTo(400 - (4 - Math.PI) * r * r, 1);
  });

  it("an inner corner gains (1 − π/4)·r²", () => {
    const corner = union([[rectangle(0, 0, 20, 6)], [rectangle(0, 0, 6, 20)]]);
    expect(regionArea(roundInnerCorners(corner, 2)) - regionArea(corner)).toBeCloseTo((1 - Math.PI / 4) * 4, 1);
  });

  it("a stroke thinner than the radius allows is kept, and a gap stays open", () => {
    const thin = union([square, [rectangle(18, 9, 30, 1)]]);
    const rounded = roundOuterCorners(thin, 3);
    expect(islandsOf(rounded)).toHaveLength(1);
    expect(regionBox(rounded)!.maxX).toBeCloseTo(48, 1);
    const slit = [rectangle(0, 0, 20, 20), rectangle(21, 0, 20, 20)];
    expect(islandsOf(roundInnerCorners(slit, 3))).toHaveLength(2);
  });

  it("a dot smaller than the radius stays, whatever the radius", () => {
    const stemAndDot = [rectangle(0, 0, 12, 20), rectangle(4, 24, 4, 4)];
    for (const radius of [1, 2.5, 6, 20]) {
      const rounded = roundOuterCorners(stemAndDot, radius);
      expect(islandsOf(rounded), `${radius} mm`).toHaveLength(2);
      // Of a square at most the corners beyond its inscribed circle go.
      expect(regionArea(rounded)).toBeGreaterThan((Math.PI / 4) * (16 + 144) + 12 * 8 - 1);
    }
  });

  it("leaves letters of one piece in one piece, with less outline than before", () => {
    for (const letter of "AKWg") {
      const [plain, round] = [0, 0.6].map(
        (roundOuter) => examine(pieceOf(letter, "alfa-slab-one", { roundOuter }), library).material,
      );
      expect(islandsOf(round!)).toHaveLength(1);
      expect(regionPerimeter(round!)).toBeLessThan(regionPerimeter(plain!));
    }
  });
});

it("thinning a word until nothing is left is said, not passed over", () => {
  const examination = examine(pieceOf("Kit", "sacramento", { thicken: -4 }), library);
  expect(examination.verdict).toBe("falls");
  expect(sentencesOf(examination)[0]).toContain("Nothing is left of");
});

describe("lines that bite into each other", () => {
  const lines = (joint: number, y: number) =>
    parsePiece({
      name: "w",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "a", text: "OOO", font: "archivo-black", size: { by: "cap-height", mm: 20 }, join: 3 },
        {
          kind: "word",
          id: "b",
          text: "OOO",
          font: "archivo-black",
          size: { by: "cap-height", mm: 20 },
          join: 3,
          at: { x: 0, y },
          bitesBefore: joint,
        },
      ],
    });

  it("the widest joint between them is as wide as asked, wherever the line stood, above or below", () => {
    for (const y of [-60, -10, 40]) {
      const { joints, solids, pieces } = examine(lines(4, y), library);
      expect(pieces).toBe(1);
      const between = joints
        .filter(({ parts }) => new Set(parts.map((i) => solids[i]!.partId)).size === 2)
        .map(({ width }) => width);
      expect(Math.min(...between.map((width) => Math.abs(width / 1.02 - 4)))).toBeLessThan(0.05);
    }
  });
});
