import fc from "fast-check";
import { orient2d } from "robust-predicates";
import { describe, expect, it } from "vitest";
import { GRID } from "../geometry/grid";
import { freshSeed } from "../tests/seed";
import { Delaunay, nextHalfedge, prevHalfedge } from "./delaunay";

/** Every point in it, every half-edge opposite one that runs the other way, every triangle clockwise, every circle empty. */
function expectDelaunay(net: Delaunay, points: readonly number[]) {
  const { triangles, halfedges, coords, starts } = net;
  const at = (h: number): Place => [coords[2 * triangles[h]!]!, coords[2 * triangles[h]! + 1]!];
  // Euler: with the four corners on the hull there are 2n + 2 triangles around n points within.
  expect(triangles.length / 3).toBe(2 * points.length + 2);
  expect(points.filter((point) => triangles[starts[point]!] !== point)).toEqual([]);
  const isRight = (h: number): boolean => {
    const twin = halfedges[h]!;
    if (twin === -1) return true;
    if (halfedges[twin] !== h || triangles[twin] !== triangles[nextHalfedge(h)]) return false;
    const [a, b, c, d] = [at(h), at(nextHalfedge(h)), at(prevHalfedge(h)), at(prevHalfedge(twin))];
    return orient2d(...a, ...b, ...c) > 0 && depthInCircle(a, b, c, d) < 1e-6;
  };
  expect([...triangles.keys()].filter((h) => !isRight(h))).toEqual([]);
}

type Place = readonly [number, number];

/** How far d lies within the circle through a, b and c, mm. */
function depthInCircle([ax, ay]: Place, [bx, by]: Place, [cx, cy]: Place, [dx, dy]: Place): number {
  const [ux, uy, vx, vy] = [bx - ax, by - ay, cx - ax, cy - ay];
  const twice = 2 * (ux * vy - uy * vx);
  const [u2, v2] = [ux * ux + uy * uy, vx * vx + vy * vy];
  const [x, y] = [(vy * u2 - uy * v2) / twice, (ux * v2 - vx * u2) / twice];
  const radius = Math.hypot(x, y);
  // Of huge circles the rounding is larger than what is asked.
  return radius > 1e4 ? 0 : radius - Math.hypot(dx - ax - x, dy - ay - y);
}

const made = (places: readonly Place[], room = 0) =>
  Delaunay.of(
    Float64Array.from(places, ([x]) => x),
    Float64Array.from(places, ([, y]) => y),
    places.length,
    room,
  );

/** Places on a coarse grid, so that many lie on one circle and on one line. */
const gridPlaces = fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })), {
  minLength: 5,
  maxLength: 60,
  selector: ([x, y]) => x * 100 + y,
});
/** On the grid of outlines: of places nearer to a line than rounding, no sum of doubles says on which side of a circle they lie. */
const onGrid = fc.integer({ min: 0, max: 30 * GRID }).map((steps) => steps / GRID);
const freePlaces = fc.uniqueArray(fc.tuple(onGrid, onGrid), {
  minLength: 5,
  maxLength: 60,
  selector: ([x, y]) => `${x} ${y}`,
});

describe("a triangulation that changes", () => {
  it.each([
    ["on a grid", gridPlaces],
    ["anywhere", freePlaces],
  ])("stays one of Delaunay's when points come and go %s", (_, places) => {
    fc.assert(
      fc.property(places, fc.integer({ min: 1, max: 1000 }), (random, pick) => {
        // The first ones span the whole, for what comes must lie within the far corners.
        const list: Place[] = [[-1, -1], [31, -1], [31, 31], ...random];
        const first = Math.max(3, Math.floor(list.length / 2));
        const net = made(list.slice(0, first));
        const there = new Set(Array.from({ length: first }, (_, i) => i));
        for (let i = first; i < list.length; i++) {
          net.insert(i, list[i]![0], list[i]![1], i - 1);
          there.add(i);
        }
        expectDelaunay(net, [...there]);
        for (let i = 0; i < list.length - 3; i++) {
          const gone = (i * pick) % list.length;
          net.remove(gone);
          there.delete(gone);
        }
        net.compact();
        expectDelaunay(net, [...there]);
        for (let i = 0; i < list.length; i++) {
          if (there.has(i)) continue;
          net.insert(i, list[i]![0], list[i]![1], [...there][0]!);
          there.add(i);
        }
        expectDelaunay(net, [...there]);
      }),
      { seed: freshSeed("Delaunay net that changes"), numRuns: 200 },
    );
  });

  it("a copy changes alone, and knows what has changed in it", () => {
    const list: Place[] = Array.from({ length: 40 }, (_, i) => [(i * 7) % 20, (i * 13) % 17]);
    const net = made(list);
    const before = net.triangles.slice();
    const copy = net.copy(3);
    expect(copy.changed.some((each) => each === 1)).toBe(false);
    copy.remove(7);
    copy.insert(40, 30.5, 3.25, 0);
    copy.compact();
    expect([...net.triangles]).toEqual([...before]);
    expectDelaunay(net, [...list.keys()]);
    expectDelaunay(
      copy,
      [...list.keys(), 40].filter((i) => i !== 7),
    );
    const far = [...copy.triangles.keys()].filter((h) => copy.changed[(h / 3) | 0] === 0);
    expect(far.length).toBeGreaterThan(0);
  });

  it("finds a place from a point that has gone, whichever triangles went with it", () => {
    const list: Place[] = Array.from({ length: 60 }, (_, i) => [(i * 7) % 23, (i * 11) % 19]);
    const net = made(list);
    const there = new Set(list.keys());
    for (let i = 0; i < 60; i++) {
      if (list[i]![0] > 2 && list[i]![0] < 20) {
        net.remove(i);
        there.delete(i);
      }
    }
    const gone = [...list.keys()].filter((i) => !there.has(i));
    expect(gone.length).toBeGreaterThan(30);
    for (const i of gone) {
      net.insert(i, list[i]![0], list[i]![1], i);
      there.add(i);
    }
    net.compact();
    expectDelaunay(net, [...there]);
  });

  it("leaves a point out that lies exactly on another, and refuses one beyond its corners", () => {
    const net = made([
      [0, 0],
      [4, 0],
      [0, 4],
    ]);
    net.insert(3, 4, 0, 0);
    expect(net.starts[3]).toBe(-1);
    expectDelaunay(net, [0, 1, 2]);
    expect(net.frames(2, 2)).toBe(true);
    expect(net.frames(200, 2)).toBe(false);
    expect(() => net.insert(4, 200, 2, 0)).toThrow("far corners");
  });
});
