/** One press of an arrow key, mm; ten times as much with Shift. */
const NUDGE = 0.1;
const ARROWS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** How far an arrow key moves what is in the hand, mm; `null` for other keys. */
export function nudgeOf({ key, shiftKey }: Pick<KeyboardEvent, "key" | "shiftKey">): { dx: number; dy: number } | null {
  const arrow = ARROWS[key];
  const by = shiftKey ? NUDGE * 10 : NUDGE;
  return arrow ? { dx: arrow[0] * by, dy: arrow[1] * by } : null;
}
