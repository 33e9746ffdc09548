/**
 * A piece and its mirrored twin, side by side.
 */
import type { Examination } from "../examine";
import { type Box, type Matrix, type Region, regionBox, transformRegion, transformRing, translateRegion } from "../geometry";
import type { Piece } from "../piece";

export interface Sheet {
  material: Region;
  engrave: Region;
  /** Open lines. */
  score: Float64Array[];
  box: Box | null;
}

/** What is cut and engraved: the piece, and beside it its twin where it is one of a pair. */
export function sheetOf(
  { pair }: Pick<Piece, "pair">,
  { material, ghosts, scores, box }: Pick<Examination, "material" | "ghosts" | "scores" | "box">,
): Sheet {
  const engrave = ghosts.flatMap(({ as, region }) => (as === "engrave" ? region : []));
  const score = scores.map(({ line }) => line);
  if (!pair || !box) return { material, engrave, score, box };
  const mirror = twinMatrix(box, pair.gap);
  const twin = transformRegion(material, mirror);
  return {
    material: [...material, ...twin],
    engrave: [...engrave, ...twinEngraving(engrave, mirror, pair.engraving)],
    score: [...score, ...score.map((line) => transformRing(line, mirror))],
    box: { ...box, maxX: box.maxX + pair.gap + (box.maxX - box.minX) },
  };
}

/** Mirrored about the middle of the gap to the right of the piece. */
export function twinMatrix({ maxX }: Box, gap: number): Matrix {
  return [-1, 0, 0, 1, 2 * maxX + gap, 0];
}

/** Readable engraving lies where the mirrored one would, unmirrored. */
function twinEngraving(engrave: Region, mirror: Matrix, mode: "readable" | "mirrored"): Region {
  const mirrored = transformRegion(engrave, mirror);
  const [own, there] = [regionBox(engrave), regionBox(mirrored)];
  return mode === "mirrored" || !own || !there ? mirrored : translateRegion(engrave, there.minX - own.minX, 0);
}
