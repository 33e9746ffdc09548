/**
 * Small numbers beside pieces on a sheet, as single lines: forty names can be told apart when they come off the machine.
 */
import { apartTest, type Box, boxDistance, type Matrix, type Region, regionBox, transformRegion } from "../geometry";
import { numberLines, numberWidth } from "../ornaments";
import type { Sheet } from "../report";
import { sheetWith } from "./sheets";

/** Height of a number, mm. */
const TALL = 3;
/** From a number to any material and to the edge of the sheet, mm. */
const CLEAR = 0.8;
/** A number farther from its piece would be taken for another's, mm. */
const FARTHEST = 8;
const STEP = 0.8;

export interface OnSheet {
  sheet: Sheet;
  matrix: Matrix;
  /** What stands beside it; `null` for nothing. */
  number: string | null;
}

/**
 * All that lies on a sheet, with the numbers of the pieces beside them; a piece without room around it has none.
 *
 * @param used what is gone of the sheet: nothing can be scored there
 */
export function numberSheet(pieces: readonly OnSheet[], page: { width: number; height: number }, used: Region = []): Sheet {
  const sheet = sheetWith(pieces);
  if (pieces.every(({ number }) => number === null)) return sheet;
  const regions = pieces.map(({ sheet: own, matrix }) => transformRegion(own.material, matrix));
  const obstacles = [...regions, used].map((region) => ({ box: regionBox(region), isApart: apartTest(region) }));
  const taken: Box[] = [];
  const score = [...sheet.score];
  pieces.forEach(({ number }, i) => {
    if (number === null) return;
    const at = placeFor(number, obstacles[i]!, obstacles, page, taken);
    if (!at) return;
    taken.push(at);
    score.push(...numberLines(number, TALL, { x: at.minX, y: at.minY }));
  });
  return { ...sheet, score };
}

/** What a number keeps clear of. */
interface Obstacle {
  box: Box | null;
  isApart: ReturnType<typeof apartTest>;
}

/** The clear place nearest to the piece. */
function placeFor(
  number: string,
  own: Obstacle,
  obstacles: readonly Obstacle[],
  page: { width: number; height: number },
  taken: readonly Box[],
): Box | null {
  const { box } = own;
  if (!box) return null;
  const width = numberWidth(number, TALL);
  const places: { at: Box; far: number }[] = [];
  for (let x = box.minX - width - FARTHEST; x <= box.maxX + FARTHEST; x += STEP) {
    for (let y = box.minY - TALL - FARTHEST; y <= box.maxY + FARTHEST; y += STEP) {
      const at = { minX: x, minY: y, maxX: x + width, maxY: y + TALL };
      const inside = Math.min(at.minX, at.minY, page.width - at.maxX, page.height - at.maxY) >= CLEAR;
      // Beside the piece before within its box, low before high.
      if (inside) places.push({ at, far: Math.hypot(boxDistance(at, box), 0.01 * (y - box.minY)) });
    }
  }
  places.sort((a, b) => a.far - b.far);
  const near = obstacles.filter((other) => other.box && boxDistance(other.box, box) < 2 * FARTHEST + width);
  for (const { at } of places) {
    if (taken.some((other) => boxDistance(other, at) < CLEAR)) continue;
    const corners = [Float64Array.from([at.minX, at.minY, at.maxX, at.minY, at.maxX, at.maxY, at.minX, at.maxY])];
    const clear = near.every(({ isApart }) => isApart(corners, CLEAR));
    if (clear && !own.isApart(corners, FARTHEST)) return at;
  }
  return null;
}
