/**
 * Rings and regions: the one shape type of the core.
 *
 * A ring is a closed polygon `[x0, y0, x1, y1, …]` in mm, y up; the last point joins the first and is not repeated.
 * A region is a list of rings in which outer boundaries run counter-clockwise and holes clockwise,
 * so that material always lies to the left of an edge.
 */
export type Ring = Float64Array;
export type Region = Ring[];

export interface Point {
  x: number;
  y: number;
}

export interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** Signed area in mm²: positive for counter-clockwise rings. (Shoelace formula.) */
export function ringArea(ring: Ring): number {
  let twice = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
  }
  return twice / 2;
}

/** Material area of a region in mm²: holes count negative. */
export function regionArea(region: Region): number {
  return region.reduce((sum, ring) => sum + ringArea(ring), 0);
}

/** Total boundary length in mm. */
export function regionPerimeter(region: Region): number {
  let length = 0;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const dx = ring[i]! - ring[j]!;
      const dy = ring[i + 1]! - ring[j + 1]!;
      length += Math.sqrt(dx * dx + dy * dy);
    }
  }
  return length;
}

/** Centre of mass of a region of even thickness, or `null` when it has no area. */
export function regionCentroid(region: Region): Point | null {
  let twice = 0;
  let x = 0;
  let y = 0;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const cross = ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
      twice += cross;
      x += (ring[j]! + ring[i]!) * cross;
      y += (ring[j + 1]! + ring[i + 1]!) * cross;
    }
  }
  return Math.abs(twice) < 1e-12 ? null : { x: x / (3 * twice), y: y / (3 * twice) };
}

/** Do two regions have the very same coordinates? */
export function sameRegion(a: Region, b: Region): boolean {
  return a === b || (a.length === b.length && a.every((ring, r) => sameRing(ring, b[r]!)));
}

function sameRing(a: Ring, b: Ring): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** How many corners the rings of a region have. */
export function vertexCount(region: Region): number {
  return region.reduce((n, ring) => n + ring.length / 2, 0);
}

/** The corner that is farthest from a place, and how far, mm; `null` where none counts. */
export function farthestCorner(
  region: Region,
  from: Point,
  counts: (corner: Point) => boolean = () => true,
): (Point & { away: number }) | null {
  let best: (Point & { away: number }) | null = null;
  for (const ring of region) {
    for (let i = 0; i < ring.length; i += 2) {
      const corner = { x: ring[i]!, y: ring[i + 1]! };
      const away = Math.hypot(corner.x - from.x, corner.y - from.y);
      if (away > (best?.away ?? -1) && counts(corner)) best = { ...corner, away };
    }
  }
  return best;
}

/** Smallest box around a region, or `null` when there is nothing in it. */
export function regionBox(region: Region): Box | null {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const ring of region) {
    for (let i = 0; i < ring.length; i += 2) {
      if (ring[i]! < box.minX) box.minX = ring[i]!;
      if (ring[i]! > box.maxX) box.maxX = ring[i]!;
      if (ring[i + 1]! < box.minY) box.minY = ring[i + 1]!;
      if (ring[i + 1]! > box.maxY) box.maxY = ring[i + 1]!;
    }
  }
  return box.minX <= box.maxX ? box : null;
}

/** A box with so much around it, mm. */
export const widenBox = ({ minX, minY, maxX, maxY }: Box, by: number): Box => ({
  minX: minX - by,
  minY: minY - by,
  maxX: maxX + by,
  maxY: maxY + by,
});

/** Smallest box around several boxes, or `null` when there are none. */
export function joinBoxes(boxes: (Box | null)[]): Box | null {
  let joined: Box | null = null;
  for (const box of boxes) {
    if (!box) continue;
    joined = joined
      ? {
          minX: Math.min(joined.minX, box.minX),
          minY: Math.min(joined.minY, box.minY),
          maxX: Math.max(joined.maxX, box.maxX),
          maxY: Math.max(joined.maxY, box.maxY),
        }
      : box;
  }
  return joined;
}

/** A point as a box without size. */
export const boxOfPoint = ({ x, y }: Point): Box => ({ minX: x, minY: y, maxX: x, maxY: y });

/** True when the point lies inside the ring (even-odd; points on the edge may fall either way). */
export function ringContains(ring: Ring, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const yi = ring[i + 1]!;
    const yj = ring[j + 1]!;
    if (yi > y !== yj > y && x < ((ring[j]! - ring[i]!) * (y - yi)) / (yj - yi) + ring[i]!) inside = !inside;
  }
  return inside;
}

/** True when the point lies in the material of a normalised region. */
export function regionContains(region: Region, x: number, y: number): boolean {
  let inside = false;
  for (const ring of region) if (ringContains(ring, x, y)) inside = !inside;
  return inside;
}

/** Affine map `x' = a·x + c·y + e`, `y' = b·x + d·y + f` (the order SVG uses). */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** Moves every point through the matrix. Winding turns round when the matrix mirrors. */
export function transformRing(ring: Ring, [a, b, c, d, e, f]: Matrix): Ring {
  const moved = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    const x = ring[i]!;
    const y = ring[i + 1]!;
    moved[i] = a * x + c * y + e;
    moved[i + 1] = b * x + d * y + f;
  }
  return moved;
}

/** The same on a grid of 1 µm, for outlines that a finer one has made cross themselves by a hair; to be made proper again. */
export const snapToGrid = (region: Region): Region => region.map((ring) => ring.map((value) => Math.round(value * 1000) / 1000));

/** The ring run the other way round: a hole as a shape of its own. */
export function backwards(ring: Ring): Ring {
  const back = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    back[i] = ring[ring.length - 2 - i]!;
    back[i + 1] = ring[ring.length - 1 - i]!;
  }
  return back;
}

/** Moves every point of a region; where the matrix mirrors, its rings are run the other way, so that material stays on the left. */
export function transformRegion(region: Region, matrix: Matrix): Region {
  const moved = region.map((ring) => transformRing(ring, matrix));
  const [a, b, c, d] = matrix;
  return a * d - b * c < 0 ? moved.map(backwards) : moved;
}

/** First `inner`, then `outer`. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [A, B, C, D, E, F] = inner;
  return [a * A + c * B, b * A + d * B, a * C + c * D, b * C + d * D, a * E + c * F + e, b * E + d * F + f];
}

/** What takes a transform back. A transform that flattens everything has none, and comes to no numbers. */
export function invert([a, b, c, d, e, f]: Matrix): Matrix {
  const area = a * d - b * c;
  return [d / area, -b / area, -c / area, a / area, (c * f - d * e) / area, (b * e - a * f) / area];
}

/** @param angle radians, counter-clockwise, about the origin */
export function rotation(angle: number): Matrix {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos, sin, -sin, cos, 0, 0];
}

export function transformPoint([a, b, c, d, e, f]: Matrix, { x, y }: Point): Point {
  return { x: a * x + c * y + e, y: b * x + d * y + f };
}

export function translateRegion(region: Region, dx: number, dy: number): Region {
  return dx === 0 && dy === 0 ? region : region.map((ring) => transformRing(ring, [1, 0, 0, 1, dx, dy]));
}

export function boxHolds(box: Box, x: number, y: number): boolean {
  return x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
}

/** Shortest distance between two boxes, 0 where they meet. */
export function boxDistance(a: Box, b: Box): number {
  return Math.hypot(Math.max(a.minX - b.maxX, 0, b.minX - a.maxX), Math.max(a.minY - b.maxY, 0, b.minY - a.maxY));
}

export function boxesMeet(a: Box | null, b: Box | null): boolean {
  return a !== null && b !== null && a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;
}

/** True when a corner of one region lies in the other: what outlines that overlap do, unless they cross like a plus sign. */
export function regionsShareCorners(a: Region, b: Region): boolean {
  return hasCornerIn(a, b) || hasCornerIn(b, a);
}

function hasCornerIn(corners: Region, region: Region): boolean {
  const box = regionBox(region);
  if (!box) return false;
  for (const ring of corners) {
    for (let i = 0; i < ring.length; i += 2) {
      if (boxHolds(box, ring[i]!, ring[i + 1]!) && regionContains(region, ring[i]!, ring[i + 1]!)) return true;
    }
  }
  return false;
}
