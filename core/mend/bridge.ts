/**
 * An ornament put where it joins the most of what is loose or weak.
 */
import { type Examination, examine, type Library } from "../examine";
import { joinBoxes, type Point, regionBox } from "../geometry";
import { openFindings } from "../judge";
import type { Ornament, Piece } from "../piece";
import { round } from "./scene";
import { anchorEnd } from "./ties";

/** Places that are tried at most. */
const TRIED = 24;

/** @returns where the ornament's middle should be, with the letter it follows; `null` where it helps nowhere */
export function bridgePlace(piece: Piece, ornamentId: string, library: Library): Ornament["at"] | null {
  const ornament = piece.parts.find((part): part is Ornament => part.kind === "ornament" && part.id === ornamentId);
  if (!ornament) return null;
  const without = examine({ ...piece, parts: piece.parts.filter((part) => part !== ornament) }, library, { notes: false });
  let best: { at: Ornament["at"]; worth: number } | null = null;
  for (const place of placesIn(without).slice(0, TRIED)) {
    const at = anchorEnd({ x: round(place.x), y: round(place.y) }, without);
    const parts = piece.parts.map((part): Piece["parts"][number] =>
      part === ornament ? { ...ornament, meets: "add", at } : part,
    );
    const worth = worthOf(examine({ ...piece, parts }, library, { notes: false, base: without }));
    if (!best || worth > best.worth) best = { at, worth };
  }
  return best && best.worth > worthOf(without) ? best.at : null;
}

/** Fewer separate pieces, then fewer findings. */
const worthOf = ({ cutouts, findings }: Examination) => -1000 * cutouts.length - openFindings(findings).length;

/** Gaps of what is loose, thin joints, and the spaces between neighbours. */
function placesIn({ findings, letters, solids }: Examination): Point[] {
  const middle = (from: Point, to: Point): Point => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
  const found = findings.flatMap(({ gap, chord }) =>
    gap ? [middle(gap.from, gap.to)] : chord ? [middle(chord.from, chord.to)] : [],
  );
  const boxes = letters.map((letter) => joinBoxes(letter.solids.map((i) => regionBox(solids[i]!.region))));
  const between = boxes.flatMap((box, i): Point[] => {
    const next = boxes[i + 1];
    if (!box || !next) return [];
    const x = (box.maxX + next.minX) / 2;
    const [low, high] = [Math.max(box.minY, next.minY), Math.min(box.maxY, next.maxY)];
    return [0.2, 0.5, 0.8].map((share) => ({ x, y: low + (high - low) * share }));
  });
  return [...found, ...between];
}
