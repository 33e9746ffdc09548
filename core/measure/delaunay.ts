/**
 * A Delaunay triangulation that points are put into and taken out of, so that a change costs what it touches.
 *
 * A point goes into the triangle around it, and edges are flipped until no circle holds a fourth corner (C. Lawson, 1977). A point
 * is taken out by flipping its edges until three are left, and the same rule mends what is around it. An edge is flipped only where
 * the fourth corner lies in the circle by more than rounding: every flip is a true gain then, and four points on one circle, which
 * is what even samples along parallel sides are, neither loop nor need exact arithmetic. On which side of an edge a point lies
 * is decided exactly (J. Shewchuk, "Adaptive precision floating-point arithmetic", 1997).
 */
import Delaunator from "delaunator";
import { orient2d } from "robust-predicates";

export const nextHalfedge = (h: number) => (h % 3 === 2 ? h - 2 : h + 1);
export const prevHalfedge = (h: number) => (h % 3 === 0 ? h + 2 : h - 1);

/** Bound of the rounding of the determinant below, in relation to the sum of its absolute terms (Shewchuk's constant A, doubled). */
const IN_CIRCLE_ERROR = 2.3e-15;

/** A walk or a hole that the triangulation does not allow: start afresh. */
export class DelaunayError extends Error {
  override name = "DelaunayError";
}

interface Net {
  coords: Float64Array;
  points: number;
  at: Int32Array;
  corners: Uint32Array;
  twins: Int32Array;
  used: number;
}

export class Delaunay {
  /** x and y of each point; the far corners are the last four. */
  coords: Float64Array;
  /** Number of points without the far corners. */
  points: number;
  /** Half-edge that starts at each point, −1 for points that are not in it. */
  private at: Int32Array;
  private corners: Uint32Array;
  private twins: Int32Array;
  /** Half-edges in use. */
  private used: number;
  /** Triangles that were taken out and may be used again. */
  private free: number[] = [];
  /** 1 for triangles that are not as they were first. */
  private altered: Uint8Array;

  private constructor(from: Net) {
    this.coords = from.coords;
    this.points = from.points;
    this.at = from.at;
    this.corners = from.corners;
    this.twins = from.twins;
    this.used = from.used;
    this.altered = new Uint8Array(from.corners.length / 3);
  }

  /**
   * @param x, y points, mm
   * @param room for how many points more there is to be space
   */
  static of(x: Float64Array, y: Float64Array, points: number, room: number): Delaunay {
    const coords = withFrame(x, y, points);
    const { triangles, halfedges } = new Delaunator(coords);
    const at = new Int32Array(points + 4).fill(-1);
    for (let h = 0; h < triangles.length; h++) at[triangles[h]!] = h;
    const made = new Delaunay({ coords, points, at, ...withSpace(triangles, halfedges, room) });
    made.makeRoom(points + room);
    return made;
  }

  /** The same once more, to be changed without changing this one. Nothing counts as altered in it yet. */
  copy(room: number): Delaunay {
    const { points, triangles, halfedges } = this;
    const [coords, at] = [this.coords.slice(), this.at.slice()];
    const made = new Delaunay({ coords, points, at, ...withSpace(triangles, halfedges, room) });
    made.makeRoom(points + room);
    return made;
  }

  /** Point of each half-edge; three in a row are a triangle, clockwise. */
  get triangles(): Uint32Array {
    return this.corners.subarray(0, this.used);
  }

  /** Opposite half-edge, −1 on the hull. */
  get halfedges(): Int32Array {
    return this.twins.subarray(0, this.used);
  }

  /** Half-edge that starts at each point. */
  get starts(): Int32Array {
    return this.at;
  }

  /** 1 for triangles that are not as they were when it was made or copied. */
  get changed(): Uint8Array {
    return this.altered.subarray(0, this.used / 3);
  }

  /** The half-edge from one point to another, −1 where the triangulation has no such side. */
  halfedgeBetween(from: number, to: number): number {
    const { corners, twins } = this;
    const first = this.at[from]!;
    if (first === -1) return -1;
    let h = first;
    do {
      const place = h % 3;
      if (corners[place === 2 ? h - 2 : h + 1] === to) return h;
      h = twins[place === 0 ? h + 2 : h - 1]!;
    } while (h !== first && h !== -1);
    return -1;
  }

  /** Does a place lie well within the far corners? */
  frames(x: number, y: number): boolean {
    const [low, high] = [2 * (this.coords.length / 2 - 4), 2 * (this.coords.length / 2 - 2)];
    const margin = (this.coords[high]! - this.coords[low]!) / 6;
    return (
      x > this.coords[low]! + margin &&
      x < this.coords[high]! - margin &&
      y > this.coords[low + 1]! + margin &&
      y < this.coords[high + 1]! - margin
    );
  }

  /** Room for points up to a number: the far corners get numbers beyond it. */
  private makeRoom(points: number): void {
    const before = this.coords.length / 2 - 4;
    if (points <= before) return;
    const coords = new Float64Array(2 * points + 8);
    coords.set(this.coords.subarray(0, 2 * before));
    coords.set(this.coords.subarray(2 * before), 2 * points);
    const at = new Int32Array(points + 4).fill(-1);
    at.set(this.at.subarray(0, before));
    at.set(this.at.subarray(before), points);
    for (let h = 0; h < this.used; h++) if (this.corners[h]! >= before) this.corners[h]! += points - before;
    this.coords = coords;
    this.at = at;
  }

  /**
   * Puts a point in; one that lies exactly on another is left out.
   *
   * @param point its number: at most `points`, which is then one more
   * @param near a point that the search begins at, the nearer the better; one that is not in it is none
   */
  insert(point: number, x: number, y: number, near: number): void {
    if (point >= this.points) this.points = point + 1;
    if (this.points > this.coords.length / 2 - 4) this.makeRoom(Math.ceil(this.points * 1.5));
    this.coords[2 * point] = x;
    this.coords[2 * point + 1] = y;
    this.at[point] = -1;
    const known = this.at[near]!;
    // The far corners are always there, while any other triangle may have been taken out.
    const h = this.locate(x, y, known === -1 ? this.at[this.at.length - 1]! : known);
    if (h === -1) return;
    if (this.side(h, x, y) === 0) this.splitEdge(h, point);
    else this.splitTriangle((h / 3) | 0, point);
    this.legalize();
  }

  /** @returns a half-edge of the triangle around a place, one that the place lies on where there is such; −1 where a corner lies there */
  private locate(x: number, y: number, start: number): number {
    let h = start;
    // The side that was crossed to come here need not be looked at again.
    for (let steps = this.used; steps > 0; steps--) {
      const n = nextHalfedge(h);
      const p = nextHalfedge(n);
      const [right, left] = [this.side(n, x, y), this.side(p, x, y)];
      if (right < 0) h = this.across(n);
      else if (left < 0) h = this.across(p);
      else {
        const own = this.side(h, x, y);
        if (own < 0) h = this.across(h);
        else {
          const on = own === 0 ? h : right === 0 ? n : left === 0 ? p : -1;
          if (on === -1) return h;
          const zeros = Number(own === 0) + Number(right === 0) + Number(left === 0);
          return zeros > 1 ? -1 : on;
        }
      }
    }
    throw new DelaunayError("A walk through the triangulation came to no end");
  }

  private across(h: number): number {
    const twin = this.twins[h]!;
    if (twin === -1) throw new DelaunayError("A point lies beyond the far corners");
    return twin;
  }

  /** Positive where a place lies on the inner side of a half-edge, 0 where on its line. */
  private side(h: number, x: number, y: number): number {
    const { corners, coords } = this;
    const [a, b] = [2 * corners[h]!, 2 * corners[nextHalfedge(h)]!];
    return orient2d(coords[a]!, coords[a + 1]!, coords[b]!, coords[b + 1]!, x, y);
  }

  private splitTriangle(t: number, point: number): void {
    const { corners, twins } = this;
    const [a, b, c] = [corners[3 * t]!, corners[3 * t + 1]!, corners[3 * t + 2]!];
    const [ab, bc, ca] = [twins[3 * t]!, twins[3 * t + 1]!, twins[3 * t + 2]!];
    const [u, v] = [this.newTriangle(), this.newTriangle()];
    this.write(t, a, b, point);
    this.write(u, b, c, point);
    this.write(v, c, a, point);
    this.link(3 * t, ab);
    this.link(3 * u, bc);
    this.link(3 * v, ca);
    this.link(3 * t + 1, 3 * u + 2);
    this.link(3 * u + 1, 3 * v + 2);
    this.link(3 * v + 1, 3 * t + 2);
    this.open.push(3 * t, 3 * u, 3 * v);
  }

  private splitEdge(h: number, point: number): void {
    const { corners, twins } = this;
    const g = twins[h]!;
    if (g === -1) throw new DelaunayError("A point lies on the hull");
    const [hn, hp, gn, gp] = [nextHalfedge(h), prevHalfedge(h), nextHalfedge(g), prevHalfedge(g)];
    const [a, b, c, d] = [corners[h]!, corners[g]!, corners[hp]!, corners[gp]!];
    const [bc, ca, ad, db] = [twins[hn]!, twins[hp]!, twins[gn]!, twins[gp]!];
    const [t, u, v, w] = [(h / 3) | 0, (g / 3) | 0, this.newTriangle(), this.newTriangle()];
    this.write(t, c, a, point);
    this.write(v, b, c, point);
    this.write(u, a, d, point);
    this.write(w, d, b, point);
    this.link(3 * t, ca);
    this.link(3 * v, bc);
    this.link(3 * u, ad);
    this.link(3 * w, db);
    this.link(3 * t + 1, 3 * u + 2);
    this.link(3 * u + 1, 3 * w + 2);
    this.link(3 * w + 1, 3 * v + 2);
    this.link(3 * v + 1, 3 * t + 2);
    this.open.push(3 * t, 3 * u, 3 * v, 3 * w);
  }

  /** Takes a point out. */
  remove(point: number): void {
    const start = this.at[point]!;
    if (start === -1) return;
    let degree = 0;
    let spoke = start;
    do {
      degree++;
      spoke = this.twins[prevHalfedge(spoke)]!;
      if (spoke === -1) throw new DelaunayError("A point on the hull cannot be taken out");
    } while (spoke !== start);
    let kept = 0;
    while (degree > 3) {
      if (kept > degree) throw new DelaunayError("A point could not be taken out");
      const next = this.twins[prevHalfedge(spoke)]!;
      if (this.isEar(spoke, point)) {
        this.flip(spoke);
        // The triangle that has lost the point stays; those that still have it are looked at when there is only one.
        const ear = this.twins[spoke]!;
        this.open.push(ear, nextHalfedge(ear), prevHalfedge(ear));
        degree--;
        kept = 0;
      } else kept++;
      spoke = next;
    }
    this.joinThree(spoke, point);
    this.legalize();
  }

  /** May a spoke be flipped, so that its two neighbours are joined past the point? */
  private isEar(spoke: number, point: number): boolean {
    const { corners, coords, twins } = this;
    const [b, c, p] = [2 * corners[nextHalfedge(spoke)]!, 2 * corners[prevHalfedge(spoke)]!, 2 * point];
    const a = 2 * corners[prevHalfedge(twins[spoke]!)]!;
    return (
      orient2d(coords[a]!, coords[a + 1]!, coords[b]!, coords[b + 1]!, coords[c]!, coords[c + 1]!) > 0 &&
      orient2d(coords[a]!, coords[a + 1]!, coords[c]!, coords[c + 1]!, coords[p]!, coords[p + 1]!) >= 0
    );
  }

  /** Three triangles around a point become one. */
  private joinThree(first: number, point: number): void {
    const { corners, twins } = this;
    const second = twins[prevHalfedge(first)]!;
    const third = twins[prevHalfedge(second)]!;
    const spokes = [first, second, third];
    const ends = spokes.map((spoke) => corners[nextHalfedge(spoke)]!);
    const outer = spokes.map((spoke) => twins[nextHalfedge(spoke)]!);
    const t = (first / 3) | 0;
    this.at[point] = -1;
    this.free.push((second / 3) | 0, (third / 3) | 0);
    this.write(t, ends[0]!, ends[1]!, ends[2]!);
    outer.forEach((twin, k) => {
      this.link(3 * t + k, twin);
      this.open.push(3 * t + k);
    });
  }

  /** Half-edges whose two triangles are yet to be looked at. */
  private readonly open: number[] = [];

  /** Flips until no circle around a triangle holds the corner across a side. */
  private legalize(): void {
    const { open, twins } = this;
    while (open.length > 0) {
      const h = open.pop()!;
      const g = twins[h]!;
      if (g === -1 || !this.inCircle(h, g)) continue;
      this.flip(h);
      open.push(prevHalfedge(h), prevHalfedge(g), nextHalfedge(h), nextHalfedge(g));
    }
  }

  /** Does the corner across side h lie in the circle through its triangle, by more than rounding? */
  private inCircle(h: number, g: number): boolean {
    const { corners, coords } = this;
    const d = 2 * corners[prevHalfedge(g)]!;
    const [dx, dy] = [coords[d]!, coords[d + 1]!];
    const [a, b, c] = [2 * corners[h]!, 2 * corners[nextHalfedge(h)]!, 2 * corners[prevHalfedge(h)]!];
    const adx = coords[a]! - dx;
    const ady = coords[a + 1]! - dy;
    const bdx = coords[b]! - dx;
    const bdy = coords[b + 1]! - dy;
    const cdx = coords[c]! - dx;
    const cdy = coords[c + 1]! - dy;
    const ad = adx * adx + ady * ady;
    const bd = bdx * bdx + bdy * bdy;
    const cd = cdx * cdx + cdy * cdy;
    const [bc, cb, ca, ac, ab, ba] = [bdx * cdy, cdx * bdy, cdx * ady, adx * cdy, adx * bdy, bdx * ady];
    const twice = ad * (bc - cb) + bd * (ca - ac) + cd * (ab - ba);
    const terms = ad * (Math.abs(bc) + Math.abs(cb)) + bd * (Math.abs(ca) + Math.abs(ac)) + cd * (Math.abs(ab) + Math.abs(ba));
    return -twice > IN_CIRCLE_ERROR * terms;
  }

  /** Turns the common side of two triangles: h and its twin stay opposite each other, from the one apex to the other. */
  private flip(h: number): void {
    const { corners, twins } = this;
    const g = twins[h]!;
    const [hn, hp, gn, gp] = [nextHalfedge(h), prevHalfedge(h), nextHalfedge(g), prevHalfedge(g)];
    const [a, b, c, d] = [corners[h]!, corners[g]!, corners[hp]!, corners[gp]!];
    const [bc, ca, ad, db] = [twins[hn]!, twins[hp]!, twins[gn]!, twins[gp]!];
    // h: d → c, then c → a, a → d; g: c → d, then d → b, b → c.
    corners[h] = d;
    corners[hn] = c;
    corners[hp] = a;
    corners[g] = c;
    corners[gn] = d;
    corners[gp] = b;
    this.link(hn, ca);
    this.link(hp, ad);
    this.link(gn, db);
    this.link(gp, bc);
    this.at[a] = hp;
    this.at[b] = gp;
    this.at[c] = hn;
    this.at[d] = gn;
    this.altered[(h / 3) | 0] = 1;
    this.altered[(g / 3) | 0] = 1;
  }

  private write(t: number, a: number, b: number, c: number): void {
    this.corners[3 * t] = a;
    this.corners[3 * t + 1] = b;
    this.corners[3 * t + 2] = c;
    this.at[a] = 3 * t;
    this.at[b] = 3 * t + 1;
    this.at[c] = 3 * t + 2;
    this.altered[t] = 1;
  }

  private link(h: number, g: number): void {
    this.twins[h] = g;
    if (g !== -1) this.twins[g] = h;
  }

  private newTriangle(): number {
    const again = this.free.pop();
    if (again !== undefined) return again;
    if (this.used + 3 > this.corners.length) {
      const size = Math.ceil(this.corners.length / 2) * 3;
      const [corners, twins, altered] = [new Uint32Array(size), new Int32Array(size), new Uint8Array(size / 3)];
      corners.set(this.corners);
      twins.set(this.twins);
      altered.set(this.altered);
      this.corners = corners;
      this.twins = twins;
      this.altered = altered;
    }
    this.used += 3;
    return this.used / 3 - 1;
  }

  /** Closes the gaps that points taken out have left: afterwards every three half-edges are a triangle. */
  compact(): void {
    for (const gap of this.free.sort((m, n) => n - m)) {
      const last = this.used / 3 - 1;
      if (gap !== last) {
        const altered = this.altered[last]!;
        this.write(gap, this.corners[3 * last]!, this.corners[3 * last + 1]!, this.corners[3 * last + 2]!);
        for (let k = 0; k < 3; k++) this.link(3 * gap + k, this.twins[3 * last + k]!);
        this.altered[gap] = altered;
      }
      this.used -= 3;
    }
    this.free.length = 0;
  }
}

/** Copies of half-edges, with space for those of more points: each brings two triangles. */
function withSpace(triangles: Uint32Array, halfedges: Int32Array, room: number): Pick<Net, "corners" | "twins" | "used"> {
  const used = triangles.length;
  const [corners, twins] = [new Uint32Array(used + 6 * room), new Int32Array(used + 6 * room)];
  corners.set(triangles);
  twins.set(halfedges);
  return { corners, twins, used };
}

/** @returns the points, and four far corners that keep every one of them off the hull */
function withFrame(x: Float64Array, y: Float64Array, points: number): Float64Array {
  const coords = new Float64Array(2 * points + 8);
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points; i++) {
    const [px, py] = [x[i]!, y[i]!];
    coords[2 * i] = px;
    coords[2 * i + 1] = py;
    if (px < minX) minX = px;
    if (px > maxX) maxX = px;
    if (py < minY) minY = py;
    if (py > maxY) maxY = py;
  }
  const size = Math.max(maxX - minX, maxY - minY, 1);
  const corners = [minX - size, minY - size, maxX + size, minY - size, maxX + size, maxY + size, minX - size, maxY + size];
  coords.set(corners, 2 * points);
  return coords;
}
