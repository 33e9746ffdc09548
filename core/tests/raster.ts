/**
 * An independent way to measure: pixels instead of triangles.
 *
 * The squared Euclidean distance transform is P. F. Felzenszwalb and D. P. Huttenlocher's ("Distance transforms of sampled
 * functions", Theory of Computing 8, 2012); the widest path between two pixels is found by flooding from the widest down.
 */
import { type Region, regionBox } from "../geometry";

interface Place {
  x: number;
  y: number;
}

export interface Raster {
  region: Region;
  width: number;
  height: number;
  pixel: number;
  x0: number;
  y0: number;
  /** Distance in mm from each pixel's middle to the nearest pixel outside. */
  distance: Float64Array;
}

export function rasterise(region: Region, pixel: number): Raster {
  const box = regionBox(region)!;
  const x0 = box.minX - 2 * pixel;
  const y0 = box.minY - 2 * pixel;
  const width = Math.ceil((box.maxX - x0) / pixel) + 2;
  const height = Math.ceil((box.maxY - y0) / pixel) + 2;
  const inside = new Uint8Array(width * height);
  for (let j = 0; j < height; j++)
    scanline(region, y0 + (j + 0.5) * pixel, x0, pixel, width, inside.subarray(j * width, (j + 1) * width));
  return { region, width, height, pixel, x0, y0, distance: distanceTransform(inside, width, height, pixel) };
}

function scanline(region: Region, y: number, x0: number, pixel: number, width: number, row: Uint8Array): void {
  const crossings: number[] = [];
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ya, yb] = [ring[j + 1]!, ring[i + 1]!];
      if (ya > y === yb > y) continue;
      crossings.push(ring[j]! + ((ring[i]! - ring[j]!) * (y - ya)) / (yb - ya));
    }
  }
  crossings.sort((a, b) => a - b);
  for (let k = 0; k + 1 < crossings.length; k += 2) {
    const from = Math.max(0, Math.ceil((crossings[k]! - x0) / pixel - 0.5));
    const to = Math.min(width - 1, Math.floor((crossings[k + 1]! - x0) / pixel - 0.5));
    for (let i = from; i <= to; i++) row[i] = 1;
  }
}

function distanceTransform(inside: Uint8Array, width: number, height: number, pixel: number): Float64Array {
  const far = 1e12;
  const grid = Float64Array.from(inside, (value) => (value ? far : 0));
  const longest = Math.max(width, height);
  const f = new Float64Array(longest);
  const d = new Float64Array(longest);
  const v = new Int32Array(longest);
  const z = new Float64Array(longest + 1);
  const line = (n: number) => {
    let k = 0;
    v[0] = 0;
    z[0] = -Infinity;
    z[1] = Infinity;
    for (let q = 1; q < n; q++) {
      let s = (f[q]! + q * q - (f[v[k]!]! + v[k]! * v[k]!)) / (2 * q - 2 * v[k]!);
      while (s <= z[k]!) {
        k--;
        s = (f[q]! + q * q - (f[v[k]!]! + v[k]! * v[k]!)) / (2 * q - 2 * v[k]!);
      }
      v[++k] = q;
      z[k] = s;
      z[k + 1] = Infinity;
    }
    k = 0;
    for (let q = 0; q < n; q++) {
      while (z[k + 1]! < q) k++;
      d[q] = (q - v[k]!) ** 2 + f[v[k]!]!;
    }
  };
  for (let i = 0; i < width; i++) {
    for (let j = 0; j < height; j++) f[j] = grid[j * width + i]!;
    line(height);
    for (let j = 0; j < height; j++) grid[j * width + i] = d[j]!;
  }
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) f[i] = grid[j * width + i]!;
    line(width);
    for (let i = 0; i < width; i++) grid[j * width + i] = d[i]!;
  }
  return grid.map((squared) => Math.sqrt(squared) * pixel);
}

/**
 * Diameters in mm of the widest discs that can travel from each of some places to a goal, 0 where no path leads there. All of them are
 * found in one flood.
 */
export function widestPaths(raster: Raster, from: readonly Place[], goal: Place): number[] {
  const { region, width, height, pixel, x0, y0, distance } = raster;
  /** The pixel of a place; of it and its neighbours the deepest, so that rounding the place costs nothing. */
  const at = ({ x, y }: Place) => {
    const home = Math.floor((y - y0) / pixel) * width + Math.floor((x - x0) / pixel);
    const around = [0, 1, -1, width, -width, width + 1, width - 1, 1 - width, -1 - width].map((step) => home + step);
    return around.reduce((best, i) => (distance[i]! > distance[best]! ? i : best), home);
  };
  const depths = from.map((place) => depthAt(region, place));
  const [end, depthOfGoal] = [at(goal), depthAt(region, goal)];
  const parent = Int32Array.from(distance, (_, i) => i);
  const find = (i: number) => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const found: number[] = from.map(() => 0);
  let waiting = from.map((place, k) => ({ k, start: at(place) }));
  const open = new Uint8Array(width * height);
  for (const i of deepestFirst(distance)) {
    open[i] = 1;
    for (const n of [i - 1, i + 1, i - width, i + width, i - width - 1, i - width + 1, i + width - 1, i + width + 1]) {
      if (open[n] === 1) parent[find(n)] = find(i);
    }
    if (!open[end]) continue;
    const home = find(end);
    waiting = waiting.filter(({ k, start }) => {
      if (!open[start] || find(start) !== home) return true;
      // The nearest outside pixel lies up to 0.7 pixels beyond the boundary, the way up to 0.7 pixels off the middle line: twice
      // the distance is right within 1.4 pixels either way.
      found[k] = 2 * Math.min(distance[i]!, depths[k]!, depthOfGoal);
      return false;
    });
    if (waiting.length === 0) break;
  }
  return found;
}

const deepestFirst = (distance: Float64Array) =>
  Uint32Array.from(distance.keys())
    .filter((i) => distance[i]! > 0)
    .sort((a, b) => distance[b]! - distance[a]!);

/** Distance from a place to the nearest edge, by looking at all of them. */
function depthAt(region: Region, { x, y }: Place): number {
  let best = Infinity;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const ux = ring[i]! - ring[j]!;
      const uy = ring[i + 1]! - ring[j + 1]!;
      const t = Math.min(1, Math.max(0, ((x - ring[j]!) * ux + (y - ring[j + 1]!) * uy) / (ux * ux + uy * uy)));
      best = Math.min(best, Math.hypot(x - ring[j]! - t * ux, y - ring[j + 1]! - t * uy));
    }
  }
  return best;
}
