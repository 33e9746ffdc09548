/**
 * Frames against closed forms of the strength of materials (Roark's Formulas for Stress and Strain; S. Timoshenko, Strength of Materials;
 * both from memory).
 */
import { describe, expect, it } from "vitest";
import type { Box, Region } from "../geometry";
import { circleRing, difference, normalise, union } from "../geometry";
import { measureWidths } from "../measure";
import { rectangle } from "../tests/shapes";
import { BlockMatrix, DOF, factor } from "./blocks";
import { torsionOf } from "./element";
import { frameOf, type Push, StrengthError } from "./index";

const E = 3000;
const NU = 0.35;
const T = 3;
const G = E / (2 * (1 + NU));
const MATERIAL = { young: E, poisson: NU, thickness: T };
const box = (minX: number, minY: number, maxX: number, maxY: number): Box => ({ minX, minY, maxX, maxY });
const pushed = (region: Region, supports: Box[], ...pushes: Push[]) =>
  frameOf(measureWidths(region).medial(), MATERIAL, supports).push(pushes);
const inPlane = (w: number) => (T * w ** 3) / 12;
const outOf = (w: number) => (w * T ** 3) / 12;
/** Deflection by shear of a cantilever, mm. */
const sheared = (f: number, l: number, w: number) => (f * l) / ((5 / 6) * G * w * T);
const within = (value: number, expected: number, share: number) => expect(Math.abs(value / expected - 1)).toBeLessThan(share);

describe("closed forms", () => {
  it.each([
    [60, 4],
    [40, 2],
    [100, 12],
    [25, 6],
  ])("a cantilever %d mm long and %d mm wide bends as F·l³/3EI and its shear say, and breaks at its root", (length, w) => {
    const root = 2;
    const l = length - root;
    const [plane, out] = pushed(
      [rectangle(0, 0, length, w)],
      [box(-1, -1, root, w + 1)],
      { x: length, y: w / 2, force: [0, 1, 0] },
      { x: length, y: w / 2, force: [0, 0, 1] },
    );
    within(plane!.displacement[1], l ** 3 / (3 * E * inPlane(w)) + sheared(1, l, w), 0.02);
    within(out!.displacement[2], l ** 3 / (3 * E * outOf(w)) + sheared(1, l, w), 0.02);
    within(plane!.worst.stress, (6 * l) / (T * w ** 2), 0.02);
    within(out!.worst.stress, (6 * l) / (w * T ** 2), 0.02);
    for (const { worst } of [plane!, out!]) {
      expect(Math.abs(worst.x - root)).toBeLessThan(0.5);
      within(worst.width, w, 0.01);
    }
  });

  it.each([0.15, 0.25, 0.4, 0.6, 1, 2, 3.5])(
    "a neck %d mm wide between two plates breaks at its root as a cantilever does",
    (w) => {
      const [from, to] = [20, 22];
      const plates = normalise([
        rectangle(0, 0, from, 20),
        rectangle(from - 1, 10 - w / 2, to - from + 2, w),
        rectangle(to, 0, 20, 20),
      ]);
      for (const lost of [0, 0.1]) {
        const frame = frameOf(measureWidths(plates).medial(), MATERIAL, [box(-1, -1, 4, 21)], lost);
        const [plane, out] = frame.push([
          { x: 40, y: 10, force: [0, 1, 0] },
          { x: 40, y: 10, force: [0, 0, 1] },
        ]);
        within(plane!.worst.stress, (6 * (40 - from)) / (T * (w - lost) ** 2), 0.03);
        within(out!.worst.stress, (6 * (40 - from)) / ((w - lost) * T ** 2), 0.03);
        within(plane!.worst.width, w - lost, 0.01);
      }
    },
  );

  it("a bar that is pulled has the stress of its section, whichever way it lies", () => {
    for (const degrees of [0, 30, 77, 140]) {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      const turned = (ring: Float64Array) =>
        ring.map((_, i) => (i % 2 === 0 ? c * ring[i]! - s * ring[i + 1]! : s * ring[i - 1]! + c * ring[i]!));
      const [pulled] = pushed([turned(rectangle(-2, -2, 62, 4))], [box(-2.5, -2.5, 2.5, 2.5)], {
        x: 60 * c,
        y: 60 * s,
        force: [10 * c, 10 * s, 0],
      });
      within(pulled!.worst.stress, 10 / (4 * T), 0.05);
      expect(pulled!.displacement[0] * s - pulled!.displacement[1] * c).toBeCloseTo(0, 3);
    }
  });

  it("an arm at the end of a bar twists it: torsion constant of the rectangle", () => {
    const [w, l, a] = [4, 60, 20];
    const bar = union([[rectangle(0, 0, l, w)], [rectangle(l - w, 0, w, a + w / 2)]]);
    const [lifted] = pushed(bar, [box(-1, -1, 0.01, w + 1)], { x: l - w / 2, y: a + w / 2, force: [0, 0, 1] });
    const [reach, arm] = [l - w / 2, a];
    const twist = (arm * arm * reach) / (G * torsionOf(w, T).constant);
    const bent = (reach ** 3 + arm ** 3) / (3 * E * outOf(w));
    within(lifted!.displacement[2], twist + bent + sheared(1, reach + arm, w), 0.02);
  });

  it("torsion constants of rectangles are those of the handbook", () => {
    // β of J = β·a·b³ for a/b of 1, 2 and 10: 0.141, 0.229, 0.312 (Timoshenko, from memory).
    for (const [ratio, beta] of [
      [1, 0.141],
      [2, 0.229],
      [10, 0.312],
    ] as const) {
      expect(torsionOf(2 * ratio, 2).constant / (2 * ratio * 8)).toBeCloseTo(beta, 2);
      expect(torsionOf(2, 2 * ratio).constant).toBeCloseTo(torsionOf(2 * ratio, 2).constant, 9);
    }
  });

  it("a ring pressed between two places closes by 0.149·F·R³/EI", () => {
    const [outer, inner] = [31, 29];
    const ring = difference([circleRing(0, 0, outer)], [circleRing(0, 0, inner)]);
    const radius = (outer + inner) / 2;
    const [pressed] = pushed(ring, [box(-0.4, -outer - 1, 0.4, -inner + 1)], { x: 0, y: outer, force: [0, -1, 0] });
    within(-pressed!.displacement[1], (Math.PI / 4 - 2 / Math.PI) * (radius ** 3 / (E * inPlane(2))), 0.02);
  });

  it("a portal with both feet held sways as the slope-deflection equations say", () => {
    const [w, span, height] = [3, 60, 50];
    const portal = normalise([
      rectangle(-w / 2, 0, w, height + w / 2),
      rectangle(span - w / 2, 0, w, height + w / 2),
      rectangle(-w / 2, height - w / 2, span + w, w),
    ]);
    const [swayed] = pushed(portal, [box(-9, -1, span + 9, 0.001)], { x: 0, y: height, force: [1, 0, 0] });
    const k = height / span;
    const bent = (height ** 3 * (3 * k + 2)) / (12 * E * inPlane(w) * (6 * k + 1));
    within(swayed!.displacement[0], bent, 0.03);
  });

  it("a taper bends as the integral of its sections says", () => {
    const [length, root] = [60, 2];
    const taper = normalise([Float64Array.from([0, -4, length, -1, length, 1, 0, 4])]);
    const w = (s: number) => 8 - (6 * s) / length;
    let [plane, out] = [0, 0];
    const steps = 20_000;
    for (let i = 0; i < steps; i++) {
      const s = root + ((length - root) * (i + 0.5)) / steps;
      const ds = (length - root) / steps;
      const arm = length - s;
      plane += (arm * arm * ds) / (E * inPlane(w(s))) + ds / ((5 / 6) * G * w(s) * T);
      out += (arm * arm * ds) / (E * outOf(w(s))) + ds / ((5 / 6) * G * w(s) * T);
    }
    const [one, other] = pushed(
      taper,
      [box(-1, -9, root, 9)],
      { x: length, y: 0, force: [0, 1, 0] },
      { x: length, y: 0, force: [0, 0, 1] },
    );
    within(one!.displacement[1], plane, 0.03);
    within(other!.displacement[2], out, 0.03);
  });
});

describe("what must be so", () => {
  const strip = [rectangle(0, 0, 60, 4)];
  const root = [box(-1, -1, 2, 5)];

  it("forces add up, and what each does to the other's way is mutual (Maxwell and Betti)", () => {
    const bent = union([strip, [rectangle(56, 0, 4, 30)]]);
    const frame = frameOf(measureWidths(bent).medial(), MATERIAL, root);
    // Beside the middle of the stroke: the push turns it as well.
    const at = { x: 59.5, y: 28 };
    const [x, y, z, all] = frame
      .push(
        [
          [2, 0, 0],
          [0, 2, 0],
          [0, 0, 2],
          [2, 2, 2],
        ].map((force) => ({ ...at, force: force as [number, number, number] })),
      )
      .map(({ displacement }) => displacement);
    for (const k of [0, 1, 2]) expect(x![k]! + y![k]! + z![k]!).toBeCloseTo(all![k]!, 6);
    // A push to the right lifts it as far as a push upwards takes it to the right.
    expect(Math.abs(x![1])).toBeGreaterThan(0.1);
    expect(x![1] / y![0]).toBeCloseTo(1, 6);
    const [half] = frame.push([{ ...at, force: [1, 0, 0] }]);
    expect(half!.displacement[0]).toBeCloseTo(x![0] / 2, 9);
  });

  it("every place moves, and every beam is strained, as the push says", () => {
    const frame = frameOf(measureWidths(strip).medial(), MATERIAL, root);
    const bent = frame.bend({ x: 60, y: 2, force: [0, 1, 0] });
    // A cantilever of length l pushed at its end: at x from its root F·x²·(3l − x) / 6EI (Roark's Formulas, table of beams).
    const [l, inertia] = [58, (T * 4 ** 3) / 12];
    for (const x of [20, 35, 50]) {
      const along = x - 2;
      within(bent.moved(x, 2)[1], (along ** 2 * (3 * l - along)) / (6 * MATERIAL.young * inertia), 0.05);
    }
    expect(bent.moved(1, 2)).toEqual([0, 0, 0]);
    expect(bent.stresses).toHaveLength(frame.beams.length / 5);
    expect(Math.max(...bent.stresses)).toBe(bent.worst.stress);
    expect(bent.displacement).toEqual(frame.push([{ x: 60, y: 2, force: [0, 1, 0] }])[0]!.displacement);
  });

  it("kerf is taken from every width", () => {
    const graph = () => measureWidths(strip).medial();
    const thin = frameOf(graph(), MATERIAL, root, 1).push([{ x: 60, y: 2, force: [0, 1, 0] }])[0]!;
    within(thin.worst.width, 3, 0.01);
    within(thin.worst.stress, (6 * 58) / (T * 9), 0.02);
  });

  it("what hangs on nothing cannot be pushed; nothing held, or figures of nothing, are told", () => {
    const apart = normalise([...strip, rectangle(0, 20, 10, 10)]);
    const [there] = pushed(apart, root, { x: 60, y: 2, force: [0, 1, 0] });
    expect(there!.displacement[1]).toBeGreaterThan(0);
    expect(() => pushed(apart, root, { x: 5, y: 25, force: [0, 1, 0] })).toThrow("hangs on nothing");
    expect(() => pushed(strip, [box(100, 100, 101, 101)], { x: 1, y: 1, force: [1, 0, 0] })).toThrow(StrengthError);
    for (const wrong of [{ young: 0 }, { thickness: 0 }, { poisson: 0.5 }, { young: Number.NaN }]) {
      expect(() => frameOf(measureWidths(strip).medial(), { ...MATERIAL, ...wrong }, root)).toThrow(StrengthError);
    }
  });

  it("held at two places, of which each brings beams of its own", () => {
    // Both ends of a wide strip: its middle forks before either box.
    const wide = rectangle(0, 0, 60, 20);
    const frame = frameOf(measureWidths([wide]).medial(), MATERIAL, [box(-1, -1, 3, 21), box(57, -1, 61, 21)]);
    const { displacement } = frame.bend({ x: 30, y: 10, force: [0, 0, 1] });
    const one = frameOf(measureWidths([wide]).medial(), MATERIAL, [box(-1, -1, 3, 21)]).bend({ x: 30, y: 10, force: [0, 0, 1] });
    expect(displacement[2]).toBeGreaterThan(0);
    expect(displacement[2]).toBeLessThan(one.displacement[2] / 3);
  });

  it("of what reaches into a box only the holder is held; one too small for a middle holds all about it", () => {
    const bar = [rectangle(0, 0, 60, 10)];
    const beside = rectangle(0, 20, 60, 4);
    const both = normalise([...bar, beside, rectangle(50, 5, 4, 18)]);
    const all = frameOf(measureWidths(both).medial(), MATERIAL, [box(-1, -1, 20, 30)]);
    const held = frameOf(measureWidths(both).medial(), MATERIAL, [{ ...box(-1, -1, 20, 30), of: bar }]);
    const push = { x: 30, y: 22, force: [0, 1, 0] } as const;
    expect(held.bend(push).displacement[1]).toBeGreaterThan(3 * all.bend(push).displacement[1]);
    const speck = [rectangle(12, 0.2, 1, 1)];
    expect(
      frameOf(measureWidths(both).medial(), MATERIAL, [{ ...box(-1, -1, 20, 30), of: speck }]).bend(push).displacement[1],
    ).toBeCloseTo(all.bend(push).displacement[1], 9);
  });

  it("a system of blocks is solved as it was put together", () => {
    // A chain closed to a ring, with one node held: the solution put back gives the load.
    const matrix = new BlockMatrix(5);
    let seed = 7;
    const random = () => {
      seed = (seed * 48271) % 2147483647;
      return seed / 2147483647 - 0.5;
    };
    for (let node = 0; node < 5; node++) {
      const b = Float64Array.from({ length: 36 }, random);
      const k = new Float64Array(36);
      for (let i = 0; i < 6; i++)
        for (let j = 0; j < 6; j++) {
          for (let m = 0; m < 6; m++) k[i * 6 + j]! += b[m * 6 + i]! * b[m * 6 + j]!;
          if (i === j) k[i * 6 + j]! += 1;
        }
      matrix.addElement(node, (node + 1) % 5, k);
    }
    const load = Float64Array.from({ length: 5 * DOF }, random).fill(0, 0, DOF);
    const moved = factor(matrix, Uint8Array.from([1, 0, 0, 0, 0])).solve(load);
    for (let node = 1; node < 5; node++) {
      for (let i = 0; i < DOF; i++) {
        let sum = 0;
        const add = (block: Float64Array, other: number) => {
          for (let j = 0; j < DOF; j++) sum += block[i * DOF + j]! * moved[other * DOF + j]!;
        };
        add(matrix.diagonal[node]!, node);
        for (const [other, block] of matrix.beside[node]!) if (other !== 0) add(block, other);
        expect(sum).toBeCloseTo(load[node * DOF + i]!, 9);
      }
    }
  });
});
