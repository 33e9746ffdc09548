/**
 * Frames against solids: quadratic wedges by CalculiX on meshes by gmsh (both Debian's; results of `npm run solids`, kept beside the
 * cases in `core/tests/solids`). What is compared: how far the pushed place moves, and the stress in sections.
 */
import { describe, expect, it } from "vitest";
import type { Point } from "../geometry";
import { measureWidths } from "../measure";
import { type Section, solidCases } from "../tests/solids/cases";
import results from "../tests/solids/results.json" with { type: "json" };
import { type Bent, type Frame, frameOf } from "./frame";

/** Of the most strained section; sections that bear less than this share of it tell nothing. */
const TELLING = 0.3;
/** MPa for one newton: sections that bear less are moved by how the force is spread over the solid's nodes. */
const STRAINED = 0.3;
/** mm that one newton moves it: less is as stiff as a block. */
const STIFF = 0.015;
/** A push out of the plane bends and twists: only pushes within it are compared in sections. */
const IN_PLANE = 2;

const cases = solidCases();
/** Names of what was compared, one for each figure: what hardly moves or bears is not. */
const moved: string[] = [];
const strained: string[] = [];

describe.each(results.map((result) => [result.name, result] as const))("%s", (name, result) => {
  const solid = cases.find((each) => each.name === name)!;
  const frame = frameOf(measureWidths(solid.region).medial(), solid.material, solid.supports);
  const bent = solid.pushes.map((push) => frame.bend(push));

  it("moves as far as the solid does: no less than 0.85 times, and of shapes no more than 1.2 times", () => {
    for (const [k, push] of solid.pushes.entries()) {
      const axis = push.force.findIndex((force) => force !== 0);
      const [mine, truth] = [bent[k]!.displacement[axis]!, result.pushes[k]!.displacement[axis]!];
      // What hardly moves is moved by how the force is spread over the solid's nodes.
      if (Math.abs(truth) < STIFF) continue;
      moved.push(name);
      const said = `push ${push.force}: ${mine} by the frame, ${truth} by the solid`;
      expect(mine / truth, said).toBeGreaterThan(0.85);
      // Of lettering, farther is the safe side.
      expect(mine / truth, said).toBeLessThan(solid.piece ? 1.35 : 1.23);
    }
  });

  it("is no less strained in its sections than the solid, within 15 %", () => {
    const most = Math.max(
      0,
      ...result.pushes.slice(0, IN_PLANE).flatMap(({ sections }) => sections.map((stress) => stress ?? 0)),
    );
    for (const k of solid.pushes.keys()) {
      if (k >= IN_PLANE) continue;
      const truths = result.pushes[k]!.sections;
      for (const [s, section] of solid.sections.entries()) {
        const truth = truths[s];
        if (truth == null || truth < Math.max(STRAINED, TELLING * most)) continue;
        strained.push(name);
        const mine = stressAcross(frame, bent[k]!, section);
        expect(mine / truth, `section ${s}, push ${solid.pushes[k]!.force}: ${mine} and ${truth} MPa`).toBeGreaterThan(0.85);
      }
    }
  });
});

/** Of the beam that goes through the section. */
function stressAcross({ beams }: Frame, { stresses }: Bent, { from, to }: Section): number {
  const middle: Point = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const width = Math.hypot(to.x - from.x, to.y - from.y);
  const [nx, ny] = [-(to.y - from.y) / width, (to.x - from.x) / width];
  let [found, best] = [0, Infinity];
  for (let n = 0; n < stresses.length; n++) {
    const [ax, ay, bx, by] = beams.subarray(5 * n, 5 * n + 4) as unknown as [number, number, number, number];
    const length = Math.hypot(bx - ax, by - ay);
    if (Math.abs((bx - ax) * nx + (by - ay) * ny) < 0.7 * length) continue;
    const away = Math.hypot((ax + bx) / 2 - middle.x, (ay + by) / 2 - middle.y);
    if (away < best) [found, best] = [stresses[n]!, away];
  }
  return found;
}

it("has at least twelve shapes and six pieces of the demo, most of which say something", () => {
  const names = new Set(results.map(({ name }) => name));
  expect(cases.filter(({ piece, name }) => !piece && names.has(name)).length).toBeGreaterThanOrEqual(12);
  expect(cases.filter(({ piece, name }) => piece && names.has(name)).length).toBeGreaterThanOrEqual(6);
  const pieces = (compared: string[]) =>
    new Set(compared.filter((name) => cases.some((each) => each.piece && each.name === name))).size;
  expect(moved.length).toBeGreaterThanOrEqual(40);
  expect(pieces(moved)).toBeGreaterThanOrEqual(6);
  expect(strained.length).toBeGreaterThanOrEqual(30);
  expect(pieces(strained)).toBeGreaterThanOrEqual(3);
});
