import { describe, expect, it } from "vitest";
import { placeCard } from "../stage/card";

const stage = { width: 700, height: 560 };
const card = { width: 236, height: 240 };

describe("the card beside the hand", () => {
  const letters = Array.from({ length: 8 }, (_, i) => ({ minX: 100 + 60 * i, minY: 60, maxX: 150 + 60 * i, maxY: 160 }));

  it("lies under a row of letters, near the one it is about, and covers none", () => {
    const { x, y } = placeCard(card, letters[2]!, letters, stage);
    expect(y).toBeGreaterThanOrEqual(160);
    expect(y).toBeLessThan(200);
    expect(x).toBeLessThan(letters[2]!.maxX);
    expect(x + card.width).toBeGreaterThan(letters[2]!.minX);
  });

  it("never covers what it is about while there is another place", () => {
    const held = { minX: 250, minY: 200, maxX: 450, maxY: 360 };
    const { x, y } = placeCard(card, held, [{ minX: 40, minY: 40, maxX: 690, maxY: 550 }], stage);
    const apart = x + card.width <= held.minX || x >= held.maxX || y + card.height <= held.minY || y >= held.maxY;
    expect(apart).toBe(true);
  });

  it("stays on the stage, clear of the rulers, even where it hardly fits", () => {
    const { x, y } = placeCard({ width: 236, height: 700 }, letters[7]!, letters, { width: 260, height: 300 });
    expect([x, y]).toEqual([32, 32]);
  });
});
