import { describe, expect, it } from "vitest";
import { clampScale, fitView, rulerStep, toPiece, toScreen, zoomAt } from "../stage/view";

const size = { width: 800, height: 500 };

describe("the window on the piece", () => {
  it("goes from piece to screen and back", () => {
    const view = { x: 12, y: -7, scale: 3.5 };
    for (const point of [
      { x: 0, y: 0 },
      { x: 100, y: -40 },
      { x: -3.25, y: 18 },
    ]) {
      const back = toPiece(view, size, toScreen(view, size, point));
      expect(back.x).toBeCloseTo(point.x, 9);
      expect(back.y).toBeCloseTo(point.y, 9);
    }
  });

  it("has y upwards: what is higher on the piece is higher on the screen", () => {
    const view = { x: 0, y: 0, scale: 2 };
    expect(toScreen(view, size, { x: 0, y: 10 }).y).toBeLessThan(toScreen(view, size, { x: 0, y: 0 }).y);
  });

  it("fits all of a box with air around it", () => {
    const box = { minX: -80, maxX: 85, minY: -92, maxY: 36 };
    const view = fitView(box, size);
    const low = toScreen(view, size, { x: box.minX, y: box.minY });
    const high = toScreen(view, size, { x: box.maxX, y: box.maxY });
    expect(low.x).toBeGreaterThanOrEqual(55);
    expect(high.x).toBeLessThanOrEqual(745);
    expect(high.y).toBeGreaterThanOrEqual(55);
    expect(low.y).toBeLessThanOrEqual(445);
  });

  it("shows an empty board, and never a single dot as large as the room", () => {
    expect(fitView(null, size).scale).toBeGreaterThan(0);
    expect(fitView({ minX: 0, maxX: 1, minY: 0, maxY: 1 }, size).scale).toBeLessThanOrEqual(12);
  });

  it("zooms about the pointer: what lies under it stays", () => {
    const view = { x: 5, y: 5, scale: 4 };
    const at = { x: 610, y: 120 };
    const before = toPiece(view, size, at);
    for (const factor of [1.4, 0.5, 7]) {
      const after = toPiece(zoomAt(view, size, at, factor), size, at);
      expect(after.x).toBeCloseTo(before.x, 9);
      expect(after.y).toBeCloseTo(before.y, 9);
    }
  });

  it("keeps zoom within bounds", () => {
    expect(clampScale(1e9)).toBe(400);
    expect(clampScale(0)).toBe(0.2);
  });
});

describe("rulers", () => {
  it.each([
    [0.5, 200],
    [3.6, 20],
    [40, 2],
    [400, 0.2],
  ])("at %f px per mm marks every %f mm", (scale, step) => {
    expect(rulerStep(scale, false)).toBeCloseTo(step, 9);
  });

  it("marks inches in halves, quarters, eighths and sixteenths", () => {
    for (const scale of [0.5, 1, 2, 4, 8, 20, 60]) {
      const inches = rulerStep(scale, true) / 25.4;
      expect([1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 5, 10, 20, 50]).toContain(Number(inches.toFixed(6)));
      expect(rulerStep(scale, true) * scale).toBeGreaterThanOrEqual(56);
    }
  });
});
