import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { intersection, islandsOf, regionArea, regionBox } from "../geometry";
import { parsePiece, STOCKS, SYMBOLS, type Word, type WordPath } from "../piece";
import { say } from "../tests/sentences";
import { layoutWord } from "./index";
import { footRadius, lineOf } from "./line";

const library = shippedLibrary();

function pieceOf(text: string, font: string, more: object = {}, parts: object[] = []) {
  return parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...more }, ...parts],
  });
}
const layout = (text: string, font: string, more: object = {}) =>
  layoutWord(pieceOf(text, font, more).parts[0] as Word, library.font(font)!);
const arc = (more: object) => ({ kind: "arc", radius: 60, ...more });

describe("arcs and rings (checked against plane geometry)", () => {
  it("every foot stands on the circle, turned to its tangent; the word's middle is where it was put", () => {
    const found = layout("HARBOUR", "anton", { path: arc({}), at: { x: 5, y: -3 } });
    const straight = layout("HARBOUR", "anton", { at: { x: 5, y: -3 } });
    const length = (l: typeof found, i: number) => l.letters[i]!;
    for (let i = 0; i < 7; i++) {
      const [box, flat] = [length(found, i), length(straight, i)];
      const middle = (regionBox(flat.islands[0]!.region)!.minX + regionBox(flat.islands[0]!.region)!.maxX) / 2 - 5;
      // The arc from the top to the foot is as long as the way along the straight line.
      const angle = Math.PI / 2 - middle / 60;
      expect(box.angle).toBeCloseTo(angle - Math.PI / 2, 3);
      const fromPen = middle + 5 - flat.origin.x;
      const expected = {
        x: 5 + 60 * Math.cos(angle) - fromPen * Math.cos(box.angle),
        y: -3 + 60 * Math.sin(angle) - fromPen * Math.sin(box.angle),
      };
      expect(box.origin.x).toBeCloseTo(expected.x, 2);
      expect(box.origin.y).toBeCloseTo(expected.y, 2);
    }
  });

  it("letters are turned, not bent: each keeps its area", () => {
    const areas = (path?: object) =>
      layout("OYSTER", "titan-one", { path }).letters.map(({ islands }) => regionArea(islands[0]!.region));
    const straight = areas();
    areas(arc({ radius: 30 })).forEach((area, i) => {
      expect(area).toBeCloseTo(straight[i]!, 3);
    });
  });

  it("outside and inside, along the top and along the bottom, letters stay on their side of the line", () => {
    const reach = (more: object) => {
      const radii = layout("HHHH", "archivo-black", { path: arc({ ...more, distance: 2 }) }).letters.flatMap(({ islands }) =>
        islands.flatMap(({ region }) =>
          region.flatMap((ring) => Array.from({ length: ring.length / 2 }, (_, i) => Math.hypot(ring[2 * i]!, ring[2 * i + 1]!))),
        ),
      );
      return [Math.min(...radii), Math.max(...radii)];
    };
    // Feet of straight letters on a circle: their corners lie a little outside, their middle on it.
    expect(reach({ side: "outside" })[0]).toBeGreaterThan(61.99);
    expect(reach({ side: "outside" })[0]).toBeLessThan(62.3);
    expect(reach({ side: "outside", reading: "counter-clockwise", angle: 270 })[0]).toBeGreaterThan(60);
    expect(reach({ side: "inside" })[1]).toBeLessThan(60);
    expect(reach({ side: "inside", reading: "counter-clockwise", angle: 270 })[1]).toBeLessThan(60);
  });

  it("spread around, all gaps are alike and the ring closes", () => {
    const { letters } = layout("NNNNNNNN", "archivo-black", { path: arc({ around: true }) });
    const angles = letters.map(({ angle }) => angle);
    for (let i = 1; i < 8; i++) {
      const step = (angles[i - 1]! - angles[i]! + 4 * Math.PI) % (2 * Math.PI);
      expect(step).toBeCloseTo(Math.PI / 4, 6);
    }
  });

  it("a separator stands between words, and once more where the ring closes", () => {
    const { letters } = layout("OYSTER BAR", "anton", { path: arc({ around: true }), separator: "star" });
    expect(letters.filter(({ symbol }) => symbol === "star")).toHaveLength(2);
    expect(layout("OYSTER BAR", "anton", { separator: "star" }).letters.filter(({ symbol }) => symbol)).toHaveLength(1);
  });

  it("a word too long for its circle names the letters that meet the first ones again", () => {
    const piece = pieceOf("HARBOUR OFFICE", "archivo-black", { path: arc({ radius: 20 }) });
    const [finding] = examine(piece, library).findings.filter(({ kind }) => kind === "beyond-line");
    expect(say(finding, [])).toMatch(/^The line is \d+\.\d mm too short: .*E/);
  });

  it("the line is cut only when asked, and then holds the letters", () => {
    const without = examine(pieceOf("BELL", "archivo-black", { path: arc({ distance: -1.5 }) }), library);
    expect(without.pieces).toBe(4);
    const cut = examine(pieceOf("BELL", "archivo-black", { path: arc({ distance: -1.8, line: 4 }) }), library);
    expect(cut.pieces).toBe(1);
    expect(cut.solids[0]!.holder).toBe(true);
    // An annulus of width 4 on a circle of radius 60.
    expect(regionArea(cut.solids[0]!.region)).toBeCloseTo(2 * Math.PI * 60 * 4, -1);
  });

  it.each([
    ["outside", "clockwise", 62],
    ["inside", "clockwise", 60 - 2 - 10],
    ["inside", "counter-clockwise", 58],
    ["outside", "counter-clockwise", 60 + 2 + 10],
  ] as const)("%s, read %s: feet stand at radius %d", (side, reading, radius) => {
    const path = { kind: "arc", radius: 60, side, reading, distance: 2, angle: 90, around: false } as const;
    expect(footRadius(path, 10)).toBeCloseTo(radius);
  });
});

describe("curves and spirals", () => {
  const curve: WordPath = {
    kind: "curve",
    distance: 0,
    points: [
      { x: 0, y: 0 },
      { x: 50, y: 20 },
      { x: 100, y: 0 },
    ],
  };

  it("a curve through points on a straight line is that line", () => {
    const straight = { ...curve, points: [0, 40, 100].map((x) => ({ x, y: 0 })) };
    const line = lineOf(straight, 10, { x: 3, y: 4 });
    expect(line.length).toBeCloseTo(100, 6);
    expect(line.at(25)[4]).toBeCloseTo(28, 6);
    expect(line.at(25)[5]).toBeCloseTo(4, 6);
  });

  it("goes through every point, and letters keep their distance from it", () => {
    const line = lineOf(curve, 10, { x: 0, y: 0 });
    for (const { x, y } of curve.points) {
      let nearest = Infinity;
      for (let i = 0; i < line.points.length; i += 2)
        nearest = Math.min(nearest, Math.hypot(line.points[i]! - x, line.points[i + 1]! - y));
      expect(nearest).toBeLessThan(0.13);
    }
    const away = lineOf({ ...curve, distance: 5 }, 10, { x: 0, y: 0 });
    for (const s of [10, 50, 90]) {
      const [here, there] = [line.at(s), away.at(s)];
      expect(Math.hypot(here[4] - there[4], here[5] - there[5])).toBeCloseTo(5, 6);
    }
  });

  it("a spiral keeps its pitch", () => {
    const line = lineOf({ kind: "spiral", radius: 20, pitch: 12, angle: 90, distance: 0 }, 10, { x: 0, y: 0 });
    // Length of an Archimedean spiral over its first turn, integrated: ∫ sqrt(r² + (pitch/2π)²) dθ.
    let length = 0;
    const b = 12 / (2 * Math.PI);
    for (let k = 0; k < 10_000; k++) {
      const a = ((k + 0.5) / 10_000) * 2 * Math.PI;
      length += (Math.hypot(20 + b * a, b) * 2 * Math.PI) / 10_000;
    }
    const [, , , , x, y] = line.at(length);
    expect(x).toBeCloseTo(0, 1);
    expect(y).toBeCloseTo(32, 1);
  });

  it("what does not fit is named", () => {
    const findings = (text: string) =>
      examine(pieceOf(text, "pacifico", { path: curve }), library).findings.filter(({ kind }) => kind === "beyond-line");
    expect(findings("Kit")).toEqual([]);
    expect(say(findings("Wilhelmina Wilhelmina")[0], [])).toContain("beyond it");
  });

  it("an inward spiral ends before its middle", () => {
    const line = lineOf({ kind: "spiral", radius: 30, pitch: -10, angle: 0, distance: 0 }, 10, { x: 0, y: 0 });
    expect(Math.hypot(line.points[line.points.length - 2]!, line.points[line.points.length - 1]!)).toBeCloseTo(1, 0);
  });
});

describe("stacked letters", () => {
  it.each(["archivo-black", "alfa-slab-one", "fredoka-bold"])("%s: each is centred and bitten into the next", (font) => {
    const found = layout("KATE", font, { path: { kind: "stacked", joint: 3 } });
    const boxes = found.letters.map(({ islands }) => regionBox(islands[0]!.region)!);
    for (let i = 1; i < boxes.length; i++) {
      expect((boxes[i]!.minX + boxes[i]!.maxX) / 2).toBeCloseTo((boxes[0]!.minX + boxes[0]!.maxX) / 2, 3);
      expect(boxes[i]!.maxY).toBeGreaterThan(boxes[i - 1]!.minY);
      expect(boxes[i]!.maxY).toBeLessThan(boxes[i - 1]!.minY + 8);
    }
    const examination = examine(pieceOf("KATE", font, { path: { kind: "stacked", joint: 3 } }), library);
    expect(examination.pieces).toBe(1);
    const widths = examination.holds.filter(({ anchor }) => !anchor).map(({ width }) => width);
    expect(Math.min(...widths)).toBeGreaterThan(2.9);
  });

  it("fits a finished height exactly, however long the word becomes", () => {
    for (const text of ["KIT", "KATE", "ISOLDE"]) {
      const more = { path: { kind: "stacked", joint: 2 }, size: { by: "height", mm: 80 } };
      const { box } = layout(text, "archivo-black", more);
      expect(Math.abs(box!.maxY - box!.minY - 80)).toBeLessThan(0.02);
    }
  });
});

describe("symbols in the text", () => {
  it("stand in the row, of one piece each; a blank, a variation selector and other letters do not matter", () => {
    for (const symbol of Object.values(SYMBOLS)) {
      const { letters, missing } = layout(`A${symbol}B`, "archivo-black");
      expect(missing).toEqual([]);
      const [a, drawn, b] = letters.map(({ islands }) => regionBox(islands[0]!.region)!);
      expect(letters[1]!.islands, symbol).toHaveLength(1);
      expect(drawn!.minX).toBeGreaterThan(a!.maxX - 1);
      expect(b!.minX).toBeGreaterThan(drawn!.maxX - 1);
    }
    expect(layout("☀️", "anton").letters[0]!.symbol).toBe("sun");
  });

  it("the hole of a ring stays free, whatever is pushed into it", () => {
    const changes = { k1: { dx: 9 } };
    const examination = examine(pieceOf(`A${SYMBOLS.ring}B`, "archivo-black", { changes }), library);
    const ring = examination.solids.find(({ label }) => label.text === "ring")!.region;
    const hole = islandsOf(ring)[0]!
      .slice(1)
      .map((r) => r.slice());
    expect(hole).toHaveLength(1);
    const back = hole[0]!.slice();
    for (let i = 0; i < back.length; i += 2) {
      back[i] = hole[0]![back.length - 2 - i]!;
      back[i + 1] = hole[0]![back.length - 1 - i]!;
    }
    expect(regionArea(intersection(examination.material, [back]))).toBeLessThan(0.01);
  });
});
