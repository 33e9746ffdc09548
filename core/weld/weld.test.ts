import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import UnaryUnionOp from "jsts/org/locationtech/jts/operation/union/UnaryUnionOp.js";
import { describe, expect, it } from "vitest";
import { backwards, islandsOf, normalise, type Region, type Ring, regionArea } from "../geometry";
import { layoutWord } from "../lettering";
import { parsePiece, STOCKS, type Word } from "../piece";
import { fineCircle, rectangle } from "../tests/shapes";
import { outlineLeft, type WeldBase, weld, weldAgain, weldChange } from "./index";

const library = shippedLibrary();

const wordOf = (text: string, font: string, tracking = 0): Word =>
  parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, tracking, size: { by: "cap-height", mm: 20 } }],
  }).parts[0] as Word;

const lettersOf = (text: string, font: string, tracking = 0) =>
  layoutWord(wordOf(text, font, tracking), library.font(font)!).letters.flatMap((letter) => letter.islands);

/** The outline of a letter by itself, its islands apart, mm. */
function outlineOf(letter: string, font: string): { id: string; region: Region }[] {
  const face = library.font(font)!;
  const scale = 20 / face.capHeight;
  const { islands } = face.outline(face.shape(letter).glyphs, { sx: scale, sy: scale });
  return islands.map((region, i) => ({ id: String(i), region }));
}

const closed = (ring: Ring) => {
  const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!]);
  return [...points, points[0]!];
};

/** Union area by the JTS Topology Suite (jsts), an independent implementation. */
function areaByJts(regions: Region[]): number {
  const reader = new GeoJSONReader();
  const polygons = regions.flatMap(islandsOf).map((island) => island.map(closed));
  return UnaryUnionOp.union(reader.read({ type: "MultiPolygon", coordinates: polygons })).getArea();
}

describe("weld", () => {
  it.each(CATALOGUE.map(({ id }) => id))("has the area that JTS finds: words in %s", (font) => {
    for (const text of ["Wilhelmina", "Ángela & Jiří", "Bjørn 2048%"]) {
      const regions = lettersOf(text, font, -1.2).map((island) => island.region);
      const area = regionArea(weld(regions.map((region, i) => ({ id: String(i), region }))).region);
      const expected = areaByJts(regions);
      expect(Math.abs(area - expected) / expected).toBeLessThan(1e-5);
    }
  });

  it.each(CATALOGUE.map(({ id }) => id))("keeps the counters of every printable letter in %s", (font) => {
    for (let code = 0x21; code < 0x17f; code++) {
      const text = String.fromCodePoint(code);
      if (!library.font(font)!.has(code)) continue;
      const islands = outlineOf(text, font);
      const holes = islands.reduce((n, island) => n + island.region.length - 1, 0);
      const welded = weld(islands).region;
      expect(welded.filter((ring) => regionArea([ring]) < 0).length, text).toBe(holes);
    }
    for (const letter of "oeabdgpqADOPQR0689") {
      const holes = outlineOf(letter, font).reduce((n, island) => n + island.region.length - 1, 0);
      // In joining scripts a loop may be open; a heavy or slab face has all its counters.
      if (["archivo-black", "alfa-slab-one"].includes(font)) expect(holes, letter).toBeGreaterThan(0);
    }
  });

  it("remembers whose every edge is", () => {
    const parts = [
      { id: "plate", region: normalise([rectangle(0, 0, 20, 10)]) },
      { id: "disc", region: normalise([backwards(fineCircle(10, 12, 5, 200))]) },
    ];
    const { region, owners } = weld(parts);
    region.forEach((ring, r) => {
      for (let i = 0; i < ring.length / 2; i++) {
        const k = (i + 1) % (ring.length / 2);
        const [mx, my] = [(ring[2 * i]! + ring[2 * k]!) / 2, (ring[2 * i + 1]! + ring[2 * k + 1]!) / 2];
        const onDisc = Math.abs(Math.hypot(mx - 10, my - 12) - 5) < 0.01;
        expect(owners[r]![i]).toBe(onDisc ? 1 : 0);
      }
    });
  });

  it("of nothing is nothing", () => {
    expect(weld([])).toEqual({ region: [], owners: [] });
  });
});

it("knows how much of every part's outline is left", () => {
  // A stem 3 wide stands 1 deep in a bar: it loses its foot and 1 mm on each side, the bar 3 mm of its upper edge.
  const parts = [
    { id: "stem", region: [rectangle(5, 5, 3, 10)] },
    { id: "bar", region: [rectangle(0, 0, 40, 6)] },
  ];
  const [stem, bar] = outlineLeft(weld(parts), 2);
  expect(stem).toBeCloseTo(26 - 3 - 2, 3);
  expect(bar).toBeCloseTo(92 - 3, 3);
  const [hidden] = outlineLeft(weld([{ id: "dot", region: [rectangle(10, 2, 2, 2)] }, parts[1]!]), 2);
  expect(hidden).toBe(0);
});

it("welding again changes nothing where nothing was wrong, and keeps the owners", () => {
  const parts = [
    { id: "a", region: [rectangle(0, 0, 10, 10)] },
    { id: "b", region: [rectangle(8, 4, 10, 2)] },
  ];
  const once = weld(parts);
  const twice = weldAgain(once, parts);
  expect(regionArea(twice.region)).toBeCloseTo(regionArea(once.region), 9);
  expect([...twice.owners[0]!].sort()).toEqual([...once.owners[0]!].sort());
});

describe("a weld of which little has changed", () => {
  const plates = (from: number, count: number) =>
    Array.from({ length: count }, (_, i) => ({ id: `p${from + i}`, region: [rectangle((from + i) * 20, 0, 10, 10)] }));
  const baseOf = (parts: WeldBase["parts"]): WeldBase => ({ parts, welded: weld(parts) });

  it("keeps the very rings that lie far away, and tells the owners by their new numbers", () => {
    const base = baseOf(plates(0, 8));
    const parts = [{ id: "tie", region: [rectangle(5, 4, 22, 3)] }, ...plates(0, 8)];
    const { region, owners } = weldChange(base, parts)!;
    expect(regionArea(region)).toBeCloseTo(regionArea(weld(parts).region), 6);
    for (const ring of base.welded.region) if (ring[0]! > 40) expect(region).toContain(ring);
    const left = outlineLeft({ region, owners }, parts.length);
    // Of the tie only its two long sides between the plates are seen; each of its ends takes 3 mm of a plate.
    expect(left[0]).toBeCloseTo(20, 3);
    expect([...left.subarray(1)]).toEqual([37, 37, 40, 40, 40, 40, 40, 40].map((length) => expect.closeTo(length, 3)));
  });

  it("leaves out what has gone, and puts it back", () => {
    const base = baseOf(plates(0, 6));
    expect(regionArea(weldChange(base, plates(1, 5))!.region)).toBeCloseTo(500, 6);
    expect(regionArea(weldChange(base, plates(0, 6))!.region)).toBeCloseTo(600, 6);
    expect(weldChange(base, base.parts)!.region).toEqual(base.welded.region);
  });

  it("gives way to a new weld where much has changed", () => {
    expect(weldChange(baseOf(plates(0, 3)), plates(10, 3))).toBeNull();
  });
});
