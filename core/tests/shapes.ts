/**
 * Simple shapes and small helpers for tests.
 */
import { measureWelded } from "../examine/measured";
import { backwards, type Matrix, normalise, type Region, type Ring, transformRing } from "../geometry";
import { findJoints } from "../joints";

/** Steps fine enough that a circle of a few mm is true to 0.1 µm. */
export function fineCircle(cx: number, cy: number, radius: number, steps = 4000): Ring {
  return Float64Array.from({ length: 2 * steps }, (_, i) => {
    const angle = (2 * Math.PI * (i >> 1)) / steps;
    return i % 2 === 0 ? cx + radius * Math.cos(angle) : cy + radius * Math.sin(angle);
  });
}

export function rectangle(x: number, y: number, width: number, height: number): Ring {
  return Float64Array.from([x, y, x + width, y, x + width, y + height, x, y + height]);
}

export function annulus(cx: number, cy: number, outer: number, inner: number, steps = 720): Region {
  return [fineCircle(cx, cy, outer, steps), backwards(fineCircle(cx, cy, inner, steps))];
}

export function turned(degrees: number, dx = 0, dy = 0, mirror = false): Matrix {
  const a = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return mirror ? [-c, -s, -s, c, dx, dy] : [c, s, -s, c, dx, dy];
}

export function place(region: Region, matrix: Matrix): Region {
  return normalise(region.map((ring) => transformRing(ring, matrix)));
}

/** Welds, measures and joins: holds for a list of regions, the holders named by index. */
export function holdsOf(regions: Region[], holders: number[] = [0]) {
  const parts = regions.map((region, i) => ({ id: `p${i}`, region: normalise(region), holder: holders.includes(i) }));
  const { welded, field } = measureWelded(parts);
  return { ...findJoints(parts, field), field, region: welded.region };
}
