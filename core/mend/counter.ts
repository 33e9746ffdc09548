/**
 * An ornament in the place of a letter's counter.
 */
import { examine, type Library } from "../examine";
import { backwards, farthestCorner, ringArea } from "../geometry";
import { ornamentOutline } from "../holders";
import { poleOf } from "../measure";
import type { Ornament, Piece, SymbolName } from "../piece";
import { round } from "./scene";

/** Of the room in the counter so much is used: the walls of the letter stay as wide as they were. */
const USED = 0.98;

/**
 * @returns the middle of the letter's widest counter, and how high the ornament may be to lie within the largest disc there, mm; `null` where
 *   the letter has none
 */
export function counterPlace(
  piece: Piece,
  { wordId, key }: { wordId: string; key: string },
  name: SymbolName,
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
    height: round((USED * widest.width) / acrossPerHeight(name)),
  };
}

/** Diameter of the disc about an ornament's middle that it just fits in, as a multiple of its height. */
function acrossPerHeight(name: SymbolName): number {
  const outline = ornamentOutline({ name, height: 1, turn: 0, mirror: false, round: 0 }, { x: 0, y: 0 });
  return 2 * (farthestCorner(outline, { x: 0, y: 0 })?.away ?? 0);
}
