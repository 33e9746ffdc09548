/**
 * Where a card goes on the stage, pixels from its upper left corner.
 */
import type { Box } from "@mend-joint/core/geometry";
import type { Size } from "./view";

/** Rulers at the upper and left edge, buttons at the lower one. */
const EDGES = { top: 32, left: 32, right: 12, bottom: 56 };
/** Between the card and what it is about. */
const AIR = 16;
/** Places tried are so far apart. */
const STEP = 24;
/** What is covered of the piece counts as much as being so many times as far away. */
const COVERED = 0.15;
/** All of what is in the hand covered counts as much as being so many pixels away: no other place is as bad. */
const HELD = 1e5;

/** Material is looked for at places so far apart. */
const CELL = 12;

/** @returns the area of material in a box, about, px² */
export type Coverage = (box: Box) => number;

/** @param isMaterial whether there is material at a place of the stage */
export function coverageOf(isMaterial: (x: number, y: number) => boolean, stage: Size): Coverage {
  const [columns, rows] = [Math.ceil(stage.width / CELL), Math.ceil(stage.height / CELL)];
  // Sums over all that lies above and to the left (F. C. Crow, "Summed-area tables for texture mapping", SIGGRAPH 1984).
  const sums = new Float64Array((columns + 1) * (rows + 1));
  const at = (column: number, row: number) => column + row * (columns + 1);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const own = isMaterial((column + 0.5) * CELL, (row + 0.5) * CELL) ? CELL * CELL : 0;
      sums[at(column + 1, row + 1)] = own + sums[at(column, row + 1)]! + sums[at(column + 1, row)]! - sums[at(column, row)]!;
    }
  }
  return ({ minX, minY, maxX, maxY }) => {
    const cell = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value / CELL)));
    const [left, right] = [cell(minX, columns), cell(maxX, columns)];
    const [top, bottom] = [cell(minY, rows), cell(maxY, rows)];
    return sums[at(right, bottom)]! - sums[at(left, bottom)]! - sums[at(right, top)]! + sums[at(left, top)]!;
  };
}

/**
 * Of all places on the stage the one that is nearest to what is in the hand and covers little of the piece; what is in the hand only
 * where there is no other.
 */
export function placeCard(card: Size, held: Box, covered: Coverage, stage: Size): { x: number; y: number } {
  const [lastX, lastY] = [
    Math.max(EDGES.left, stage.width - EDGES.right - card.width),
    Math.max(EDGES.top, stage.height - EDGES.bottom - card.height),
  ];
  const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
  const columns = [held.minX - AIR - card.width, held.maxX + AIR, (held.minX + held.maxX - card.width) / 2, lastX];
  const rows = [held.minY - AIR - card.height, held.maxY + AIR, (held.minY + held.maxY - card.height) / 2, lastY];
  for (let x = EDGES.left; x < lastX; x += STEP) columns.push(x);
  for (let y = EDGES.top; y < lastY; y += STEP) rows.push(y);
  const grown = { minX: held.minX - AIR / 2, minY: held.minY - AIR / 2, maxX: held.maxX + AIR / 2, maxY: held.maxY + AIR / 2 };
  let best = { x: lastX, y: EDGES.top, cost: Infinity };
  for (const column of columns) {
    for (const row of rows) {
      const [x, y] = [clamp(column, EDGES.left, lastX), clamp(row, EDGES.top, lastY)];
      const place = { minX: x, minY: y, maxX: x + card.width, maxY: y + card.height };
      const away = Math.hypot(
        Math.max(0, place.minX - held.maxX, held.minX - place.maxX),
        Math.max(0, place.minY - held.maxY, held.minY - place.maxY),
      );
      const cost = away + COVERED * covered(place) + (HELD * common(place, grown)) / size(grown);
      if (cost < best.cost) best = { x, y, cost };
    }
  }
  return { x: Math.round(best.x), y: Math.round(best.y) };
}

const size = ({ minX, minY, maxX, maxY }: Box) => (maxX - minX) * (maxY - minY);

/** Does a card of a size lie clear of what is in the hand, and on the stage, at the place where it is? */
export function staysClear(at: { x: number; y: number }, card: Size, held: Box, stage: Size): boolean {
  const place = { minX: at.x, minY: at.y, maxX: at.x + card.width, maxY: at.y + card.height };
  return common(place, held) === 0 && place.maxX <= stage.width && place.maxY <= stage.height;
}

/** Area that two boxes have in common. */
function common(a: Box, b: Box): number {
  const width = Math.min(a.maxX, b.maxX) - Math.max(a.minX, b.minX);
  const height = Math.min(a.maxY, b.maxY) - Math.max(a.minY, b.minY);
  return Math.max(0, width) * Math.max(0, height);
}
