/**
 * Holding tabs: short places that are left uncut, so that nothing drops into the machine.
 */
import type { Ring } from "../geometry";

export interface Tabs {
  /** Tabs on each outline. */
  count: number;
  /** Length of each, mm. */
  width: number;
}

/** An outline shorter than so many tabs would be more tab than cut: it gets none. */
const SHORTEST = 12;

/** @returns open lines between the tabs, evenly spread; none where the ring is too short for tabs */
export function withTabs(ring: Ring, { count, width }: Tabs): Float64Array[] {
  const n = ring.length / 2;
  const along = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    along[i + 1] = along[i]! + Math.hypot(ring[2 * j]! - ring[2 * i]!, ring[2 * j + 1]! - ring[2 * i + 1]!);
  }
  const around = along[n]!;
  if (count < 1 || around < SHORTEST * width * count) return [];
  return Array.from({ length: count }, (_, k) =>
    partOf(ring, along, (around * k) / count + width / 2, (around * (k + 1)) / count - width / 2),
  );
}

/** The ring from one place on it to a later one, mm from its start. */
function partOf(ring: Ring, along: Float64Array, from: number, to: number): Float64Array {
  const points: number[] = [...placeAt(ring, along, from)];
  const n = ring.length / 2;
  for (let i = 0; i < n; i++) if (along[i]! > from + 1e-6 && along[i]! < to - 1e-6) points.push(ring[2 * i]!, ring[2 * i + 1]!);
  points.push(...placeAt(ring, along, to));
  return Float64Array.from(points);
}

function placeAt(ring: Ring, along: Float64Array, s: number): [number, number] {
  const n = ring.length / 2;
  let [low, high] = [0, n];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (along[middle]! <= s) low = middle;
    else high = middle;
  }
  const next = (low + 1) % n;
  const share = (s - along[low]!) / (along[low + 1]! - along[low]! || 1);
  const [ax, ay] = [ring[2 * low]!, ring[2 * low + 1]!];
  return [ax + (ring[2 * next]! - ax) * share, ay + (ring[2 * next + 1]! - ay) * share];
}
