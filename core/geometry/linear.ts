/**
 * Linear programs of a few variables.
 */

/** A place may be outside a half-space by so much, and more where its numbers are large. */
const ROUNDED = 1e-12;
/** Shorter normals are what rounding leaves of edges that run alike. */
const ALIKE = 1e-10;

/**
 * The place of a box that lies in all half-spaces and has the largest `objective · x` (R. Seidel, "Small-dimensional linear programming and
 * convex hulls made easy", 1991): half-space by half-space, and where the best place so far is outside the next one, the new best lies on
 * its edge, which has a dimension less. Takes time in proportion to the number of half-spaces where they come in no particular order.
 *
 * @param spaces one after the other: of each its normal, a number for each variable, and the most that `normal · x` may be
 * @param box least and most of each variable
 * @returns `null` where no place is in all of them
 *
 * @example linearOptimum([1, 1], Float64Array.of(1, 2, 4), [[0, 3], [0, 3]]) // [3, 0.5]
 */
export function linearOptimum(
  objective: readonly number[],
  spaces: Float64Array,
  box: readonly (readonly [number, number])[],
): number[] | null {
  const size = objective.length;
  if (size === 1) return optimumOnLine(objective[0]!, spaces, box[0]!);
  const best = box.map(([least, most], k) => (objective[k]! < 0 ? least : most));
  const row = size + 1;
  for (let at = 0; at < spaces.length; at += row) {
    const most = spaces[at + size]!;
    let value = 0;
    for (let j = 0; j < size; j++) value += spaces[at + j]! * best[j]!;
    if (value <= most + ROUNDED * Math.max(1, Math.abs(most))) continue;
    const k = largest(spaces, at, size);
    if (Math.abs(spaces[at + k]!) < ALIKE) {
      if (most < -ALIKE) return null;
      continue;
    }
    const onEdge = linearOptimum(
      objective.flatMap((value, j) => (j === k ? [] : value - (objective[k]! * spaces[at + j]!) / spaces[at + k]!)),
      onEdgeOf(spaces, { at, k, size }, box[k]!),
      without(box, k),
    );
    if (!onEdge) return null;
    // The variable that went follows from the others.
    let rest = 0;
    for (let j = 0, n = 0; j < size; j++) {
      if (j === k) continue;
      best[j] = onEdge[n++]!;
      rest += spaces[at + j]! * best[j]!;
    }
    best[k] = (most - rest) / spaces[at + k]!;
  }
  return best;
}

function optimumOnLine(objective: number, spaces: Float64Array, [least, most]: readonly [number, number]): number[] | null {
  let [low, high] = [least, most];
  for (let at = 0; at < spaces.length; at += 2) {
    const [factor, bound] = [spaces[at]!, spaces[at + 1]!];
    if (factor > ALIKE) high = Math.min(high, bound / factor);
    else if (factor < -ALIKE) low = Math.max(low, bound / factor);
    else if (bound < -ALIKE) return null;
  }
  if (low > high + ALIKE) return null;
  return [objective < 0 ? low : Math.max(low, high)];
}

/** Half-space `at` of so many variables; on its edge variable `k` follows from the others. */
interface Edge {
  at: number;
  k: number;
  size: number;
}

/** The half-spaces before one, on its edge; before them the bounds of the variable that goes, which stay. */
function onEdgeOf(spaces: Float64Array, { at, k, size }: Edge, [least, most]: readonly [number, number]): Float64Array {
  const row = size + 1;
  const onEdge = new Float64Array((at / row + 2) * size);
  const pivot = spaces[at + k]!;
  const bound = spaces[at + size]!;
  let n = 0;
  for (let j = 0; j < size; j++) if (j !== k) onEdge[n++] = -spaces[at + j]! / pivot;
  onEdge[n++] = most - bound / pivot;
  for (let j = 0; j < size; j++) if (j !== k) onEdge[n++] = spaces[at + j]! / pivot;
  onEdge[n++] = bound / pivot - least;
  for (let from = 0; from < at; from += row) {
    const factor = spaces[from + k]!;
    for (let j = 0; j < size; j++) if (j !== k) onEdge[n++] = spaces[from + j]! - (factor * spaces[at + j]!) / pivot;
    onEdge[n++] = spaces[from + size]! - (factor * bound) / pivot;
  }
  return onEdge;
}

/**
 * The same half-spaces in no particular order, the same every time: every so many, by a number that shares no factor with theirs.
 *
 * @param size how many variables they have
 */
export function scatterSpaces(spaces: Float64Array, size: number): Float64Array {
  const row = size + 1;
  const count = spaces.length / row;
  let stride = Math.max(1, Math.round(count * 0.618));
  while (commonFactor(stride, count) > 1) stride++;
  const scattered = new Float64Array(spaces.length);
  for (let k = 0; k < count; k++) {
    const from = row * ((k * stride) % count);
    for (let j = 0; j < row; j++) scattered[row * k + j] = spaces[from + j]!;
  }
  return scattered;
}

const commonFactor = (a: number, b: number): number => (b === 0 ? a : commonFactor(b, a % b));
const without = <T>(list: readonly T[], k: number): T[] => list.filter((_, j) => j !== k);

/** Which number of a normal is the largest. */
function largest(spaces: Float64Array, at: number, size: number): number {
  let best = 0;
  for (let j = 1; j < size; j++) if (Math.abs(spaces[at + j]!) > Math.abs(spaces[at + best]!)) best = j;
  return best;
}
