/**
 * Lines for the machine: kerf, order, tabs, effort, and what is looked at before.
 */
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import {
  circleRing,
  clearTest,
  curveLength,
  difference,
  flatten,
  normalise,
  type Region,
  regionArea,
  regionBox,
  regionPerimeter,
  ringArea,
  ringContains,
  union,
} from "../geometry";
import { type Piece, parsePiece, STOCKS, stockByName } from "../piece";
import { sheetOf, shortGrain } from "../report";
import { freshSeed } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import { describeCheck } from "../wording";
import {
  allowance,
  cuttingOrder,
  effortOf,
  nestOutlines,
  PROFILES,
  planCut,
  preflight,
  profileById,
  profileSchema,
  speedsFor,
  startHoles,
  withTabs,
} from "./index";

const library = shippedLibrary();
const [byColour, byLayer] = PROFILES as [(typeof PROFILES)[number], (typeof PROFILES)[number]];
const pieceOf = (parts: object[], more: object = {}) => parsePiece({ name: "p", stock: STOCKS[0], parts, ...more });
const word = (text: string, more: object = {}) => ({
  kind: "word",
  id: "w",
  text,
  font: "archivo-black",
  size: { by: "cap-height", mm: 20 },
  ...more,
});
const sheetFor = (material: Region) => ({ material, engrave: [], score: [], box: regionBox(material) });
const planFor = (material: Region, piece: Pick<Piece, "stock" | "cut"> = pieceOf([]), more: object = {}) =>
  planCut(piece, sheetFor(material), { profile: byColour, ...more });

describe("kerf", () => {
  it("grows a convex outline by the Steiner formula, A + P·d + π·d², and holes shrink by as much", () => {
    const plate = [rectangle(0, 0, 60, 40)];
    const hole = [circleRing(20, 20, 8)];
    const piece = pieceOf([], { cut: "outside" });
    const d = piece.stock.kerf / 2;
    expect(allowance(piece, byColour)).toBeCloseTo(0.09, 9);
    const whole = planFor(plate, piece).cut;
    expect(regionArea(whole)).toBeCloseTo(regionArea(plate) + regionPerimeter(plate) * d + Math.PI * d * d, 2);
    const pierced = planFor(difference(plate, hole), piece).cut;
    const shrunk = pierced.find((ring) => ringArea(ring) < 0)!;
    expect(-ringArea(shrunk)).toBeCloseTo(Math.PI * (8 - d) ** 2, 0);
  });

  it("is left to the machine, or to the line, where that is what was chosen", () => {
    const plate = [rectangle(0, 0, 60, 40)];
    expect(allowance(pieceOf([], { cut: "outside" }), byLayer)).toBe(0);
    expect(allowance(pieceOf([]), byColour)).toBe(0);
    expect(regionArea(planFor(plate).cut)).toBeCloseTo(2400, 6);
  });
});

describe("order", () => {
  it("inside comes before outside, pieces in holes before what surrounds them, a piece at a time", () => {
    const ring = (x: number, r: number) => circleRing(x, 0, r);
    const rings = [ring(0, 30), ring(0, 25), ring(0, 10), ring(0, 5), ring(100, 20), ring(100, 5)];
    const outlines = nestOutlines(rings);
    expect(outlines.map(({ depth }) => depth)).toEqual([0, 1, 2, 3, 0, 1]);
    const order = cuttingOrder(
      outlines,
      rings.map((each) => ({ x: each[0]!, y: each[1]! })),
      { x: 0, y: 0 },
    );
    expect(order).toEqual([3, 2, 1, 0, 5, 4]);
  });

  it("never cuts an inside after the outside that frees it, whatever the nesting (property)", () => {
    const disc = fc.record({
      x: fc.double({ min: -60, max: 60, noNaN: true }),
      y: fc.double({ min: -60, max: 60, noNaN: true }),
      r: fc.double({ min: 1, max: 40, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(disc, { minLength: 1, maxLength: 14 }), (discs) => {
        const material = normalise(
          discs.map(({ x, y, r }) => circleRing(x, y, r)),
          "evenodd",
        );
        const { lines } = planFor(material);
        const rings = lines.map(({ path }) => flatten(path, 0.001));
        rings.forEach((inner, i) => {
          rings.forEach((outer, j) => {
            if (i === j || Math.abs(ringArea(outer)) <= Math.abs(ringArea(inner))) return;
            const every = [0, 0.37, 0.71].every((share) => {
              const k = 2 * Math.floor((inner.length / 2) * share);
              return ringContains(outer, inner[k]!, inner[k + 1]!);
            });
            if (every) expect(i).toBeLessThan(j);
          });
        });
      }),
      { numRuns: 150, seed: freshSeed("order of cutting") },
    );
  });

  it("is engraved, then scored, then cut", () => {
    const piece = pieceOf([{ kind: "backing", id: "b", distance: 4 }, word("KIT", { meets: "engrave" })]);
    const sheet = { ...sheetOf(piece, examine(piece, library)), score: [Float64Array.from([0, 0, 10, 0])] };
    const plan = planCut(piece, sheet, { profile: byLayer });
    const purposes = plan.lines.map(({ purpose }) => purpose);
    expect([...new Set(purposes)]).toEqual(["engrave", "score", "cut"]);
    expect(plan.fills).toEqual([]);
    expect(planCut(piece, sheet, { profile: byColour }).fills.length).toBeGreaterThan(0);
    expect(
      planCut(piece, sheet, { profile: byLayer, without: ["engrave", "score"] }).lines.every(({ purpose }) => purpose === "cut"),
    ).toBe(true);
  });
});

describe("tabs", () => {
  it("leave so much of every outline uncut, and no line is closed; tiny outlines get none", () => {
    const material = difference([rectangle(0, 0, 60, 40)], union([[circleRing(15, 20, 8)], [circleRing(45, 20, 0.5)]]));
    const plan = planFor(material, pieceOf([]), { tabs: { count: 3, width: 0.5 } });
    const whole = planFor(material);
    const length = (lines: typeof plan.lines) => lines.reduce((sum, { path }) => sum + curveLength(path), 0);
    expect(plan.lines).toHaveLength(3 + 3 + 1);
    expect(plan.lines.filter(({ path }) => path.closed)).toHaveLength(1);
    const { kerf } = pieceOf([]).stock;
    expect(length(whole.lines) - length(plan.lines)).toBeCloseTo(6 * (0.5 + kerf), 1);
  });

  it("hold by as much as they say after the cut, whose ends are round, and lie on straight places where there are any", () => {
    for (const kerf of [0, 0.15, 0.6]) {
      const rings = [rectangle(0, 0, 60, 40), circleRing(0, 0, 20), Float64Array.from([0, 0, 30, 2, 60, 0, 30, 8])];
      for (const [n, ring] of rings.entries()) {
        const isPlate = n === 0;
        const lines = withTabs(ring, { count: 4, width: 0.4 }, kerf);
        expect(lines).toHaveLength(4);
        lines.forEach((line, k) => {
          const next = lines[(k + 1) % 4]!;
          const [ax, ay] = [line[line.length - 2]!, line[line.length - 1]!];
          expect(Math.hypot(next[0]! - ax, next[1]! - ay) - kerf).toBeGreaterThan(0.4 - 1e-9);
          // No corner lies in a tab, nor right beside one.
          for (let i = 0; isPlate && i < ring.length; i += 2)
            expect(Math.hypot(ring[i]! - ax, ring[i + 1]! - ay)).toBeGreaterThan(0.45 * (0.4 + kerf));
        });
      }
    }
  });

  it("keep off thin strokes and narrow slits where the outline is broader nearby", () => {
    const plate = [rectangle(0, 0, 40, 20)];
    const tabs = { count: 5, width: 0.4 };
    let anywhere = 0;
    for (let x = 2; x < 37; x += 0.7) {
      for (const material of [union([plate, [rectangle(x, 15, 1, 10)]]), difference(plate, [rectangle(x, 15, 1, 10)])]) {
        const isNarrow = ([at, y]: Float64Array) => at! > x - 0.1 && at! < x + 1.1 && y! > 14.9;
        const lines = withTabs(material[0]!, tabs, 0.2, clearTest(material));
        expect(lines).toHaveLength(5);
        expect(lines.filter(isNarrow)).toEqual([]);
        anywhere += withTabs(material[0]!, tabs, 0.2).filter(isNarrow).length;
      }
    }
    expect(anywhere).toBeGreaterThan(10);
    // Where all of it is thin a tab lies there all the same.
    const thin = rectangle(0, 0, 1, 60);
    expect(withTabs(thin, { count: 2, width: 0.4 }, 0.2, clearTest([thin]))).toHaveLength(2);
  });

  it("are fewer on short outlines, and never more than have room", () => {
    const tabsOn = (radius: number) => withTabs(circleRing(0, 0, radius), { count: 6, width: 0.4 }, 0.1).length;
    expect([0.9, 1.2, 2.5, 20].map(tabsOn)).toEqual([0, 1, 2, 6]);
  });

  it("and the lines between them are the whole outline: any outline, any number of tabs", () => {
    const around = fc.array(fc.double({ min: 3, max: 30, noNaN: true }), { minLength: 3, maxLength: 30 });
    fc.assert(
      fc.property(around, fc.integer({ min: 1, max: 9 }), fc.double({ min: 0, max: 1, noNaN: true }), (radii, count, kerf) => {
        const ring = Float64Array.from(
          radii.flatMap((radius, i) => {
            const angle = (2 * Math.PI * i) / radii.length;
            return [radius * Math.cos(angle), radius * Math.sin(angle)];
          }),
        );
        const lines = withTabs(ring, { count, width: 0.4 }, kerf);
        const lengthOf = (line: Float64Array) =>
          Array.from({ length: line.length / 2 - 1 }, (_, i) =>
            Math.hypot(line[2 * i + 2]! - line[2 * i]!, line[2 * i + 3]! - line[2 * i + 1]!),
          ).reduce((sum, each) => sum + each, 0);
        const all = regionPerimeter([ring]);
        const cut = lines.reduce((sum, line) => sum + lengthOf(line), 0);
        const gap = 0.4 + kerf;
        expect(lines.length).toBe(Math.min(count, Math.floor(all / (12 * gap))));
        // A tab around a corner is longer, until its ends are far enough apart.
        expect(all - cut).toBeGreaterThanOrEqual(lines.length * gap - 1e-6);
        expect(all - cut).toBeLessThan(lines.length * gap * 2 + 1e-6);
        for (const line of lines) expect(lengthOf(line)).toBeGreaterThan(gap);
      }),
      { numRuns: 200, seed: freshSeed("holding tabs") },
    );
  });
});

describe("effort", () => {
  it("is length by speed, pierces, and the way between", () => {
    const { lines, fills } = planFor([rectangle(0, 0, 60, 40)]);
    const effort = effortOf(lines, fills, { cut: 10, score: 50, engrave: 300, pitch: 0.1, travel: 100, pierce: 0.5 });
    expect(effort.cut).toMatchObject({ count: 1 });
    expect(effort.cut.length).toBeCloseTo(200, 6);
    expect(effort.pierces).toBe(1);
    expect(effort.seconds).toBeCloseTo(20 + 0.5 + effort.travel / 100, 6);
  });

  it("thicker sheets are slower; the saw is the slowest", () => {
    const birch = stockByName("birch-3")!;
    expect(speedsFor({ ...birch, thickness: 6 }).cut).toBeCloseTo(speedsFor(birch).cut / 2, 9);
    expect(speedsFor(stockByName("walnut-6")!).cut).toBeLessThan(speedsFor(birch).cut / 4);
  });

  it("an engraved square takes its area over the pitch", () => {
    const piece = pieceOf([]);
    const sheet = { ...sheetFor([rectangle(0, 0, 60, 40)]), engrave: [rectangle(10, 10, 10, 10)] };
    const { lines, fills } = planCut(piece, sheet, { profile: byColour });
    const { engrave } = effortOf(lines, fills, speedsFor(piece.stock));
    expect(engrave.length).toBeCloseTo(100 / 0.1, 0);
  });
});

describe("before it is cut", () => {
  const checksOf = (piece: Piece, more: object = {}, profile = byColour) => {
    const examination = examine(piece, library);
    const sheet = sheetOf(piece, examination);
    return preflight(piece, examination, sheet, planCut(piece, sheet, { profile }), more);
  };

  it("what falls stops the way and says where; what was let be does not", () => {
    const loose = pieceOf([word("HI", { tracking: 8 })]);
    const [first] = checksOf(loose);
    expect(first).toMatchObject({ means: "stop", at: expect.anything() });
    const whole = pieceOf([word("HI"), { kind: "bar", id: "bar", overlap: 2 }]);
    expect(checksOf(whole).filter(({ means }) => means === "stop")).toEqual([]);
  });

  it("what is larger than the bed stops the way", () => {
    const wide = pieceOf([word("H", { size: { by: "width", mm: 700 } })]);
    expect(checksOf(wide).some(({ means, about }) => means === "stop" && about === "bed")).toBe(true);
    expect(checksOf(wide, {}, { ...byColour, bed: { width: 800, height: 900 } }).some(({ means }) => means === "stop")).toBe(
      false,
    );
  });

  it("voids without room for a start hole are told at the saw", () => {
    const plate = difference([rectangle(0, 0, 60, 40)], union([[circleRing(15, 20, 8)], [circleRing(45, 20, 0.6)]]));
    const { holes, tooSmall } = startHoles(plate, 1.6);
    expect(holes).toHaveLength(1);
    expect(Math.hypot(holes[0]!.x - 15, holes[0]!.y - 20)).toBeLessThan(0.1);
    expect(tooSmall).toHaveLength(1);
    expect(tooSmall[0]!.width).toBeCloseTo(1.2, 1);
    // Where another piece lies in the middle of a void, the hole is drilled beside it.
    const around = difference([rectangle(0, 0, 60, 40)], [rectangle(10, 5, 40, 30)]);
    const [hole] = startHoles([...around, rectangle(20, 10, 20, 20)], 1.6).holes;
    const [across, up] = [Math.abs(hole!.x - 30), Math.abs(hole!.y - 20)];
    expect(Math.max(across - 10, up - 10)).toBeGreaterThan(0.9);
    expect(Math.max(across - 20, up - 15)).toBeLessThan(-0.9);
    const saw = pieceOf([word("A"), { kind: "bar", id: "bar" }], { stock: stockByName("walnut-6") });
    expect(checksOf(saw, { drill: 19 }).some(({ about }) => about === "start hole")).toBe(true);
    expect(checksOf(saw, { drill: 1 }).some(({ about }) => about === "start hole")).toBe(false);
  });
});

describe("short grain", () => {
  // Common practice, no published source: 6 mm wood at the saw wants 3.0 mm along the grain and 4.5 mm across.
  const walnut = stockByName("walnut-6")!;
  const joint = (across: boolean, width: number) => ({
    joints: [{ parts: [0, 1], width, from: { x: 0, y: 0 }, to: across ? { x: width, y: 0 } : { x: 0, y: width }, takes: [] }],
    solids: ["a", "b"].map((id) => ({
      id,
      partId: id,
      label: { kind: "shape" as const, text: id, ordinal: "" },
      holder: false,
      region: [],
    })),
  });

  it("a joint whose fibres run across it wants half as much again; along the grain the least width is enough", () => {
    expect(shortGrain(joint(true, 4.4), walnut, 0)).toHaveLength(1);
    expect(shortGrain(joint(true, 4.5), walnut, 0)).toHaveLength(0);
    expect(shortGrain(joint(false, 3.2), walnut, 0)).toHaveLength(0);
  });

  it("turns with the grain; sheets without grain have none", () => {
    const [short] = shortGrain(joint(false, 3.2), walnut, 90);
    expect(short).toMatchObject({ width: 3.2, wanted: 4.5 });
    const check = { means: "weak", about: "grain", grain: short! } as const;
    const labels = new Map(joint(false, 3.2).solids.map(({ id, label }) => [id, label]));
    expect(describeCheck(check, labels, "mm")).toMatch(/Short grain at a–b.*3\.2 mm.*4\.5 mm/);
    expect(shortGrain(joint(true, 3.2), walnut, 90)).toHaveLength(0);
    expect(shortGrain(joint(true, 3.2), STOCKS[0]!, 0)).toHaveLength(0);
  });
});

describe("profiles", () => {
  it("those of the app are sound, and are found by their ids", () => {
    for (const profile of PROFILES) {
      expect(profileSchema.parse(profile)).toEqual(profile);
      expect(profileById(profile.id)).toBe(profile);
    }
    expect(byColour.hairline).toBeCloseTo((0.25 * 25.4) / 72, 9);
    expect(profileById("none")).toBeUndefined();
  });
});
