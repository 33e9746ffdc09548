/**
 * Words whose size is searched for: their joints and middles are carried over from size to size, and have to be those that are found by
 * measuring the finished letters from the beginning.
 */
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { clearanceAt, type Region, regionBox, translateRegion } from "../geometry";
import { poleOf } from "../measure";
import { parsePiece, STOCKS, type Word } from "../piece";
import { freshSeed, numbersFrom } from "../tests/seed";
import { crossingWidth } from "./dots";
import { layoutWord, type WordLayout } from "./layout";

const library = shippedLibrary();
const NAMES = ["Kittiwake", "Jiří", "Zoë", "Ffion", "Siân", "Harbour", "Oyster", "Bjørn", "Dilys", "Mia-Lee"];
const STYLES = CATALOGUE.filter(({ style }) => style !== "inline");
const seed = freshSeed("sized words");
const next = numbersFrom(seed);
const oneOf = <Item>(items: readonly Item[]) => items[Math.floor(next() * items.length)]!;

const layoutOf = (text: string, font: string, more: object): WordLayout => {
  const piece = parsePiece({ name: "w", stock: STOCKS[0], parts: [{ kind: "word", id: "w", text, font, ...more }] });
  return layoutWord(piece.parts[0] as Word, library.font(font)!);
};
const bodies = ({ letters }: WordLayout): Region[] => letters.map(({ islands }) => islands[0]!.region);

const CASES = Array.from({ length: 30 }, () => ({
  text: oneOf(NAMES),
  font: oneOf(STYLES).id,
  mm: 50 + 200 * next(),
  join: 1 + 2.5 * next(),
  // Grown or thinned strokes keep their middles.
  thicken: next() < 0.5 ? 0 : -0.4 + 1.6 * next(),
}));

describe.each(CASES)(
  "$text in $font, $mm mm wide, joined by $join mm, thicker by $thicken mm",
  ({ text, font, mm, join, thicken }) => {
    const sized = layoutOf(text, font, { size: { by: "width", mm }, join, thicken, dots: "bite" });

    it("is as wide as asked; its joints are those of the same letters at that height", () => {
      // Joints that jump leave out some sizes; that is told.
      expect(sized.missed ? mm : sized.box!.maxX - sized.box!.minX).toBeCloseTo(mm, 2);
      const alone = layoutOf(text, font, { size: { by: "cap-height", mm: sized.capHeight }, join, thicken, dots: "bite" });
      const one = bodies(sized);
      for (let i = 1; i < one.length; i++) {
        const [gap, wanted] = [sized, alone].map(({ letters }) => letters[i]!.stand.x - letters[i - 1]!.stand.x) as [
          number,
          number,
        ];
        // Where several places would do, either may be found.
        if (Math.abs(gap - wanted) > 0.005) expect(crossingWidth(one[i - 1]!, one[i]!), `joint ${i}`).toBeGreaterThan(join);
      }
    });

    it("has middles as wide as those of the finished outlines", () => {
      for (const { islands } of sized.letters) {
        for (const { region, pole } of islands) {
          // Some fonts have slivers, which have no middle.
          const found = poleOf(region);
          if (!found) continue;
          expect(pole!.width).toBeGreaterThan(found.width - 0.03);
          expect(pole!.width).toBeLessThan(2 * clearanceAt(region, pole!.x, pole!.y) + 0.005);
        }
      }
    });
  },
);

it("letters apart have no joint, and what is moved in has one", () => {
  const square: Region = [Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)];
  expect(crossingWidth(square, translateRegion(square, 12, 0))).toBe(0);
  expect(crossingWidth(square, translateRegion(square, 8, 3))).toBeCloseTo(Math.hypot(2, 7), 3);
});

describe("letters of straight sides", () => {
  const SIZES = Array.from({ length: 25 }, () => 10 + 40 * next());

  it("on one baseline are joined along their sides, not pushed through each other", () => {
    for (const [text, font] of [
      ["Mi", "archivo-black"],
      ["HI", "archivo-black"],
      ["Nh", "alfa-slab-one"],
    ] as const) {
      for (const mm of SIZES) {
        const [left, right] = bodies(layoutOf(text, font, { size: { by: "cap-height", mm }, join: 2 })).map(
          (each) => regionBox(each)!,
        );
        expect(left!.maxX - right!.minX, `${text}, ${mm} mm`).toBeLessThan(0.3 * mm);
      }
    }
  });

  it("below each other reach into each other a little, at every size", () => {
    for (const mm of SIZES) {
      const { box } = layoutOf("KIT", "archivo-black", { size: { by: "cap-height", mm }, path: { kind: "stacked", joint: 2 } });
      expect(box!.maxY - box!.minY, `${mm} mm`).toBeGreaterThan(2.8 * mm);
    }
  });
});

it("few sizes cannot be had, and those are told", () => {
  const missed = CASES.filter(({ text, font, mm, join, thicken }) => {
    const { box, missed } = layoutOf(text, font, { size: { by: "width", mm }, join, thicken, dots: "bite" });
    expect(missed !== null).toBe(Math.abs(box!.maxX - box!.minX - mm) > 0.05);
    return missed;
  });
  expect(missed.length).toBeLessThanOrEqual(3);
});
