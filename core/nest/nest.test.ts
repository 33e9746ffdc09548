import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import DistanceOp from "jsts/org/locationtech/jts/operation/distance/DistanceOp.js";
import { describe, expect, it } from "vitest";
import {
  backwards,
  circleRing,
  difference,
  islandsOf,
  normalise,
  offset,
  type Region,
  regionArea,
  regionBox,
  regionContains,
  transformRegion,
  union,
} from "../geometry";
import { freshSeed, numbersFrom } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import { block, drawRegion, emptyBitmap, isFree, nextRoom, put, Shifted, take } from "./bitmap";
import {
  checkSheet,
  Lot,
  type LotOptions,
  type NestOptions,
  type NestPiece,
  nest,
  nestLot,
  type Reached,
  SheetError,
} from "./index";
import { ShapeLevels, SheetLevels } from "./levels";
import { Cover, Spans } from "./spans";

const SEED = freshSeed("core/nest");

/** The JTS Topology Suite's own distance between what lies on the sheet (M. Davis, "JTS Topology Suite", locationtech.org). */
const reader = new GeoJSONReader();
function toJts(region: Region) {
  const closed = (ring: Float64Array) => {
    const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!]);
    return [...points, points[0]!];
  };
  const coordinates = islandsOf(region).map((island) => island.map(closed));
  return reader.read({ type: "MultiPolygon", coordinates });
}
const distance = (a: Region, b: Region): number => DistanceOp.distance(toJts(a), toJts(b));

const box = (width: number, height: number): Region => [rectangle(0, 0, width, height)];
const numbered = (regions: readonly Region[]): NestPiece[] => regions.map((region, i) => ({ id: `p${i}`, region }));
const laid = (pieces: readonly NestPiece[], { sheets }: ReturnType<typeof nest>) =>
  sheets.map(({ placements }) =>
    placements.map(({ id, matrix }) => transformRegion(pieces.find((piece) => piece.id === id)!.region, matrix)),
  );

/** A stroke with a crossbar and a ring at its end: hollow, and far from its box. */
function randomPiece(random: () => number): Region {
  const from = (least: number, most: number) => least + (most - least) * random();
  const [length, width] = [from(20, 90), from(3, 9)];
  const bars = Array.from({ length: 1 + Math.floor(from(0, 3)) }, () =>
    rectangle(from(0, length - 4), from(-20, 0), from(3, 8), from(15, 40)),
  );
  const [x, y, r] = [from(0, length), from(-10, 25), from(6, 16)];
  const ring = [circleRing(x, y, r), circleRing(x, y, r * from(0.4, 0.7)).reverse()];
  const turned = Float64Array.from(ring[1]!);
  for (let i = 0; i < turned.length; i += 2) [turned[i], turned[i + 1]] = [ring[1]![i + 1]!, ring[1]![i]!];
  return union([[rectangle(0, 0, length, width)], ...bars.map((bar) => normalise([bar])), normalise([ring[0]!, turned])]);
}

const drawn = (region: Region, cell: number) => drawRegion(region, cell, regionBox(region)!);

describe("cells", () => {
  it("every place of a shape lies in a cell that is taken", () => {
    const random = numbersFrom(SEED);
    for (let n = 0; n < 30; n++) {
      const region = randomPiece(random);
      const cell = 0.3 + 2 * random();
      const { minX: x, minY: y } = regionBox(region)!;
      const bitmap = drawn(region, cell);
      const taken = (i: number, k: number) => (bitmap.bits[k * bitmap.words + (i >>> 5)]! >>> (i & 31)) & 1;
      const size = regionBox(region)!;
      for (let k = 0; k < 2000; k++) {
        const [px, py] = [size.minX + random() * (size.maxX - size.minX), size.minY + random() * (size.maxY - size.minY)];
        if (regionContains(region, px, py)) expect(taken(Math.floor((px - x) / cell), Math.floor((py - y) / cell))).toBe(1);
      }
    }
  });
});

describe("places and covers, cell by cell", () => {
  const random = numbersFrom(SEED + 5);
  const any = (count: number) => Math.floor(random() * count);
  const isTaken = ({ bits, words }: ReturnType<typeof emptyBitmap>, x: number, y: number) =>
    ((bits[y * words + (x >>> 5)]! >>> (x & 31)) & 1) === 1;

  it("the lowest place is the first that is free, and what is lifted leaves nothing behind", () => {
    for (let n = 0; n < 20; n++) {
      const sheet = emptyBitmap(150, 110);
      block(sheet, [rectangle(20 + any(60), any(60), 4 + any(40), 2 + any(20))], 1);
      const other = new Shifted(drawn(randomPiece(random), 1));
      const [ox, oy] = [any(150 - other.bitmap.width), any(110 - other.bitmap.height)];
      const before = sheet.bits.slice();
      const lies = isFree(sheet, other, ox, oy);
      const levels = new SheetLevels(sheet);
      if (lies) {
        put(sheet, other, ox, oy);
        levels.put(other, ox, oy);
      }
      const bitmap = drawn(randomPiece(random), 1);
      const shape = new Shifted(bitmap);
      const [lastX, lastY] = [150 - bitmap.width, 110 - bitmap.height];
      const free = (x: number, y: number) => {
        for (let j = 0; j < bitmap.height; j++)
          for (let i = 0; i < bitmap.width; i++) if (isTaken(bitmap, i, j) && isTaken(sheet, x + i, y + j)) return false;
        return true;
      };
      for (let k = 0; k < 8; k++) {
        const [x, from] = [any(lastX + 1), any(20)];
        let lowest = from;
        while (lowest <= lastY && !free(x, lowest)) lowest++;
        const found = [nextRoom(sheet, shape, x, from, lastY), levels.nextRoom(new ShapeLevels(shape), x, from, lastY)];
        expect(found.map((y) => Math.min(y, lastY + 1))).toEqual(Array(2).fill(Math.min(lowest, lastY + 1)));
      }
      if (lies) take(sheet, other, ox, oy);
      expect(sheet.bits).toEqual(before);
    }
  });

  it("under a shape lie the cells that it shares, each as often as others lie there; what is taken away leaves none", () => {
    for (let n = 0; n < 10; n++) {
      const lying = Array.from({ length: 3 }, () => {
        const bitmap = drawn(randomPiece(random), 1);
        return { bitmap, spans: new Spans(bitmap), x: any(150 - bitmap.width), y: any(110 - bitmap.height) };
      });
      const cover = new Cover(150, 110);
      for (const { spans, x, y } of lying) cover.put(spans, x, y);
      const bitmap = drawn(randomPiece(random), 1);
      const spans = new Spans(bitmap);
      const [x, y] = [any(150 - bitmap.width), any(110 - bitmap.height)];
      const shared = lying.map((other) => {
        let count = 0;
        for (let j = 0; j < bitmap.height; j++) {
          for (let i = 0; i < bitmap.width; i++) {
            const [a, b] = [x + i - other.x, y + j - other.y];
            const inside = a >= 0 && b >= 0 && a < other.bitmap.width && b < other.bitmap.height;
            if (isTaken(bitmap, i, j) && inside && isTaken(other.bitmap, a, b)) count++;
          }
        }
        return count;
      });
      expect(lying.map((other) => spans.shared(other.spans, other.x - x, other.y - y))).toEqual(shared);
      const sum = shared.reduce((all, count) => all + count, 0);
      expect(cover.under(spans, x, y, Infinity)).toBe(sum);
      expect(cover.under(spans, x, y, sum / 2)).toBeGreaterThanOrEqual(sum / 2);
      cover.take(lying[0]!.spans, lying[0]!.x, lying[0]!.y);
      expect(cover.under(spans, x, y, Infinity)).toBe(sum - shared[0]!);
    }
  });
});

describe("pieces on sheets", () => {
  const plain: LotOptions = { gap: 0, margin: 0 };

  it("six squares fill their sheet, a seventh begins another; one that is too large is told", () => {
    const sheet = { width: 300, height: 200 };
    const squares = numbered(Array.from({ length: 6 }, () => box(100, 100)));
    expect(nest(squares, sheet, plain).sheets.map(({ placements }) => placements.length)).toEqual([6]);
    const more = numbered([...squares.map(({ region }) => region), box(100, 100), box(301, 10)]);
    const nested = nest(more, sheet, plain);
    expect(nested.sheets.map(({ placements }) => placements.length)).toEqual([6, 1]);
    expect(nested.tooLarge).toEqual(["p7"]);
    expect(nested.fewest).toBe(2);
  });

  it("a gap and a margin are kept to a hundredth", () => {
    const two = numbered([box(100, 100), box(100, 100)]);
    const options = { gap: 3, margin: 5 };
    expect(nest(two, { width: 213.02, height: 110.02 }, { ...options, cell: 0.5 }).sheets).toHaveLength(2);
    const enough = nest(two, { width: 214, height: 110.02 }, { ...options, cell: 0.5 });
    expect(enough.sheets).toHaveLength(1);
    expect(checkSheet(laid(two, enough)[0]!, { width: 214, height: 110.02, ...options })).toEqual([]);
  });

  it("a piece that fits only turned is turned, where that is allowed", () => {
    const long = numbered([box(20, 280)]);
    const sheet = { width: 300, height: 100 };
    expect(nest(long, sheet, plain).sheets[0]!.placements[0]!.matrix.slice(0, 4)).toEqual([0, 1, -1, 0]);
    expect(nest(long, sheet, { ...plain, turns: [0, 180] }).tooLarge).toEqual(["p0"]);
  });

  it("small ones go into the holes of large ones, and used parts of the sheet stay free", () => {
    const frame = [rectangle(0, 0, 100, 100), Float64Array.from([10, 10, 10, 90, 90, 90, 90, 10])];
    const pieces = numbered([frame, box(70, 70)]);
    const nested = nest(pieces, { width: 110, height: 110 }, { gap: 2, margin: 2 });
    expect(nested.sheets).toHaveLength(1);
    const used = [rectangle(0, 0, 60, 110)];
    const [placed] = laid(
      numbered([box(40, 40)]),
      nest(numbered([box(40, 40)]), { width: 110, height: 110, used: [used] }, { gap: 2, margin: 2 }),
    );
    expect(distance(placed![0]!, used)).toBeGreaterThanOrEqual(2);
    // What only the used part would have room for goes onto a whole sheet.
    const wide = nest(numbered([box(60, 60), box(40, 40)]), { width: 110, height: 110, used: [used] }, { gap: 2, margin: 2 });
    expect([wide.tooLarge, wide.sheets.map(({ placements }) => placements.map(({ id }) => id))]).toEqual([[], [["p1"], ["p0"]]]);
    // Whole sheets alone would do with one: what has to be true of every way to lay them cannot count the offcut.
    expect(wide.fewest).toBe(1);
  });

  it("of an offcut of any outline nothing but what is left is used, margin and holes kept", () => {
    const random = numbersFrom(SEED + 3);
    const pieces = numbered(Array.from({ length: 14 }, () => randomPiece(random)));
    const sheet = { width: 300, height: 200 };
    const left = [rectangle(0, 0, 220, 120), ...normalise([circleRing(70, 60, 25)]).map((ring) => backwards(ring))];
    const used = difference([rectangle(0, 0, sheet.width, sheet.height)], left);
    const options = { gap: 2, margin: 4, turns: [0, 30, 60, 90, 120, 150, 180, 210, 240, 270, 300, 330] };
    const nested = nest(pieces, { ...sheet, used: [used] }, options);
    const regions = laid(pieces, nested);
    expect(regions.flat()).toHaveLength(14);
    expect(regions[0]!.length).toBeGreaterThan(0);
    for (const region of regions[0]!) expect(distance(region, used)).toBeGreaterThanOrEqual(4 - 0.002);
    expect(checkSheet(regions[0]!, { ...sheet, ...options, used })).toEqual([]);
    expect(
      checkSheet(
        [rectangle(60, 50, 8, 8)].map((ring) => [ring]),
        { ...sheet, ...options, used },
      ),
    ).toHaveLength(1);
  });

  it("pieces of a group lie on one sheet, and one by one where no sheet has room for them", () => {
    const sheet = { width: 100, height: 100 };
    const of = (group: string, count: number, side: number) =>
      Array.from({ length: count }, (_, i): NestPiece => ({ id: `${group}${i}`, region: box(side, side), group }));
    const where = (pieces: readonly NestPiece[], options: NestOptions = {}) =>
      nest(pieces, sheet, { ...plain, ...options }).sheets.map(({ placements }) =>
        [...new Set(placements.map(({ id }) => id[0]))].sort().join(""),
      );
    // Three of the one and two of the other leave no room for a third of that.
    const pieces = [...of("a", 3, 50), ...of("b", 3, 49), ...of("c", 1, 49)];
    expect(where(pieces)).toEqual(["ac", "b"]);
    expect(where(pieces, { tries: 300, random: numbersFrom(SEED) })).toEqual(["ac", "b"]);
    expect(where(of("d", 5, 50))).toEqual(["d", "d"]);
  });

  it("a piece may lie with its back up where that is allowed", () => {
    const hook: Region = [Float64Array.from([0, 0, 30, 0, 30, 10, 10, 10, 10, 20, 0, 20])];
    // What is left of the first sheet is the hook seen from behind.
    const sheet = { width: 31, height: 21, used: [[rectangle(0, 11, 20, 10)]] };
    const on = (mirror: boolean) =>
      nest([{ id: "hook", region: hook, mirror }], sheet, { ...plain, turns: [0], cell: 0.25 }).sheets.map(
        ({ placements }) => placements.length,
      );
    expect(on(false)).toEqual([0, 1]);
    expect(on(true)).toEqual([1]);
  });

  it("a margin that leaves no room is told", () => {
    expect(() => nest(numbered([box(5, 5)]), { width: 100, height: 20 }, { gap: 3, margin: 10 })).toThrow(SheetError);
  });

  it(`random pieces: none is lost, none nearer than the gap or beyond the margin by the JTS Topology Suite (seed ${SEED})`, () => {
    const random = numbersFrom(SEED + 1);
    for (let n = 0; n < 12; n++) {
      const pieces = numbered(Array.from({ length: 2 + Math.floor(random() * 14) }, () => randomPiece(random)));
      const [gap, margin] = [random() * 5, random() * 8];
      const sheet = { width: 160 + 200 * random(), height: 140 + 100 * random() };
      const nested = nest(pieces, sheet, { gap, margin, cell: 0.5 + 2 * random(), random, tries: 150 });
      expect([...nested.tooLarge, ...nested.sheets.flatMap(({ placements }) => placements.map(({ id }) => id))].sort()).toEqual(
        pieces.map(({ id }) => id).sort(),
      );
      expect(nested.sheets.length).toBeGreaterThanOrEqual(nested.tooLarge.length > 0 ? 0 : nested.fewest);
      for (const here of laid(pieces, nested)) {
        expect(checkSheet(here, { ...sheet, gap, margin })).toEqual([]);
        here.forEach((piece, i) => {
          const { minX, minY, maxX, maxY } = regionBox(piece)!;
          expect(Math.min(minX, minY, sheet.width - maxX, sheet.height - maxY)).toBeGreaterThan(margin - 0.001);
          for (const other of here.slice(0, i)) expect(distance(piece, other)).toBeGreaterThan(gap - 0.001);
        });
      }
    }
  });

  it("a search never needs more, and mostly less; what it reached is gone on from", () => {
    const random = numbersFrom(SEED + 2);
    const pieces = numbered(Array.from({ length: 14 }, () => randomPiece(random)));
    const sheet = { width: 400, height: 120 };
    const options = { gap: 2, margin: 4, cell: 1, random };
    const length = ({ sheets }: ReturnType<typeof nest>) => (sheets.length - 1) * sheet.width + sheets.at(-1)!.reach;
    const once = nest(pieces, sheet, { ...options, part: [0, 0] });
    const longer = nest(pieces, sheet, { ...options, tries: 2000 });
    expect(length(longer)).toBeLessThan(length(once) - 1);
    const again = nest(pieces, sheet, { ...options, tries: 300, part: [0.5, 1], from: longer.reached });
    expect(length(again)).toBeLessThanOrEqual(length(longer) + 1e-6);
  });

  it("slices in which no length is done get on all the same, with plain data between them", () => {
    const random = numbersFrom(SEED + 6);
    const pieces = numbered(Array.from({ length: 14 }, () => randomPiece(random)));
    const sheet = { width: 400, height: 120 };
    const options = { gap: 2, margin: 4, cell: 1, random };
    const once = nest(pieces, sheet, { ...options, part: [0, 0] });
    const lot = new Lot(pieces, sheet, options);
    let nested = once;
    for (let k = 0; k < 100; k++) {
      const from = JSON.parse(JSON.stringify(nested.reached)) as Reached;
      nested = nestLot(lot, { random, tries: 16, part: [0, 0.5], from });
    }
    expect(nested.sheets.length).toBeLessThanOrEqual(once.sheets.length);
    const shorter = nested.sheets.length < once.sheets.length || nested.sheets.at(-1)!.reach < once.sheets.at(-1)!.reach - 1;
    expect(shorter).toBe(true);
  });

  it("plates that just fit side by side lie so, also where less sheet is searched", () => {
    // Twelve fill a sheet, with the gap between them and the margin around: in cells of two millimetres only nine would.
    const plates = numbered(Array.from({ length: 24 }, () => box(94.9, 46.9)));
    const sheet = { width: 4 * 97 + 8, height: 3 * 49 + 8 };
    const upright = { turns: [0, 180] };
    const options = { gap: 2, margin: 5 };
    for (const search of [{}, { tries: 40 }, { part: [0, 0] as const }]) {
      const nested = nest(plates, sheet, { ...options, ...upright, ...search, random: numbersFrom(SEED) });
      expect(nested.sheets.map(({ placements }) => placements.length)).toEqual([12, 12]);
    }
  });

  it("rounded plates that just fit do so, though corners of their outlines are left out", () => {
    const rounded = (width: number, height: number) => offset([rectangle(6, 6, width - 12, height - 12)], 6);
    const plates = numbered(Array.from({ length: 6 }, () => rounded(60, 40)));
    // Two beside each other, three on top of each other, 2 mm between them and 5 mm around.
    const sheet = { width: 2 * 60 + 2 + 10.05, height: 3 * 40 + 4 + 10.05 };
    const options = { gap: 2, margin: 5, turns: [0] };
    const nested = nest(plates, sheet, options);
    expect(nested.sheets.map(({ placements }) => placements.length)).toEqual([6]);
    for (const here of laid(plates, nested)) expect(checkSheet(here, { ...sheet, ...options })).toEqual([]);
    expect(nest(numbered([rounded(122.05, 124.05)]), sheet, options).tooLarge).toEqual([]);
  });

  it("squeezing keeps groups together, offcuts and what is pinned, gap and margin (JTS Topology Suite)", () => {
    const random = numbersFrom(SEED + 4);
    for (let n = 0; n < 4; n++) {
      const pieces = Array.from(
        { length: 12 },
        (_, i): NestPiece => ({
          id: `p${i}`,
          region: randomPiece(random),
          group: i < 4 ? "four" : undefined,
          mirror: i % 2 === 0,
        }),
      );
      const sheet = { width: 260, height: 180 };
      const used = [rectangle(0, 0, 60 + 60 * random(), 180)];
      const pinned = [{ id: "p11", sheet: 1, matrix: [0.6, 0.8, -0.8, 0.6, 120, 50] as const }];
      const options = { gap: 2, margin: 4, turns: [0, 45, 90, 135, 180, 225, 270, 315], pinned };
      const nested = nest(pieces, { ...sheet, used: [used] }, { ...options, random, tries: 600 });
      const where = new Map(nested.sheets.flatMap(({ placements }, k) => placements.map(({ id }) => [id, k])));
      expect(where.size).toBe(12);
      expect(new Set(["p0", "p1", "p2", "p3"].map((id) => where.get(id))).size).toBe(1);
      expect(nested.sheets[1]!.placements[0]).toEqual({ id: "p11", matrix: pinned[0]!.matrix });
      laid(pieces, nested).forEach((here, k) => {
        expect(checkSheet(here, { ...sheet, ...options, used: k === 0 ? used : undefined })).toEqual([]);
        if (k === 0) for (const region of here) expect(distance(region, used)).toBeGreaterThanOrEqual(4 - 0.002);
        here.forEach((piece, i) => {
          for (const other of here.slice(0, i)) expect(distance(piece, other)).toBeGreaterThan(options.gap - 0.001);
        });
      });
    }
  });
});

describe("laying again", () => {
  const random = numbersFrom(SEED + 3);
  const pieces = numbered(Array.from({ length: 10 }, () => randomPiece(random)));
  const sheet = { width: 260, height: 180 };
  const options = { gap: 2, margin: 4, cell: 1.5, random };

  it("is the same from where it ended, where nothing better is looked for", () => {
    const once = nest(pieces, sheet, { ...options, tries: 60 });
    const same = () => nest(pieces, sheet, { ...options, part: [1, 1], from: once.reached });
    expect(same().reached).toEqual(once.reached);
    expect(same().sheets).toEqual(same().sheets);
  });

  it("leaves what is pinned where it is, and keeps the gap to it by the JTS Topology Suite", () => {
    const first = nest(pieces, sheet, options);
    const [stays] = first.sheets[0]!.placements;
    // In the middle of the second sheet, turned a little.
    const [sin, cos] = [Math.sin(0.3), Math.cos(0.3)];
    const pinned = [{ id: stays!.id, sheet: 1, matrix: [cos, sin, -sin, cos, 110, 60] as const }];
    const again = nest(pieces, sheet, { ...options, pinned });
    expect(again.sheets[1]!.placements[0]).toEqual({ id: stays!.id, matrix: pinned[0]!.matrix });
    expect(again.sheets.flatMap(({ placements }) => placements.map(({ id }) => id)).sort()).toEqual(
      pieces.map(({ id }) => id).sort(),
    );
    for (const here of laid(pieces, again)) {
      here.forEach((piece, i) => {
        for (const other of here.slice(0, i)) expect(distance(piece, other)).toBeGreaterThan(options.gap - 0.001);
      });
    }
  });
});

describe("the proof of a sheet", () => {
  const sheet = { width: 100, height: 100, gap: 3, margin: 5 };
  it("tells what is too near, what overlaps, what lies in another, and what is beyond the margin", () => {
    const at = (x: number, y: number, size = 20) => [rectangle(x, y, size, size)];
    expect(checkSheet([at(10, 10), at(33.1, 10)], sheet)).toEqual([]);
    expect(checkSheet([at(10, 10), at(32, 10)], sheet)[0]).toMatchObject({ pieces: [0, 1], distance: 2 });
    expect(checkSheet([at(10, 10), at(25, 25)], sheet)).toHaveLength(1);
    expect(checkSheet([at(10, 10, 60), at(30, 30)], sheet)).toHaveLength(1);
    expect(checkSheet([at(4, 10)], sheet)[0]).toMatchObject({ pieces: [0], distance: -1 });
  });

  it("areas do not change", () => {
    const pieces = numbered([randomPiece(numbersFrom(7))]);
    const [[placed]] = laid(pieces, nest(pieces, { width: 300, height: 200 }, { gap: 1, margin: 1 })) as [[Region]];
    expect(regionArea(placed)).toBeCloseTo(regionArea(pieces[0]!.region), 6);
  });
});
