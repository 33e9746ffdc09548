/**
 * The window through which the stage shows the piece: which point of it lies in the middle, and how large.
 */
import type { Box, Point } from "@mend-joint/core/geometry";

export interface View {
  /** Point of the piece in the middle of the stage, mm. */
  x: number;
  y: number;
  /** Screen pixels per mm. */
  scale: number;
}

export interface Size {
  width: number;
  height: number;
}

export const SCALE_LIMITS = { least: 0.2, most: 400 } as const;

export function clampScale(scale: number): number {
  return Math.min(SCALE_LIMITS.most, Math.max(SCALE_LIMITS.least, scale));
}

/** Shows all of a box, with some air around it. @param top height at the upper edge that it keeps clear of, px */
export function fitView(box: Box | null, { width, height: whole }: Size, air = 56, top = 0): View {
  const height = whole - top;
  if (!box) return { x: 0, y: 0, scale: clampScale(Math.min(width / 120, height / 80)) };
  const scale = Math.min(
    (width - 2 * air) / Math.max(1, box.maxX - box.minX),
    (height - 2 * air) / Math.max(1, box.maxY - box.minY),
  );
  const clamped = clampScale(Math.min(scale, 12));
  return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 + top / 2 / clamped, scale: clamped };
}

export function toScreen(view: View, size: Size, point: Point): Point {
  return { x: size.width / 2 + (point.x - view.x) * view.scale, y: size.height / 2 - (point.y - view.y) * view.scale };
}

export function toPiece(view: View, size: Size, point: Point): Point {
  return { x: view.x + (point.x - size.width / 2) / view.scale, y: view.y - (point.y - size.height / 2) / view.scale };
}

/** Zooms by a factor while the given screen point stays where it is. */
export function zoomAt(view: View, size: Size, at: Point, factor: number): View {
  const scale = clampScale(view.scale * factor);
  const fixed = toPiece(view, size, at);
  return { scale, x: fixed.x - (at.x - size.width / 2) / scale, y: fixed.y + (at.y - size.height / 2) / scale };
}

/** Distance between ruler marks: 1, 2 or 5 times a power of ten (or halves and quarters of an inch), at least `pixels` apart. */
export function rulerStep(scale: number, inches: boolean, pixels = 56): number {
  const unit = inches ? 25.4 : 1;
  const steps = inches
    ? [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 5, 10, 20, 50]
    : [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];
  const step = steps.find((each) => each * unit * scale >= pixels) ?? steps[steps.length - 1]!;
  return step * unit;
}
