/**
 * Loops: ears for a ring or a wire, on the outline of what is there.
 */
import { circleRing, joinBoxes, type Point, type Region, regionBox } from "../geometry";
import type { Loop } from "../piece";

export interface PlacedLoop {
  /** The whole disc; its hole is taken out of everything. */
  disc: Region;
  hole: Region;
  middle: Point;
}

/** A loop where there is nothing to sit on. */
const ALONE: Point = { x: 0, y: 0 };

/**
 * The loop comes in from outside, from the direction of its angle towards the middle of the piece, until it reaches as far into the
 * material as it is to bite. Directions are those of the box around the piece: 45° is its corner.
 *
 * @param before material of the parts before this one
 */
export function placeLoop({ outer, hole, angle, bite }: Loop, before: readonly Region[]): PlacedLoop {
  const box = joinBoxes(before.map((region) => regionBox(region)));
  const r = outer / 2;
  let middle = ALONE;
  if (box) {
    const centre = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
    const [halfX, halfY] = [Math.max(1, (box.maxX - box.minX) / 2), Math.max(1, (box.maxY - box.minY) / 2)];
    const radians = (angle * Math.PI) / 180;
    // Scaled so that the longer of both is 1: the direction then ends on the box.
    const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
    const longest = Math.max(Math.abs(cos), Math.abs(sin));
    const target = { x: (cos / longest) * halfX, y: (sin / longest) * halfY };
    const length = Math.hypot(target.x, target.y);
    const direction = Math.abs(sin) >= Math.abs(cos) ? { x: 0, y: Math.sign(sin) } : { x: Math.sign(cos), y: 0 };
    // Straight in from the side that it is on, so that it stays beside the place the hand points at.
    const along = direction.x === 0 ? { x: centre.x + target.x, y: centre.y } : { x: centre.x, y: centre.y + target.y };
    const away = awayFrom(before, along, direction, r) ?? (direction.x === 0 ? halfY : Math.max(halfX, length));
    middle = { x: along.x + direction.x * (away - bite), y: along.y + direction.y * (away - bite) };
  }
  return {
    disc: [circleRing(middle.x, middle.y, r)],
    hole: [circleRing(middle.x, middle.y, Math.min(hole, outer - 0.1) / 2)],
    middle,
  };
}

/**
 * How far from a place, going outwards, a disc of radius r just touches the material: measured on all of its outline that the disc
 * could meet. `null` where there is none.
 */
function awayFrom(regions: readonly Region[], from: Point, direction: Point, r: number): number | null {
  let farthest: number | null = null;
  const offer = (x: number, y: number) => {
    const [dx, dy] = [x - from.x, y - from.y];
    const side = Math.abs(dx * direction.y - dy * direction.x);
    if (side > r) return;
    const away = dx * direction.x + dy * direction.y + Math.sqrt(r * r - side * side);
    if (farthest === null || away > farthest) farthest = away;
  };
  for (const region of regions) {
    for (const ring of region) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
        // Long edges are looked at in steps: a straight side may have no corner where the disc meets it.
        const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / 0.25));
        for (let k = 0; k < steps; k++) offer(ax + ((bx - ax) * k) / steps, ay + ((by - ay) * k) / steps);
      }
    }
  }
  return farthest;
}
