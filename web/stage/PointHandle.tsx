import type { Point } from "@mend-joint/core/geometry";
import { applyMove, type Move } from "@mend-joint/core/piece";
import type { KeyboardEvent } from "react";
import { useBench } from "../state/bench";
import { asRun, usePiece } from "../state/piece";
import { nudgeOf } from "../ui/arrows";

interface Props {
  /** Place on the stage, px. */
  at: Point;
  title: string;
  /** What a pull moves. */
  moves: Omit<Extract<Move, { what: "node" }>, "dx" | "dy"> | Omit<Extract<Move, { what: "end" }>, "dx" | "dy">;
  /** What the Delete key does. */
  onRemove?(): void;
}

/** A point that can be pulled by itself, and moved by the arrow keys: of a curve, or an end of a tie. */
export function PointHandle({ at, title, moves, onRemove }: Props) {
  const taken =
    moves.what === "node" ? { "data-node": `${moves.wordId} ${moves.index}` } : { "data-end": `${moves.id} ${moves.index}` };
  const onKeyDown = (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    const removes = onRemove && (event.key === "Delete" || event.key === "Backspace");
    if (!nudge && !removes) return;
    // Else the whole part would go as well.
    event.preventDefault();
    event.stopPropagation();
    if (removes) return onRemove();
    asRun(`arrows ${title}`, () => usePiece.getState().change((piece) => applyMove(piece, { ...moves, ...nudge! })));
  };
  return (
    <circle
      {...taken}
      cx={at.x}
      cy={at.y}
      r={7}
      fill="var(--color-film)"
      stroke="var(--color-focus)"
      strokeWidth={2}
      className="cursor-grab active:cursor-grabbing"
      role="button"
      tabIndex={0}
      aria-label={title}
      onKeyDown={onKeyDown}
      onFocus={() => moves.what === "node" && useBench.setState({ selection: { solids: [], move: moves } })}
    >
      <title>{title}</title>
    </circle>
  );
}
