/**
 * Where the saw's blade is threaded through: a start hole in every void.
 */
import { backwards, type Point, type Region } from "../geometry";
import { poleOf } from "../measure";
import { nestOutlines } from "./order";

export interface StartHoles {
  /** Middles of the holes to be drilled, one in each void. */
  holes: Point[];
  /** Voids in which the drill finds no room, with the widest place that they have, mm. */
  tooSmall: { at: Point; width: number }[];
}

/** The drill keeps off the line by so much, mm. */
const CLEAR = 0.1;

/** @param drill diameter, mm */
export function startHoles(region: Region, drill: number): StartHoles {
  const found: StartHoles = { holes: [], tooSmall: [] };
  const outlines = nestOutlines(region);
  outlines.forEach(({ ring, depth }, i) => {
    if (depth % 2 === 0) return;
    // Other pieces may lie in the void: the drill keeps off them too.
    const within = outlines.filter(({ parent }) => parent === i);
    const pole = poleOf([ring, ...within.map((inner) => inner.ring)].map(backwards));
    const at = pole ? { x: pole.x, y: pole.y } : { x: ring[0]!, y: ring[1]! };
    const width = pole?.width ?? 0;
    if (width >= drill + 2 * CLEAR) found.holes.push(at);
    else found.tooSmall.push({ at, width });
  });
  return found;
}
