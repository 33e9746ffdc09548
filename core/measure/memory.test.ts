import { describe, expect, it } from "vitest";
import { type Region, union } from "../geometry";
import { fineCircle, rectangle } from "../tests/shapes";
import { boundaryOf } from "./boundary";
import { measureWidths, type WidthField } from "./field";
import { sinceBoundary } from "./memory";
import { sampleBoundary, sampleChange } from "./sampling";

const STEPS = { longest: 0.8, shortest: 0.02 };
const COUNT = 8;
const middleOf = (i: number, raised = 0) => [6 + i * 11, 4 + raised] as const;

/** A bar with discs standing on it, the fourth of them raised by so much. */
const discsOnBar = (raised: number): Region =>
  union([
    [rectangle(0, -4, 90, 6)],
    ...Array.from({ length: COUNT }, (_, i) => {
      const [x, y] = middleOf(i, i === 3 ? raised : 0);
      return [fineCircle(x, y, 4, 90)];
    }),
  ]);

/** All that is measured exactly: in the middles of the discs, and the width of every neck by where it lies. */
function measured(field: WidthField): { middles: (number | null)[]; necks: Map<string, number> } {
  const necks = new Map<string, number>();
  for (let k = 0; k < field.necks.count; k++) {
    const { width, from, to } = field.exact(k);
    necks.set([from.x, from.y, to.x, to.y].map((value) => value.toFixed(6)).join(" "), width);
  }
  const middles = Array.from({ length: COUNT }, (_, i) => field.middle(...middleOf(i))?.clearance ?? null);
  return { middles, necks };
}

describe("what is remembered of an outline that is mostly the same", () => {
  it.each([0.3, 1.2, 3.1, 4.4])("is what would be measured afresh, with a disc raised by %d mm", (raised) => {
    const base = measureWidths(discsOnBar(0));
    measured(base);
    const again = measured(measureWidths(discsOnBar(raised), undefined, { base }));
    // A base that nothing was asked of remembers nothing.
    const afresh = measured(measureWidths(discsOnBar(raised), undefined, { base: measureWidths(discsOnBar(0)) }));
    expect(again).toEqual(afresh);
    expect(again.necks.size).toBeGreaterThan(COUNT);
  });

  it("is given to the base too, where nothing has changed", () => {
    const base = measureWidths(discsOnBar(0));
    const changed = measureWidths(discsOnBar(1), undefined, { base });
    for (let k = 0; k < changed.necks.count; k++) changed.exact(k);
    expect(measured(base)).toEqual(measured(measureWidths(discsOnBar(0))));
  });

  it("is not asked where the outline has changed", () => {
    const base = sampleBoundary(boundaryOf(discsOnBar(0)), STEPS);
    const { boundary } = sampleChange(base, boundaryOf(discsOnBar(1)), STEPS)!;
    const { within, beside } = sinceBoundary(base.boundary, boundary);
    // Discs overlap their neighbours, so that a box about the upper half of one is the largest that is its own.
    const above = (i: number) => {
      const [x, y] = middleOf(i);
      return { minX: x - 3, minY: y + 2, maxX: x + 3, maxY: y + 5 };
    };
    expect(Array.from({ length: COUNT }, (_, i) => within(above(i)))).toEqual(Array.from({ length: COUNT }, (_, i) => i !== 3));
    const [x] = middleOf(3);
    const onDisc = Array.from({ length: boundary.edges }, (_, e) => e).filter(
      (e) => boundary.y[boundary.start[e]!]! > 4 && Math.abs(boundary.x[boundary.start[e]!]! - x) < 4.5,
    );
    expect(onDisc.length).toBeGreaterThan(20);
    expect(onDisc.some(beside)).toBe(false);
  });
});
