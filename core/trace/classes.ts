/**
 * Two classes of pixels, told apart by one figure each.
 */

/** Bins of the histogram. */
const BINS = 512;

export interface Classes {
  /** Figure that parts them best. */
  parting: number;
  /** What pixels wholly in one of them have: the quarter of each that is farthest from the other begins there. */
  low: number;
  high: number;
  /** Variance between the classes as a part of all variance: 1 where there is none within them. */
  parted: number;
}

/**
 * Otsu's method: the figure at which the variance between both classes is greatest (N. Otsu, "A threshold selection method from gray-level
 * histograms", 1979; from memory).
 *
 * @returns `null` where all figures are the same
 */
export function partClasses(values: Float32Array): Classes | null {
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) {
    if (value < least) least = value;
    if (value > most) most = value;
  }
  if (!(most > least)) return null;
  const scale = BINS / (most - least);
  const histogram = new Float64Array(BINS);
  for (const value of values) histogram[Math.min(BINS - 1, ((value - least) * scale) | 0)]!++;
  const total = values.length;
  let [sum, squares] = [0, 0];
  for (let bin = 0; bin < BINS; bin++) {
    sum += bin * histogram[bin]!;
    squares += bin * bin * histogram[bin]!;
  }
  let [below, sumBelow, best, first, last] = [0, 0, -1, 0, 0];
  for (let bin = 0; bin < BINS - 1; bin++) {
    below += histogram[bin]!;
    sumBelow += bin * histogram[bin]!;
    const above = total - below;
    if (below === 0 || above === 0) continue;
    const between = below * above * (sumBelow / below - (sum - sumBelow) / above) ** 2;
    // Where a stretch of empty bins parts both alike, its middle does.
    if (between > best * (1 + 1e-9)) [best, first, last] = [between, bin, bin];
    else if (between >= best * (1 - 1e-9)) last = bin;
  }
  const cut = Math.floor((first + last) / 2) + 1;
  const figureOf = (bin: number) => least + (bin + 0.5) / scale;
  const low = binAt(histogram, 0, cut, 0.25);
  const high = binAt(histogram, cut, BINS, 0.75);
  const variance = squares / total - (sum / total) ** 2;
  const parted = variance > 0 ? best / total / total / variance : 1;
  return { parting: least + cut / scale, low: figureOf(low), high: figureOf(high), parted };
}

/** The bin below which a share of what is in some of them lies. */
function binAt(histogram: Float64Array, from: number, to: number, share: number): number {
  let total = 0;
  for (let bin = from; bin < to; bin++) total += histogram[bin]!;
  let seen = 0;
  for (let bin = from; bin < to; bin++) {
    seen += histogram[bin]!;
    if (seen >= share * total) return bin;
  }
  return from;
}

export function medianOf(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  return sorted.length === 0 ? 0 : sorted[sorted.length >> 1]!;
}
