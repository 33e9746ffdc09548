/**
 * The handle that turns the ornament or the drawing in the hand about its middle.
 */
import type { Examination } from "@mend-joint/core";
import { joinBoxes, regionBox } from "@mend-joint/core/geometry";
import { applyMove, canTurn, type Piece } from "@mend-joint/core/piece";
import type { KeyboardEvent } from "react";
import { useBench } from "../state/bench";
import { asRun, usePiece } from "../state/piece";
import { nudgeOf } from "../ui/arrows";
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
  const own = [...examination.solids, ...examination.ghosts].filter(({ partId }) => partId === id);
  const box = joinBoxes(own.map(({ region }) => regionBox(region)));
  if (!part || !box || !canTurn(part)) return null;
  const corner = toScreen(view, size, { x: box.maxX, y: box.maxY });
  const [x, y] = [corner.x + AWAY, corner.y - AWAY];
  const title = `Turn the ${part.name}`;
  const onKeyDown = (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    if (!nudge) return;
    event.preventDefault();
    event.stopPropagation();
    const turn = STEP * (nudge.dx < 0 || nudge.dy > 0 ? 1 : -1);
    asRun(`arrows ${title} ${id}`, () => usePiece.getState().change((old) => applyMove(old, { what: "turn part", id, turn })));
  };
  return (
    <g className="cursor-grab active:cursor-grabbing">
      <circle
        data-turn-part={id}
        cx={x}
        cy={y}
        r={9}
        fill="var(--color-film)"
        stroke="var(--color-focus)"
        strokeWidth={2}
        role="button"
        tabIndex={0}
        aria-label={title}
        onKeyDown={onKeyDown}
      >
        <title>{title} about its middle</title>
      </circle>
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
