/**
 * Outlines from elsewhere as parts of a piece: every shape of a drawing is one part.
 */
import type { Solid } from "./examine";
import type { SvgShape } from "./formats";
import { intersection, islandsOf, normalise, type Point, type Region, regionArea, regionBox, transformRing } from "./geometry";
import type { Finding } from "./judge";

/** Smallest area in mm² that counts as material. */
const NO_AREA = 1e-4;

/**
 * @param shapes outlines with y downwards; they are mirrored so that y runs upwards
 * @param holders ids of the shapes that hold the others
 */
export function solidsFromShapes(
  shapes: readonly SvgShape[],
  holders: readonly string[] = [],
): { solids: Solid[]; findings: Finding[] } {
  const solids: Solid[] = [];
  const findings: Finding[] = [];
  for (const { id, subpaths, fillRule } of shapes) {
    const rings = subpaths.map(({ ring }) => transformRing(ring, [1, 0, 0, -1, 0, 0]));
    const at: Point = { x: rings[0]?.[0] ?? 0, y: rings[0]?.[1] ?? 0 };
    const islands = islandsOf(normalise(rings, fillRule)).filter((island) => regionArea(island) > NO_AREA);
    if (islands.length === 0) {
      findings.push(
        note("no-area", [id], at, "weak", `${id} encloses no area, so there is nothing to cut out. Close it, or leave it out.`),
      );
      continue;
    }
    if (subpaths.some(({ closed }) => !closed)) {
      findings.push(
        note("open-outline", [id], at, "note", `${id} is an open line. It was closed with a straight edge for the check.`),
      );
    }
    islands.forEach((region, n) => {
      solids.push({
        id: n === 0 ? id : `${id}.${n}`,
        partId: id,
        label: { kind: n === 0 ? "shape" : "speck", text: id, ordinal: "" },
        holder: holders.includes(id) && n === 0,
        region,
      });
    });
  }
  findings.push(...findDuplicates(solids));
  return { solids, findings };
}

/** The same outline lying twice on itself: some machines cut twice and burn, others refuse. (Common practice, no published source.) */
export function findDuplicates(solids: readonly Solid[]): Finding[] {
  const seen = solids.map((solid) => ({ solid, area: regionArea(solid.region), box: regionBox(solid.region)! }));
  seen.sort((a, b) => a.area - b.area);
  const findings: Finding[] = [];
  seen.forEach((first, i) => {
    for (let k = i + 1; k < seen.length && seen[k]!.area - first.area < 0.01; k++) {
      const second = seen[k]!;
      const sameBox = (["minX", "minY", "maxX", "maxY"] as const).every(
        (side) => Math.abs(first.box[side] - second.box[side]) < 0.02,
      );
      if (!sameBox || !sameShape(first.solid.region, second.solid.region, first.area)) continue;
      const message = `${first.solid.id} and ${second.solid.id} are the same outline, one on the other. Remove one.`;
      const at = { x: first.box.minX, y: first.box.maxY };
      findings.push(note("duplicate", [first.solid.id, second.solid.id], at, "weak", message));
    }
  });
  return findings;
}

function sameShape(a: Region, b: Region, area: number): boolean {
  return area - regionArea(intersection(a, b)) < Math.max(0.001, area * 0.001);
}

function note(kind: Finding["kind"], parts: string[], at: Point, means: Finding["means"], message: string): Finding {
  return { kind, parts, meeting: parts.length, at, width: 0, means, message };
}
