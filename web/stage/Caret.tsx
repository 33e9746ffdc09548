import type { Examination } from "@mend-joint/core";
import { joinBoxes, regionBox } from "@mend-joint/core/geometry";
import { useBench } from "../state/bench";
import { type Size, toScreen, type View } from "./view";

/** Behind the letter in the hand: what is typed comes there. */
export function Caret({ examination, view, size }: { examination: Examination; view: View; size: Size }) {
  const selection = useBench((state) => state.selection);
  const moving = useBench((state) => state.move !== null);
  if (selection?.move.what !== "letter" || moving) return null;
  const { wordId, key } = selection.move;
  const layout = examination.words.find((word) => word.wordId === wordId);
  const letter = layout?.letters.find((each) => each.key === key);
  const box = letter && joinBoxes(letter.islands.map(({ region }) => regionBox(region)));
  if (!layout || !letter || !box) return null;
  // Along the letter's own upright, at the far side of its foot.
  const half = (box.maxX - box.minX) / 2 + 0.4;
  const [cos, sin] = [Math.cos(letter.angle), Math.sin(letter.angle)];
  const middle = (box.minX + box.maxX) / 2 - letter.foot.x;
  const foot = { x: letter.foot.x + (middle + half) * cos, y: letter.foot.y + (middle + half) * sin };
  const head = { x: foot.x - layout.capHeight * 1.05 * sin, y: foot.y + layout.capHeight * 1.05 * cos };
  const [a, b] = [toScreen(view, size, foot), toScreen(view, size, head)];
  return (
    <path
      d={`M${a.x} ${a.y}L${b.x} ${b.y}`}
      stroke="var(--color-focus)"
      strokeWidth={2}
      strokeLinecap="round"
      pointerEvents="none"
      className="caret"
      data-testid="caret"
    />
  );
}
