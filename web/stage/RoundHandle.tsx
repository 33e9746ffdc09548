/**
 * A round handle on the stage: pulled by the hand, moved by the arrow keys.
 */
import type { Point } from "@mend-joint/core/geometry";
import type { Move, Piece } from "@mend-joint/core/piece";
import { applyMove } from "@mend-joint/core/piece";
import type { KeyboardEvent } from "react";
import { asRun, usePiece } from "../state/piece";
import { nudgeOf } from "../ui/arrows";

/** What a press of an arrow key is: mm to the right and up. */
export type Nudge = NonNullable<ReturnType<typeof nudgeOf>>;

interface Props {
  /** Place on the stage, px. */
  at: Point;
  radius?: number;
  title: string;
  /** What the pointer is told besides the title. */
  hint?: string;
  /** By which the hand knows what it pulls (see `useHand`). */
  taken: Record<`data-${string}`, string>;
  /** The move that an arrow key makes. */
  moves(nudge: Nudge): Move;
  /** What the Delete key does. */
  onRemove?: ((piece: Piece) => Piece) | undefined;
  onFocus?(): void;
}

export function RoundHandle({ at, radius = 7, title, hint = title, taken, moves, onRemove, onFocus }: Props) {
  const onKeyDown = (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    const removes = onRemove && (event.key === "Delete" || event.key === "Backspace");
    if (!nudge && !removes) return;
    // Else the whole part would go as well.
    event.preventDefault();
    event.stopPropagation();
    if (removes) usePiece.getState().change(onRemove);
    else
      asRun(`arrows ${Object.values(taken).join()}`, () =>
        usePiece.getState().change((piece) => applyMove(piece, moves(nudge!))),
      );
  };
  return (
    <circle
      {...taken}
      cx={at.x}
      cy={at.y}
      r={radius}
      fill="var(--color-film)"
      stroke="var(--color-focus)"
      strokeWidth={2}
      className="cursor-grab active:cursor-grabbing"
      role="button"
      tabIndex={0}
      aria-label={title}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
    >
      <title>{hint}</title>
    </circle>
  );
}

/** Arrows to the left and up turn counter-clockwise. */
export const turnBy = ({ dx, dy }: Nudge, degrees: number): number => (dx < 0 || dy > 0 ? degrees : -degrees);
