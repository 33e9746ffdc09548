/**
 * What makers build, checked against plane geometry, statics, another library, and figures of the trade.
 */
import { shippedLibrary } from "@mend-joint/library";
import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { islandsOf, offset, regionArea, regionBox, regionPerimeter, ringArea } from "../geometry";
import { addPart, parsePiece, STOCKS, stockByName } from "../piece";
import { sentencesOf } from "../tests/sentences";
import { rectangle } from "../tests/shapes";

const library = shippedLibrary();

function pieceOf(text: string, parts: object[], word: object = {}, more: object = {}) {
  const base = parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w1", text, font: "archivo-black", size: { by: "cap-height", mm: 20 }, ...word }],
    ...more,
  });
  return parts.reduce<typeof base>((piece, part) => addPart(piece, part as { kind: "loop" }), base);
}

describe("backings", () => {
  it("of a convex shape grow by the Steiner formula, A + P·d + π·d²", () => {
    const square = [rectangle(0, 0, 30, 20)];
    for (const d of [2.54, 5.08, 7]) {
      const expected = regionArea(square) + regionPerimeter(square) * d + Math.PI * d * d;
      expect(regionArea(offset(square, d))).toBeCloseTo(expected, 0);
    }
  });

  it("lie so far from the letters as asked, have no holes when filled, and the letters are engraved on them", () => {
    const { solids, ghosts, verdict, pieces } = examine(
      pieceOf("BOO", [{ kind: "backing", distance: 4 }], { meets: "engrave" }),
      library,
    );
    expect([verdict, pieces, solids.length]).toEqual(["holds", 1, 1]);
    expect(ghosts.map(({ as }) => as)).toEqual(["engrave", "engrave", "engrave"]);
    const [outer, letters] = [regionBox(solids[0]!.region)!, regionBox(ghosts.flatMap(({ region }) => region))!];
    expect(letters.minX - outer.minX).toBeCloseTo(4, 1);
    expect(outer.maxY - letters.maxY).toBeCloseTo(4, 1);
    expect(solids[0]!.region.every((ring) => ringArea(ring) > 0)).toBe(true);
    const kept = examine(
      pieceOf("OO", [{ kind: "backing", distance: 0.5, holes: "keep" }], { meets: "engrave", tracking: 12 }),
      library,
    );
    expect(kept.solids[0]!.region.filter((ring) => ringArea(ring) < 0)).toHaveLength(2);
    const below = examine(
      pieceOf("OO", [{ kind: "backing", distance: 0.5, holes: 30 }], { meets: "engrave", tracking: 12 }),
      library,
    );
    expect(below.solids[0]!.region.filter((ring) => ringArea(ring) < 0)).toHaveLength(0);
  });

  it("follow the word when it changes", () => {
    const width = (text: string) => {
      const box = examine(pieceOf(text, [{ kind: "backing", distance: 4 }], { meets: "engrave" }), library).box!;
      return box.maxX - box.minX;
    };
    expect(width("KITTIWAKE")).toBeGreaterThan(2 * width("KIT"));
  });

  it("common practice, no published source: a slit left by 0.10 in is closed by growing to 0.11 in", () => {
    // Two stems 0.21 in apart: a gap of 0.01 in is left at 0.10 in, none at 0.11 in.
    const stems = [rectangle(0, 0, 6, 20), rectangle(6 + 0.21 * 25.4, 0, 6, 20)];
    expect(islandsOf(offset(stems, 2.54))).toHaveLength(2);
    expect(islandsOf(offset(stems, 2.794))).toHaveLength(1);
  });
});

describe("loops", () => {
  it("keep their hole free, whatever lies under it, and bite as deep as asked", () => {
    for (const angle of [0, 45, 90, 135, 180, 270]) {
      const { solids, hangers, material, pieces } = examine(
        pieceOf(
          "HAH",
          [
            { kind: "backing", distance: 3 },
            { kind: "loop", outer: 12, hole: 6, bite: 2.5, angle },
          ],
          { meets: "engrave" },
        ),
        library,
      );
      expect(pieces).toBe(1);
      const hole = material.find((ring) => ringArea(ring) < 0 && Math.abs(-ringArea(ring) - Math.PI * 9) < 0.2);
      expect(hole, `at ${angle}°`).toBeDefined();
      const loop = regionBox(solids.find(({ id }) => id === "loop")!.region)!;
      expect(hangers[0]!.at.x).toBeCloseTo((loop.minX + loop.maxX) / 2, 2);
    }
  });

  it("common practice, no published source: a loop of 12 mm with a hole of 8 mm is weak in 3 mm MDF, and holds in thicker walls", () => {
    const verdict = (stock: string, hole: number) => {
      const parts = [
        { kind: "backing", distance: 6 },
        { kind: "loop", outer: 12, hole, bite: 4 },
      ];
      return examine(pieceOf("HI", parts, { meets: "engrave" }, { stock: stockByName(stock) }), library).verdict;
    };
    expect(verdict("mdf-3", 8)).toBe("weak");
    expect(verdict("mdf-3", 6)).toBe("holds");
    expect(verdict("birch-3", 8)).toBe("holds");
  });

  it("statics: a plate on a pin above its middle hangs straight, on one at its upper corner by atan(width/height)", () => {
    const plate = { kind: "shape", form: "plate", corner: 0, size: { by: "own", width: 80, height: 40 } };
    const turn = (angle: number) => {
      const { hangers } = examine(pieceOf("", [plate, { kind: "loop", outer: 1.2, hole: 0.4, bite: 1, angle }]), library);
      return hangers[0]!.turn!;
    };
    expect(turn(90)).toBeCloseTo(0, 1);
    // With a pin in the upper right corner the centre of mass lies 40 left and 20 below: it swings clockwise to hang below, so
    // the piece turns counter-clockwise by atan(40/20).
    const expected = (Math.atan2(40, 20) * 180) / Math.PI;
    expect(Math.abs(turn(45) - expected)).toBeLessThan(1.5);
    expect(Math.abs(turn(135) + expected)).toBeLessThan(1.5);
    expect(turn(45)).toBeGreaterThan(0);
  });
});

describe("base shapes and frames", () => {
  it.each([
    ["disc", Math.PI * 900],
    ["oval", Math.PI * 50 * 30],
    ["plate", 100 * 60],
  ] as const)("%s: area by plane geometry", (form, area) => {
    const { area: found } = examine(
      pieceOf("", [{ kind: "shape", form, corner: 0, size: { by: "own", width: 100, height: 60 } }]),
      library,
    );
    expect(found).toBeCloseTo(area, -1);
  });

  it.each(["disc", "oval", "plate", "arch", "tag", "shield", "cloud", "banner"] as const)(
    "%s: one piece that the word lies within; as a frame as wide as asked",
    (form) => {
      const solid = examine(pieceOf("QUAY", [{ kind: "shape", form }], { meets: "engrave" }), library);
      expect(solid.pieces).toBe(1);
      const [outer, word] = [solid.box!, regionBox(solid.ghosts.flatMap(({ region }) => region))!];
      expect(outer.minX).toBeLessThan(word.minX);
      expect(outer.maxX).toBeGreaterThan(word.maxX);
      expect(outer.minY).toBeLessThan(word.minY);
      expect(outer.maxY).toBeGreaterThan(word.maxY);
      const frame = examine(
        pieceOf("", [{ kind: "shape", form, frame: 4, size: { by: "own", width: 120, height: 80 } }]),
        library,
      );
      expect(frame.pieces).toBe(1);
      expect(frame.holds[0]!.width).toBeGreaterThan(3.9);
    },
  );

  it.each(["tag", "arch", "shield", "plate"] as const)("%s: a corner radius larger than the shape leaves a shape", (form) => {
    const { area } = examine(
      pieceOf("", [{ kind: "shape", form, corner: 200, size: { by: "own", width: 60, height: 30 } }]),
      library,
    );
    expect(area).toBeGreaterThan(800);
  });

  it("opened between bars: every letter bites into both", () => {
    const shape = { kind: "shape", form: "disc", frame: 6, opening: "bars", bar: 5, bite: 2, size: { by: "fit", margin: 12 } };
    const { verdict, pieces, holds, letters } = examine(pieceOf("HARBOUR", [shape], { tracking: 2 }), library);
    expect([verdict, pieces]).toEqual(["holds", 1]);
    for (const { solids } of letters) expect(holds[solids[0]!]!.ties).toBeGreaterThan(1);
  });

  it("ending in the word: nothing of the frame is seen within the row, and all is one piece", () => {
    const shape = { kind: "shape", form: "oval", frame: 5, opening: "behind", size: { by: "fit", margin: 25 } };
    const { pieces, solids, words } = examine(pieceOf("MOLE", [shape], { overlap: 1.2 }), library);
    expect(pieces).toBe(1);
    const frame = solids.find(({ id }) => id === "shape")!.region;
    const row = words[0]!.box!;
    // In the middle of the word, between its first and its last letter, the frame is gone.
    const inside = frame.some((ring) =>
      ring.some((x, i) => i % 2 === 0 && Math.abs(x) < 10 && ring[i + 1]! > row.minY + 1 && ring[i + 1]! < row.maxY - 1),
    );
    expect(inside).toBe(false);
  });
});

describe("carving and halos", () => {
  it("lettering cut through a plate leaves its counters as islands that fall", () => {
    const examination = examine(pieceOf("BOX", [{ kind: "shape", form: "plate" }], { meets: "carve" }), library);
    const { verdict, pieces } = examination;
    expect(verdict).toBe("falls");
    // B has two counters, O one.
    expect(pieces).toBe(4);
    expect(sentencesOf(examination)[0]).toContain("An island cut free from the plate");
  });

  it("a halo is as wide as asked", () => {
    const parts = [
      { kind: "word", text: "I", font: "archivo-black", size: { by: "cap-height", mm: 20 }, meets: "halo", gap: 1.4 },
    ];
    const back = { kind: "shape", form: "plate", size: { by: "own", width: 80, height: 60 } };
    const { material, pieces } = examine(pieceOf("", [back, ...parts]), library);
    expect(pieces).toBe(2);
    const [plate, front] = islandsOf(material);
    const hole = regionBox(plate!.filter((ring) => ringArea(ring) < 0))!;
    expect(regionBox(front!)!.minX - hole.minX).toBeCloseTo(1.4, 2);
  });

  it("a heart is knocked out of a letter, or takes the place of its counter", () => {
    const heart = (more: object) => ({
      kind: "ornament",
      name: "heart",
      height: 5,
      at: { x: 0, y: 10 },
      meets: "carve",
      ...more,
    });
    const plain = examine(pieceOf("O", []), library);
    const inCounter = examine(pieceOf("O", [heart({ closes: true })]), library);
    expect(inCounter.material).toHaveLength(2);
    expect(inCounter.area).toBeGreaterThan(plain.area);
    const through = examine(pieceOf("I", [heart({ height: 3 })]), library);
    expect(through.material).toHaveLength(2);
    expect(through.holds[0]!.anchor).toBe(true);
  });
});

describe("letters between two rings", () => {
  it("every letter reaches the same depth into both, and holds by both", () => {
    const path = { kind: "arc", radius: 40, around: true, line: 4, between: { gap: 16, bite: 1.6, line: 4 } };
    const { verdict, pieces, words, holds, letters } = examine(pieceOf("ABCoxy", [], { path }), library);
    expect([verdict, pieces]).toEqual(["holds", 1]);
    expect(words[0]!.secondRing!.radius).toBeCloseTo(40 + 2 + 16 + 2, 6);
    for (const { solids } of letters) expect(holds[solids[0]!]!.ties).toBeGreaterThan(1);
  });
});

it("a second ring goes along when its line is brought to another", () => {
  const path = { kind: "arc", radius: 40, around: true, line: 4, between: { gap: 16, bite: 1.6, line: 4 } };
  const above = {
    kind: "word",
    text: "OOO",
    font: "archivo-black",
    size: { by: "cap-height", mm: 20 },
    at: { x: 0, y: 300 },
    join: 3,
  };
  const base = pieceOf("ABCoxy", [], { path, at: { x: 0, y: 0 }, bitesBefore: 4 });
  const piece = { ...base, parts: [...addPart(base, above as unknown as { kind: "word" }).parts].reverse() };
  const { pieces, words } = examine(piece, library);
  expect(pieces).toBe(1);
  expect(words[1]!.secondRing!.middle.y).toBeGreaterThan(200);
});

describe("balance", () => {
  it("a stick beside the centre of mass makes the piece lean; a limit that is exceeded is told", () => {
    const parts = (dx: number) => [{ kind: "bar" }, { kind: "stick", dx }];
    const kinds = (dx: number, more: object = {}) =>
      examine(pieceOf("HARBOUR", parts(dx), {}, more), library).findings.map(({ kind }) => kind);
    expect(kinds(0)).not.toContain("leans");
    expect(kinds(40)).toContain("leans");
    expect(kinds(0, { limit: { width: 500, height: 500 } })).not.toContain("too-large");
    expect(kinds(0, { limit: { width: 50.8, height: 50.8 } })).toContain("too-large");
  });
});

it("offsets of letters agree with those of another library (JSTS buffers)", () => {
  const { material } = examine(pieceOf("RQ", [], { tracking: 2 }), library);
  const polygons = islandsOf(material).map((island) =>
    island.map((ring) => {
      const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!]);
      return [...points, points[0]!];
    }),
  );
  const geometry = new GeoJSONReader().read({ type: "MultiPolygon", coordinates: polygons });
  for (const d of [0.8, 2.5]) {
    const theirs = BufferOp.bufferOp(geometry, d, 64).getArea();
    expect(Math.abs(regionArea(offset(material, d)) / theirs - 1)).toBeLessThan(0.001);
  }
});

describe("flat stakes", () => {
  it("letters stand on the body, with the notch clear around them, 7 in long with a word that fits", () => {
    const stake = { kind: "stake", gap: 3, bite: 1.8, below: 9, margin: 12, point: 50 };
    const { verdict, pieces, box, material, words } = examine(
      pieceOf("KALE", [stake], { size: { by: "width", mm: 95 } }),
      library,
    );
    expect([verdict, pieces]).toEqual(["holds", 1]);
    // 95 mm of lettering, a gap and a margin on either side, and the point.
    expect(box!.maxX - box!.minX).toBeCloseTo(95 + 2 * (3 + 12) + 50, 1);
    const row = words[0]!.box!;
    const beside = material.some((ring) =>
      ring.some((x, i) => i % 2 === 0 && Math.abs(x - (row.minX - 3)) < 0.01 && ring[i + 1]! > row.maxY - 0.1),
    );
    expect(beside).toBe(true);
  });
});

describe("ties", () => {
  const tie = (more: object) => ({
    kind: "tie",
    width: 2,
    ends: [
      { x: 0, y: 0 },
      { x: 20, y: 0 },
    ],
    ...more,
  });
  const area = (more: object) => examine(pieceOf("", [tie(more)]), library).area;

  it("straight ones have the area of a bar with round or square ends", () => {
    expect(area({})).toBeCloseTo(40 + Math.PI, 1);
    expect(area({ square: true })).toBeCloseTo(40, 2);
  });

  it("bent ones keep their width and go through the middle of their bend", () => {
    const { box, holds } = examine(pieceOf("", [tie({ bend: 6 })]), library);
    expect(box!.maxY).toBeCloseTo(7, 1);
    expect(holds[0]!.width).toBeCloseTo(2, 1);
    // Arc length of a parabola with sagitta 6 over 20, times the width, and the round ends.
    const h = (4 * 6) / 20;
    const length = 10 * Math.hypot(1, h) + (10 / h) * Math.asinh(h);
    expect(area({ bend: 6 })).toBeCloseTo(2 * length + Math.PI, 0);
  });
});
