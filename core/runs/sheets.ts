/**
 * Pieces of a run on sheets, as what is cut and marked there.
 */
import { type Matrix, regionBox, transformRegion, transformRing } from "../geometry";
import type { Sheet } from "../report";

/** All that lies on a sheet as one drawing. */
export function sheetWith(pieces: readonly { sheet: Sheet; matrix: Matrix }[]): Sheet {
  const material = pieces.flatMap(({ sheet, matrix }) => transformRegion(sheet.material, matrix));
  return {
    material,
    engrave: pieces.flatMap(({ sheet, matrix }) => transformRegion(sheet.engrave, matrix)),
    score: pieces.flatMap(({ sheet, matrix }) => sheet.score.map((line) => transformRing(line, matrix))),
    box: regionBox(material),
  };
}
