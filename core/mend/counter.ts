/**
 * An ornament in the place of a letter's counter.
 */
import { examine, type Library } from "../examine";
import { backwards, ringArea } from "../geometry";
import { poleOf } from "../measure";
import type { Ornament, Piece } from "../piece";
import { round } from "./scene";

/** A star in a disc is so much of its diameter high. */
const SHARE = 0.9;

/**
 * @returns the middle of the letter's widest counter, and how high an ornament has room in it, mm; `null` where it has none
 */
export function counterPlace(
  piece: Piece,
  { wordId, key }: { wordId: string; key: string },
  library: Library,
): Pick<Ornament, "at" | "height"> | null {
  const { letters, solids } = examine(piece, library, { notes: false });
  const letter = letters.find((each) => each.wordId === wordId && each.key === key);
  if (!letter) return null;
  const counters = letter.solids.flatMap((i) => solids[i]!.region.filter((ring) => ringArea(ring) < 0));
  const [widest] = counters.flatMap((ring) => poleOf([backwards(ring)]) ?? []).sort((a, b) => b.width - a.width);
  if (!widest) return null;
  const { x, y } = letter.origin;
  return {
    at: { letter: { wordId, key }, x: round(widest.x - x), y: round(widest.y - y) },
    height: round(SHARE * widest.width),
  };
}
