/**
 * Linear programs of a few variables.
 */

/** A half-space: what is in it has `normal · x ≤ most`. */
export interface HalfSpace {
  normal: readonly number[];
  most: number;
}

/** A place may be outside a half-space by so much, and more where its numbers are large. */
const ROUNDED = 1e-12;
/** Shorter normals are what rounding leaves of edges that run alike. */
const ALIKE = 1e-10;

/**
 * The place of a box that lies in all half-spaces and has the largest `objective · x` (R. Seidel, "Small-dimensional linear programming and
 * convex hulls made easy", 1991): half-space by half-space, and where the best place so far is outside the next one, the new best lies on
 * its edge, which has a dimension less. Takes time in proportion to the number of half-spaces where they come in no particular order.
 *
 * @param box least and most of each variable
 * @returns `null` where no place is in all of them
 *
 * @example linearOptimum([1, 1], [{ normal: [1, 2], most: 4 }], [[0, 3], [0, 3]]) // [3, 0.5]
 */
export function linearOptimum(
  objective: readonly number[],
  spaces: readonly HalfSpace[],
  box: readonly (readonly [number, number])[],
): number[] | null {
  if (box.length === 1) return optimumOnLine(objective[0]!, spaces, box[0]!);
  let best = box.map(([least, most], k) => (objective[k]! < 0 ? least : most));
  for (let i = 0; i < spaces.length; i++) {
    const { normal, most } = spaces[i]!;
    if (dot(normal, best) <= most + ROUNDED * Math.max(1, Math.abs(most))) continue;
    const k = largest(normal);
    if (Math.abs(normal[k]!) < ALIKE) {
      if (most < -ALIKE) return null;
      continue;
    }
    const edge = edgeOf(normal, most, k);
    const before = spaces.slice(0, i).map(edge.narrow);
    // The variable that goes has bounds, which stay.
    const bounds = [
      edge.narrow({ normal: unitOf(k, box.length, 1), most: box[k]![1] }),
      edge.narrow({ normal: unitOf(k, box.length, -1), most: -box[k]![0] }),
    ];
    const onEdge = linearOptimum(edge.narrowed(objective), [...bounds, ...before], without(box, k));
    if (!onEdge) return null;
    best = edge.widen(onEdge);
  }
  return best;
}

function optimumOnLine(
  objective: number,
  spaces: readonly HalfSpace[],
  [least, most]: readonly [number, number],
): number[] | null {
  let [low, high] = [least, most];
  for (const { normal, most: bound } of spaces) {
    const factor = normal[0]!;
    if (factor > ALIKE) high = Math.min(high, bound / factor);
    else if (factor < -ALIKE) low = Math.max(low, bound / factor);
    else if (bound < -ALIKE) return null;
  }
  if (low > high + ALIKE) return null;
  return [objective < 0 ? low : Math.max(low, high)];
}

/** On the edge of a half-space one variable follows from the others. */
function edgeOf(normal: readonly number[], most: number, k: number) {
  const pivot = normal[k]!;
  const narrowed = (row: readonly number[]) =>
    without(
      row.map((value, j) => value - (row[k]! * normal[j]!) / pivot),
      k,
    );
  return {
    narrowed,
    narrow: (space: HalfSpace): HalfSpace => ({
      normal: narrowed(space.normal),
      most: space.most - (space.normal[k]! * most) / pivot,
    }),
    widen: (place: readonly number[]): number[] => {
      const whole = [...place.slice(0, k), 0, ...place.slice(k)];
      whole[k] = (most - dot(normal, whole)) / pivot;
      return whole;
    },
  };
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, k) => sum + value * b[k]!, 0);
const without = <T>(list: readonly T[], k: number): T[] => [...list.slice(0, k), ...list.slice(k + 1)];
const unitOf = (k: number, size: number, value: number) => Array.from({ length: size }, (_, j) => (j === k ? value : 0));
const largest = (row: readonly number[]) =>
  row.reduce((best, value, k) => (Math.abs(value) > Math.abs(row[best]!) ? k : best), 0);
