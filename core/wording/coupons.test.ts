import { describe, expect, it } from "vitest";
import type { LeastWidth } from "../coupon";
import { holeSentence, kerfSentence, leastSentence, strengthSentence } from "./coupons";

const share = () => 0.5;
const found = (at: number, to: number, sure: boolean): LeastWidth => ({
  kind: "found",
  rows: [{ row: "long across", at, from: 1.4, to }],
  count: 40,
  sure,
  share,
});

describe("what test pieces say", () => {
  it.each<[LeastWidth, string]>([
    [{ kind: "nothing" }, "No neck has been tried yet."],
    [{ kind: "too few", count: 1, wanted: 8 }, "One neck tells nothing sure; 8 are the least."],
    [{ kind: "too few", count: 5, wanted: 8 }, "Five necks tell nothing sure; 8 are the least."],
    [
      { kind: "all held", narrowest: 0.22 },
      "All necks held, down to 0.22 mm: it stays open where they break. Cut the next test piece, with narrower ones.",
    ],
    [
      { kind: "all broke", widest: 3.8 },
      "All necks broke, up to 3.80 mm: it stays open where they hold. Cut the next test piece, with wider ones.",
    ],
    [
      { kind: "contradictory", count: 40 },
      "Wide necks broke as often as narrow ones. Look through what you put in; if it is right, cut another test piece.",
    ],
    [
      found(1.72, 2.1, true),
      "95 of 100 necks hold from 1.72 mm on, as wide as they are after the cut (long arms across, between 1.4 mm and 2.1 mm).",
    ],
    [
      found(1.72, Number.POSITIVE_INFINITY, false),
      "95 of 100 necks hold from 1.72 mm on, as wide as they are after the cut (long arms across, 1.4 mm or more). That is not sure yet: cut the next test piece, whose necks lie where it is open.",
    ],
  ])("%o", (least, sentence) => {
    expect(leastSentence(least, "mm", true)).toBe(sentence);
    for (const units of ["mm", "in"] as const) expect(leastSentence(least, units, false)).not.toMatch(/NaN|undefined|Infinity/);
  });

  it("says when a cut cannot be, and when the machine makes up for it", () => {
    expect(kerfSentence(null, "mm", 3)).toBe("The gap beside the strips has not been read.");
    expect(kerfSentence({ mean: 0.18, spread: null, count: 1 }, "mm", 3)).toBe("The cut is 0.18 mm wide, from one reading.");
    expect(kerfSentence({ mean: 0.18, spread: 0.013, count: 3 }, "mm", 3)).toBe(
      "The cut is 0.18 mm wide, from three readings, ± 0.01 mm.",
    );
    expect(kerfSentence({ mean: -0.02, spread: null, count: 1 }, "mm", 3)).toContain("makes up for it");
    expect(kerfSentence({ mean: 0.9, spread: null, count: 1 }, "mm", 0.5)).toContain("wider than the sheet is thick");
  });

  it("names holes and strengths", () => {
    expect(holeSentence(null, "mm")).toBe("No hole has come out clean yet.");
    expect(holeSentence({ diameter: 0.6, contradictory: true }, "mm")).toContain("A smaller one did too");
    const along = { mean: 61.4, spread: 3.2, count: 2 };
    expect(strengthSentence({ along: null, across: null }, true)).toBe("No arm has been pulled yet.");
    expect(strengthSentence({ along, across: { mean: 24, spread: null, count: 1 } }, true)).toBe(
      "An arm broke at 61 N/mm² ± 3 along, 24 N/mm² across the grain.",
    );
  });
});
