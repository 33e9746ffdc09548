/**
 * The handle that turns the ornament or the drawing in the hand about its middle.
 */
import type { Examination } from "@mend-joint/core";
import { canTurn, type Piece } from "@mend-joint/core/piece";
import { boxOfDrawn, useBench } from "../state/bench";
import { RoundHandle, turnBy } from "./RoundHandle";
import { type Size, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  piece: Piece;
  view: View;
  size: Size;
}

/** Pixels from the corner of its box. */
const AWAY = 14;
/** By the arrow keys, degrees. */
const STEP = 1;

export function TurnPartHandle({ examination, piece, view, size }: Props) {
  const selection = useBench((state) => state.selection);
  const move = useBench((state) => state.move);
  if (selection?.move.what !== "holder" || move) return null;
  const { id } = selection.move;
  const part = piece.parts.find((each) => each.id === id);
  const box = boxOfDrawn(examination, id);
  if (!part || !box || !canTurn(part)) return null;
  const corner = toScreen(view, size, { x: box.maxX, y: box.maxY });
  const [x, y] = [corner.x + AWAY, corner.y - AWAY];
  const title = `Turn the ${part.name}`;
  return (
    <g>
      <RoundHandle
        at={{ x, y }}
        radius={9}
        title={title}
        hint={`${title} about its middle`}
        taken={{ "data-turn-part": id }}
        moves={(nudge) => ({ what: "turn part", id, turn: turnBy(nudge, STEP) })}
      />
      <path
        d={`M${x - 3.5} ${y + 1.5}a4 4 0 1 1 3.5 2.5m-3.5 -5.5v3h3`}
        fill="none"
        stroke="var(--color-focus)"
        strokeWidth={1.5}
        pointerEvents="none"
      />
    </g>
  );
}
