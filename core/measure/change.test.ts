import { describe, expect, it } from "vitest";
import { normalise, type Region, union } from "../geometry";
import { fineCircle, rectangle } from "../tests/shapes";
import { boundaryOf, edgeLength } from "./boundary";
import { measureWidths, type WidthField } from "./field";
import type { Sampled } from "./sampled";
import { sampleBoundary, sampleChange } from "./sampling";

const STEPS = { longest: 0.8, shortest: 0.02 };

/** A bar with discs standing on it, one of them moved up by so much. */
const discsOnBar = (raised: number): Region =>
  union([
    [rectangle(0, -4, 90, 6)],
    ...Array.from({ length: 8 }, (_, i) => [fineCircle(6 + i * 11, i === 3 ? 4 + raised : 4, 4, 90)]),
  ]);

const lengthOf = ({ boundary }: Sampled) =>
  Array.from({ length: boundary.edges }, (_, e) => edgeLength(boundary, e)).reduce((sum, length) => sum + length, 0);

const widthsOf = ({ bodies, necks }: WidthField) => ({
  bodies: bodies.length - necks.count,
  narrowest: Math.min(...Array.from({ length: necks.count }, (_, k) => necks.width[k]!)),
});

describe("samples of an outline that is mostly the same", () => {
  const base = sampleBoundary(boundaryOf(discsOnBar(0)), STEPS);
  const changed = sampleChange(base, boundaryOf(discsOnBar(0.7)), STEPS)!;

  it("contain the whole boundary, every ring closed", () => {
    const { boundary, mesh } = changed;
    expect(mesh.missing).toEqual([]);
    const whole = sampleBoundary(boundaryOf(discsOnBar(0.7)), STEPS);
    expect(lengthOf(changed)).toBeCloseTo(lengthOf(whole), 6);
    for (let e = 0; e < boundary.edges; e++) {
      expect(boundary.start[boundary.after[e]!]).toBe(boundary.end[e]);
      expect(boundary.before[boundary.after[e]!]).toBe(e);
      expect(Number.isFinite(boundary.x[boundary.end[e]!]!)).toBe(true);
    }
  });

  it("stay where they were wherever the outline has", () => {
    const place = ({ boundary }: Sampled, e: number) => `${boundary.x[boundary.end[e]!]} ${boundary.y[boundary.end[e]!]}`;
    const before = new Set(Array.from({ length: base.boundary.edges }, (_, e) => place(base, e)));
    const now = Array.from({ length: changed.boundary.edges }, (_, e) => place(changed, e));
    const kept = now.filter((each) => before.has(each)).length;
    expect(kept / now.length).toBeGreaterThan(0.8);
    expect(kept).toBeLessThan(now.length);
  });

  it("leave the samples they were made from as they were", () => {
    const again = sampleChange(base, boundaryOf(discsOnBar(0)), STEPS)!;
    expect([...again.boundary.x.subarray(0, again.boundary.points)]).toEqual([
      ...base.boundary.x.subarray(0, base.boundary.points),
    ]);
    expect(again.mesh.triangles.length).toBe(base.mesh.triangles.length);
  });

  it("give way to new ones where much is new, or far away", () => {
    expect(sampleChange(base, boundaryOf(normalise([fineCircle(0, 0, 9, 400)])), STEPS)).toBeNull();
    const far = [...discsOnBar(0), rectangle(900, 0, 4, 4)];
    expect(sampleChange(base, boundaryOf(far), STEPS)).toBeNull();
  });

  it.each([0.02, 0.4, 1.9, 3.9, 4.3])("measure the same widths as the whole when a disc rises by %d mm", (raised) => {
    const from = measureWidths(discsOnBar(0));
    const region = discsOnBar(raised);
    const quick = widthsOf(measureWidths(region, undefined, { base: from }));
    const whole = widthsOf(measureWidths(region));
    // Bodies less necks is components less holes, whatever the samples.
    expect(quick.bodies).toBe(whole.bodies);
    // Sampled chords are at most a tenth longer than true ones.
    expect(quick.narrowest / whole.narrowest).toBeGreaterThan(0.9);
    expect(quick.narrowest / whole.narrowest).toBeLessThan(1.1);
  });
});
