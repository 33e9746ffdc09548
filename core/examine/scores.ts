/**
 * Score lines: where letters meet, the edges that the weld has swallowed; and outlines that are to be scored.
 */
import { boxesMeet, linesWithin, type Region, regionBox, trimLine } from "../geometry";
import type { Piece, Word } from "../piece";
import type { Solid } from "./solids";

/** A line to be scored, and the letter or the drawing whose edge it is. */
export interface ScoreLine {
  id: string;
  line: Float64Array;
}

/** Lines end this far before the edge of the material (mm), so that they do not nick it. */
const TRIM = 0.3;
/** Shorter ones are not worth the laser's while, mm. */
const SHORTEST = 0.8;

/** Of outlines that are scored, what lies on the material. */
export function scoreOutlines(outlines: readonly Pick<Solid, "id" | "region">[], material: Region): ScoreLine[] {
  return outlines.flatMap(({ id, region }) =>
    region
      .flatMap((ring) => linesWithin(ring, material))
      .filter((line) => lengthOf(line) >= SHORTEST)
      .map((line) => ({ id, line })),
  );
}

/** Every letter lies over the ones before it: where it covers them, its own edge is scored. */
export function scoreLines(piece: Piece, solids: readonly Solid[]): ScoreLine[] {
  const scored = new Map(
    piece.parts.filter((part): part is Word => part.kind === "word" && part.score).map((word) => [word.id, word]),
  );
  if (scored.size === 0) return [];
  const letters = solids.filter(({ letterId, partId }) => letterId && scored.has(partId));
  return letters.flatMap((letter, i): ScoreLine[] => {
    const { partId, letterId, region } = letter;
    const key = letterId!.slice(partId.length + 1);
    if (scored.get(partId)!.changes[key]?.score === false) return [];
    const box = regionBox(region);
    const under = letters.slice(0, i).filter((other) => other.letterId !== letterId && boxesMeet(box, regionBox(other.region)));
    return under.flatMap((other) =>
      region
        .flatMap((ring) => linesWithin(ring, other.region))
        .flatMap((line) => trimLine(line, TRIM) ?? [])
        .filter((line) => lengthOf(line) >= SHORTEST)
        .map((line) => ({ id: letterId!, line })),
    );
  });
}

function lengthOf(line: Float64Array): number {
  let length = 0;
  for (let i = 2; i < line.length; i += 2) length += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  return length;
}
