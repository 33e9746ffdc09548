import { describe, expect, it } from "vitest";
import { type Box, normalise } from "../geometry";
import { measureWidths } from "../measure";
import { STOCKS } from "../piece";
import { rectangle } from "../tests/shapes";
import { frameOf } from "./frame";
import { grainOf, hankinson, strengthAcross } from "./grain";
import { materialOf } from "./material";

const walnut = STOCKS.find(({ id }) => id === "walnut-6")!;
const degrees = (angle: number) => (angle * Math.PI) / 180;

describe("Hankinson's formula", () => {
  it("is what it is along and across, and 2·P·Q / (P + Q) at 45°", () => {
    for (const across of [0.04, 0.1, 0.3]) {
      expect(hankinson(across, 0)).toBeCloseTo(1, 12);
      expect(hankinson(across, degrees(90))).toBeCloseTo(across, 12);
      expect(hankinson(across, degrees(-135))).toBeCloseTo((2 * across) / (1 + across), 12);
      expect(hankinson(across, degrees(30))).toBeCloseTo(across / (0.25 + 0.75 * across), 12);
    }
    // The curve for Q/P of 0.1 in the Wood Handbook's chart of Hankinson's formula: about a third at 25°, under a fifth at 45° (from memory).
    expect(hankinson(0.1, degrees(25))).toBeGreaterThan(0.3);
    expect(hankinson(0.1, degrees(25))).toBeLessThan(0.42);
    expect(hankinson(0.1, degrees(45))).toBeLessThan(0.2);
  });

  it("belongs to sheets with a grain; their strength across is measured, or a tenth", () => {
    expect(grainOf(STOCKS[0]!, 0)).toBeUndefined();
    expect(grainOf(walnut, 90)).toMatchObject({ direction: Math.PI / 2, strength: 0.1 });
    expect(grainOf({ ...walnut, strengthAcross: 40 }, 0)!.strength).toBeCloseTo(0.4, 9);
    expect([strengthAcross(walnut), strengthAcross({ ...walnut, strengthAcross: 40 })]).toEqual([10, 40]);
  });
});

describe("a strip of wood", () => {
  const held: Box = { minX: -1, minY: -1, maxX: 2, maxY: 70 };
  const strip = [rectangle(0, 0, 60, 4)];
  const bent = (grain: number) =>
    frameOf(measureWidths(strip).medial(), materialOf(walnut, grain), [held]).bend({ x: 60, y: 2, force: [0, 1, 0] });
  const plain = frameOf(measureWidths(strip).medial(), { ...materialOf(walnut), grain: undefined }, [held]).bend({
    x: 60,
    y: 2,
    force: [0, 1, 0],
  });

  it("along the grain is as without one; across it a tenth of the load breaks it, and it bends more", () => {
    expect(bent(0).worst.stress / plain.worst.stress).toBeCloseTo(1, 2);
    expect(bent(90).worst.stress / plain.worst.stress).toBeCloseTo(10, 1);
    expect(bent(45).worst.stress / plain.worst.stress).toBeCloseTo(5.5, 1);
    expect(bent(90).displacement[1] / plain.displacement[1]).toBeGreaterThan(8);
    expect(bent(-30).worst.stress).toBeCloseTo(bent(30).worst.stress, 1);
  });

  it("of two strokes alike, the one across the grain breaks first", () => {
    const ell = normalise([rectangle(0, 0, 4, 40), rectangle(0, 36, 40, 4)]);
    const corner: Box = { minX: -1, minY: 36, maxX: 4, maxY: 41 };
    const frame = (grain: number) => frameOf(measureWidths(ell).medial(), materialOf(walnut, grain), [corner]);
    const upright = { x: 2, y: 1, force: [1, 0, 0] } as const;
    const level = { x: 39, y: 38, force: [0, 1, 0] } as const;
    for (const grain of [0, 90]) {
      const [down, right] = [frame(grain).bend(upright).worst.stress, frame(grain).bend(level).worst.stress];
      if (grain === 0) expect(down).toBeGreaterThan(5 * right);
      else expect(right).toBeGreaterThan(5 * down);
    }
  });
});
