import { describe, expect, it } from "vitest";
import { coverageOf, placeCard } from "../stage/card";

const stage = { width: 700, height: 560 };
const card = { width: 236, height: 240 };
type Box = { minX: number; minY: number; maxX: number; maxY: number };
const covering = (boxes: readonly Box[]) =>
  coverageOf((x, y) => boxes.some((box) => x > box.minX && x < box.maxX && y > box.minY && y < box.maxY), stage);

describe("the card beside the hand", () => {
  const letters = Array.from({ length: 8 }, (_, i) => ({ minX: 100 + 60 * i, minY: 60, maxX: 150 + 60 * i, maxY: 160 }));

  it("lies under a row of letters, near the one it is about, and covers none", () => {
    const { x, y } = placeCard(card, letters[2]!, covering(letters), stage);
    expect(y).toBeGreaterThanOrEqual(160);
    expect(y).toBeLessThan(200);
    expect(x).toBeLessThan(letters[2]!.maxX);
    expect(x + card.width).toBeGreaterThan(letters[2]!.minX);
  });

  it("never covers what it is about while there is another place", () => {
    const held = { minX: 250, minY: 200, maxX: 450, maxY: 360 };
    const { x, y } = placeCard(card, held, covering([{ minX: 40, minY: 40, maxX: 690, maxY: 550 }]), stage);
    const apart = x + card.width <= held.minX || x >= held.maxX || y + card.height <= held.minY || y >= held.maxY;
    expect(apart).toBe(true);
  });

  it("lies in the middle of a ring rather than on its letters", () => {
    const ring = coverageOf((x, y) => Math.abs(Math.hypot(x - 350, y - 280) - 230) < 40, stage);
    const top = { minX: 330, minY: 20, maxX: 370, maxY: 80 };
    const { x, y } = placeCard({ width: 236, height: 200 }, top, ring, stage);
    expect(Math.hypot(x + 118 - 350, y + 100 - 280)).toBeLessThan(60);
  });

  it("stays on the stage, clear of the rulers, even where it hardly fits", () => {
    const { x, y } = placeCard({ width: 236, height: 700 }, letters[7]!, covering(letters), { width: 260, height: 300 });
    expect([x, y]).toEqual([32, 32]);
  });
});
