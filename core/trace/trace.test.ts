/**
 * Tracing of pictures whose shapes are known: pixels are covered as much as a closed formula, or 16 × 16 samples, say.
 */
import { describe, expect, it } from "vitest";
import { flatten, regionArea, ringArea } from "../geometry";
import { freshSeed, numbersFrom } from "../tests/seed";
import { levelAngle, type Picture, PictureError, readField, sizeOutlines, tracePicture } from ".";

type Inside = (x: number, y: number) => boolean;
type Colour = readonly [number, number, number, number];
const WHITE: Colour = [255, 255, 255, 255];
const BLACK: Colour = [0, 0, 0, 255];

/** @param inside in pixels from the upper left corner */
function drawn(width: number, height: number, inside: Inside, shape: Colour = BLACK, ground: Colour = WHITE): Picture {
  const data = new Uint8ClampedArray(4 * width * height);
  const n = 16;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let covered = 0;
      for (let k = 0; k < n * n; k++) if (inside(x + ((k % n) + 0.5) / n, y + (Math.floor(k / n) + 0.5) / n)) covered++;
      const share = covered / n / n;
      for (let c = 0; c < 4; c++) data[4 * (y * width + x) + c] = ground[c]! + (shape[c]! - ground[c]!) * share;
    }
  }
  return { width, height, data };
}

const disc =
  (cx: number, cy: number, r: number): Inside =>
  (x, y) =>
    (x - cx) ** 2 + (y - cy) ** 2 < r * r;
const areaOf = (picture: Picture, options = {}) =>
  regionArea(tracePicture(picture, options).outlines.map((path) => flatten(path)));

describe("how far a picture was turned", () => {
  /** A bracket of level and upright sides, turned counter-clockwise as it is seen. */
  const bracket = (degrees: number): Inside => {
    const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    return (x, y) => {
      const [dx, dy] = [x - 75, y - 75];
      const [u, v] = [cos * dx - sin * dy, sin * dx + cos * dy];
      return Math.abs(u) < 50 && Math.abs(v) < 35 && !(u > -20 && Math.abs(v) < 15);
    };
  };

  it.each([-14, -3.7, 0, 0.5, 2.2, 8])("%f degrees are found", (degrees) => {
    const found = levelAngle(tracePicture(drawn(150, 150, bracket(degrees))).outlines);
    expect(Math.abs(found! + degrees)).toBeLessThan(0.15);
  });

  it("a disc, or what stands far off, tells nothing", () => {
    expect(levelAngle(tracePicture(drawn(100, 100, disc(50, 50, 35))).outlines)).toBeNull();
    expect(levelAngle(tracePicture(drawn(150, 150, bracket(40))).outlines)).toBeNull();
    expect(levelAngle([])).toBeNull();
  });
});

describe("what is traced", () => {
  it("a disc and its hole, where they are and as large as they are", () => {
    const { outlines } = tracePicture(drawn(120, 100, (x, y) => disc(60.3, 45.2, 34)(x, y) && !disc(52, 40, 12)(x, y)));
    const rings = outlines.map((path) => flatten(path));
    expect(rings.map((ring) => Math.sign(ringArea(ring))).sort()).toEqual([-1, 1]);
    expect(regionArea(rings) / (Math.PI * (34 ** 2 - 12 ** 2))).toBeCloseTo(1, 2.7);
    for (const ring of rings) {
      const [cx, cy, r] = ringArea(ring) > 0 ? [60.3, 100 - 45.2, 34] : [52, 100 - 40, 12];
      for (let i = 0; i < ring.length; i += 2) {
        expect(Math.abs(Math.hypot(ring[i]! - cx, ring[i + 1]! - cy) - r)).toBeLessThan(0.15);
      }
    }
    expect(outlines.every(({ segments }) => segments.length <= 16)).toBe(true);
  });

  it("corners are as sharp as they were, straight lines are one", () => {
    const { outlines } = tracePicture(drawn(90, 80, (x, y) => x > 20.3 && x < 70.8 && y > 15.6 && y < 60.1));
    expect(outlines).toHaveLength(1);
    expect(outlines[0]!.segments.map(({ type }) => type)).toEqual(["L", "L", "L", "L"]);
    const corners = [
      [20.3, 19.9],
      [70.8, 19.9],
      [70.8, 64.4],
      [20.3, 64.4],
    ];
    for (const { x, y } of outlines[0]!.segments) {
      expect(Math.min(...corners.map(([cx, cy]) => Math.hypot(x - cx!, y - cy!)))).toBeLessThan(0.12);
    }
  });

  it("tips beat the pixels that cut them off", () => {
    // A tip of 40 degrees.
    const half = Math.tan((20 * Math.PI) / 180);
    const { outlines } = tracePicture(drawn(80, 120, (x, y) => y > 10 && y < 100 && Math.abs(x - 40.4) < (y - 10) * half));
    const top = Math.max(...flatten(outlines[0]!).filter((_, i) => i % 2 === 1));
    expect(Math.abs(top - 110)).toBeLessThan(0.5);
  });

  it("light on dark, colours, an even change of the light, and see-through ground alike", () => {
    const shape = disc(50, 50, 30);
    const right = Math.PI * 900;
    const lit = drawn(100, 100, shape, [30, 60, 70, 255]);
    for (let pixel = 0; pixel < 10_000; pixel++) {
      const shade = (pixel % 100) * 0.6;
      const covered = (255 - lit.data[4 * pixel]!) / 225;
      for (let c = 0; c < 3; c++) lit.data[4 * pixel + c]! -= shade * (1 - covered);
    }
    for (const picture of [
      drawn(100, 100, shape, WHITE, BLACK),
      drawn(100, 100, shape, [200, 30, 40, 255], [20, 90, 40, 255]),
      drawn(100, 100, shape, [27, 111, 117, 255], [27, 111, 117, 0]),
      lit,
    ]) {
      expect(Math.abs(areaOf(picture) / right - 1)).toBeLessThan(0.004);
    }
  });

  it("a shape of several colours is one", () => {
    const picture = drawn(100, 100, disc(50, 50, 40), [190, 20, 20, 255]);
    const middle = drawn(100, 100, disc(50, 50, 20), [10, 90, 200, 255], [190, 20, 20, 255]);
    for (let y = 25; y < 75; y++) {
      for (let x = 25; x < 75; x++) {
        for (let c = 0; c < 3; c++) picture.data[4 * (100 * y + x) + c] = middle.data[4 * (100 * y + x) + c]!;
      }
    }
    expect(tracePicture(picture).outlines).toHaveLength(1);
  });

  it("what runs out of the picture ends at its edge", () => {
    const [{ outlines }] = [tracePicture(drawn(60, 40, (x, y) => x < 35.5 && y > 10.5 && y < 30.5))];
    const xs = flatten(outlines[0]!).filter((_, i) => i % 2 === 0);
    expect(Math.min(...xs)).toBeCloseTo(0, 6);
    expect(Math.max(...xs)).toBeCloseTo(35.5, 1);
  });

  it("a border that is half covered is no background", () => {
    const picture = drawn(80, 60, disc(40, 30, 20));
    for (let y = 0; y < 60; y++) picture.data[4 * (80 * y + 79) + 3] = 100;
    expect(tracePicture(picture).outlines).toHaveLength(1);
    expect(readField(picture).by).toBe("colour");
  });

  it("a see-through margin around a picture is no background; a plate of one colour in one is the shape", () => {
    const picture = drawn(90, 70, disc(44, 34, 20));
    for (let y = 0; y < 70; y++)
      for (let x = 0; x < 90; x++) if (y < 4 || y > 65 || x > 86) picture.data[4 * (90 * y + x) + 3] = 0;
    expect(areaOf(picture) / (Math.PI * 400)).toBeCloseTo(1, 1.7);
    const plate = drawn(60, 50, (x, y) => x > 10 && x < 50 && y > 10 && y < 40, [120, 80, 40, 255], [120, 80, 40, 0]);
    expect(areaOf(plate)).toBeCloseTo(1200, -1);
  });

  it("with noise, the same shape, and dirt left out", () => {
    const seed = freshSeed("core/trace noise");
    const next = numbersFrom(seed);
    const picture = drawn(160, 120, disc(80, 60, 40), [40, 40, 40, 255]);
    for (let i = 0; i < picture.data.length; i += 4) {
      const off = (next() + next() + next() - 1.5) * 30;
      for (let c = 0; c < 3; c++) picture.data[i + c]! += off;
    }
    for (let k = 0; k < 9; k++)
      for (let c = 0; c < 3; c++) picture.data[4 * (160 * (10 + (k % 3)) + 10 + Math.floor(k / 3)) + c] = 40;
    const { outlines, left } = tracePicture(picture);
    expect(outlines).toHaveLength(1);
    expect(left.specks).toBeGreaterThan(0);
    const ring = flatten(outlines[0]!);
    for (let i = 0; i < ring.length; i += 2) {
      expect(Math.abs(Math.hypot(ring[i]! - 80, ring[i + 1]! - 60) - 40)).toBeLessThan(0.6);
    }
  });
});

describe("choices", () => {
  const soft = drawn(100, 100, () => false);
  for (let y = 0; y < 100; y++) {
    for (let x = 0; x < 100; x++) {
      const grey = Math.max(0, Math.min(255, (Math.hypot(x - 49.5, y - 49.5) - 20) * 12));
      for (let c = 0; c < 3; c++) soft.data[4 * (100 * y + x) + c] = grey;
    }
  }
  it.each([60, 120, 200])("a threshold of %i is a grey value", (threshold) => {
    const { outlines, threshold: told } = tracePicture(soft, { threshold });
    expect(told).toBeCloseTo(threshold, 5);
    expect(Math.sqrt(regionArea(outlines.map((path) => flatten(path))) / Math.PI)).toBeCloseTo(20 + threshold / 12, 0.9);
  });

  it("specks and holes below a size are left out, and what lies in them", () => {
    const inside: Inside = (x, y) =>
      disc(30, 40, 24)(x, y) && !(disc(30, 40, 6)(x, y) && !disc(30, 40, 3)(x, y)) ? true : disc(75, 40, 8)(x, y);
    expect(tracePicture(drawn(100, 80, inside)).outlines).toHaveLength(4);
    expect(tracePicture(drawn(100, 80, inside), { hole: 150 }).outlines).toHaveLength(2);
    expect(tracePicture(drawn(100, 80, inside), { speck: 300 }).outlines).toHaveLength(2);
  });

  it("a place that is known to be background decides", () => {
    // A dark frame around a light picture with a dark disc: the frame is taken for the background unless one says otherwise.
    const picture = drawn(120, 120, (x, y) => x < 12 || x > 108 || y < 12 || y > 108 || disc(60, 60, 25)(x, y));
    expect(areaOf(picture)).toBeCloseTo(96 * 96 - Math.PI * 625, -2);
    expect(areaOf(picture, { background: { x: 20, y: 20 } })).toBeCloseTo(120 * 120 - 96 * 96 + Math.PI * 625, -2);
  });

  it("hollow leaves a frame along the edge; too wide a one is told", () => {
    const { outlines } = tracePicture(drawn(100, 100, disc(50, 50, 40)));
    const sized = sizeOutlines(outlines, 0.5, 3);
    expect(regionArea(sized.outlines.map((path) => flatten(path)))).toBeCloseTo(Math.PI * (20 ** 2 - 17 ** 2), 0);
    expect(() => sizeOutlines(outlines, 0.5, 21)).toThrow(/wider than 42 mm/);
  });
});

describe("what cannot be traced", () => {
  const all = (width: number, height: number, value: () => Colour): Picture => ({
    width,
    height,
    data: Uint8ClampedArray.from(Array.from({ length: width * height }, value).flat()),
  });
  it.each([
    ["an even picture", () => all(50, 50, () => WHITE), /stands out from its background/],
    ["a see-through one", () => all(50, 50, () => [0, 0, 0, 0]), /see-through all over/],
    ["one pixel", () => all(1, 1, () => BLACK), /1 × 1 pixels/],
    ["a huge one", (): Picture => ({ width: 20_000, height: 20_000, data: new Uint8Array() }), /20000 × 20000 pixels/],
    ["a threshold beyond all", () => drawn(60, 60, disc(30, 30, 20)), /threshold 255/],
  ])("%s", (_, picture, sentence) => {
    const options = sentence.source.includes("threshold") ? { threshold: 255, speck: 1e6 } : {};
    expect(() => tracePicture(picture(), options)).toThrow(PictureError);
    expect(() => tracePicture(picture(), options)).toThrow(sentence);
  });

  it("noise all over: told as such, or as nothing that stands out, whichever it looks like", () => {
    const next = numbersFrom(freshSeed("core/trace wild"));
    expect(() => tracePicture(all(200, 200, () => [255 * next(), 255 * next(), 255 * next(), 255]))).toThrow(
      /noise or a texture|stands out from its background/,
    );
  });
});
