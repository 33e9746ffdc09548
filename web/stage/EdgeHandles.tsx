/**
 * Handles on the edges of the holder or shape in the hand: pulled outwards they make it larger.
 */
import type { Examination } from "@mend-joint/core";
import type { Box, Point } from "@mend-joint/core/geometry";
import { type Piece, type Side, sidesOf } from "@mend-joint/core/piece";
import { boxOfDrawn, useBench } from "../state/bench";
import { type Size, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  piece: Piece;
  view: View;
  size: Size;
}

export function EdgeHandles({ examination, piece, view, size }: Props) {
  const selection = useBench((state) => state.selection);
  const move = useBench((state) => state.move);
  if (selection?.move.what !== "holder" || (move && move.what !== "size")) return null;
  const { id } = selection.move;
  const part = piece.parts.find((each) => each.id === id);
  const box = boxOfDrawn(examination, id);
  if (!part || !box) return null;
  return sidesOf(part).map((side) => {
    const at = toScreen(view, size, middleOf(box, side));
    const [x, y] = side === "right" ? [at.x + AWAY, at.y] : [at.x, at.y + (side === "top" ? -AWAY : AWAY)];
    return (
      <g key={side} className={side === "right" ? "cursor-ew-resize" : "cursor-ns-resize"}>
        <title>{TITLES[side]}</title>
        <rect
          data-edge={`${id} ${side}`}
          x={x - 7}
          y={y - 7}
          width={14}
          height={14}
          rx={4}
          fill="var(--color-film)"
          stroke="var(--color-focus)"
          strokeWidth={2}
        />
        <path
          d={side === "right" ? `M${x - 2} ${y - 3}v6M${x + 2} ${y - 3}v6` : `M${x - 3} ${y - 2}h6M${x - 3} ${y + 2}h6`}
          stroke="var(--color-focus)"
          strokeWidth={1.5}
          pointerEvents="none"
        />
      </g>
    );
  });
}

/** Pixels between the edge and its handle, so that the part itself can still be taken. */
const AWAY = 12;

const TITLES: Record<Side, string> = {
  right: "Pull to make it wider",
  top: "Pull to make it higher",
  bottom: "Pull to make it reach lower",
};

function middleOf({ minX, minY, maxX, maxY }: Box, side: Side): Point {
  if (side === "right") return { x: maxX, y: (minY + maxY) / 2 };
  return { x: (minX + maxX) / 2, y: side === "top" ? maxY : minY };
}
