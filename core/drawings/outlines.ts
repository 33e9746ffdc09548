/**
 * Outlines from elsewhere as parts of a piece: every shape of a drawing is one part.
 */
import { remark, type Solid } from "../examine";
import type { DrawnShape } from "../formats";
import { islandsOf, normalise, type Point, regionArea, transformRing } from "../geometry";
import type { Finding } from "../judge";

/** Smallest area in mm² that counts as material. */
const NO_AREA = 1e-4;

/**
 * @param shapes outlines with y downwards; they are mirrored so that y runs upwards
 * @param holders ids of the shapes that hold the others
 */
export function solidsFromShapes(
  shapes: readonly Pick<DrawnShape, "id" | "subpaths" | "fillRule">[],
  holders: readonly string[] = [],
): { solids: Solid[]; findings: Finding[] } {
  const solids: Solid[] = [];
  const findings: Finding[] = [];
  for (const { id, subpaths, fillRule } of shapes) {
    const rings = subpaths.map(({ ring }) => transformRing(ring, [1, 0, 0, -1, 0, 0]));
    const at: Point = { x: rings[0]?.[0] ?? 0, y: rings[0]?.[1] ?? 0 };
    const islands = islandsOf(normalise(rings, fillRule)).filter((island) => regionArea(island) > NO_AREA);
    if (islands.length === 0) {
      findings.push(remark("no-area", [id], at, "weak", { what: "shape" }));
      continue;
    }
    if (subpaths.some(({ closed }) => !closed)) findings.push(remark("open-outline", [id], at, "note", { closed: true }));
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
  return { solids, findings };
}
