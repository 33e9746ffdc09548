/**
 * The bridges of the cut-out word in the hand: each goes round the inside that it holds.
 */
import type { Examination } from "@mend-joint/core";
import { applyMove } from "@mend-joint/core/piece";
import type { KeyboardEvent } from "react";
import { useBench } from "../state/bench";
import { asRun, usePiece } from "../state/piece";
import { nudgeOf } from "../ui/arrows";
import { type Size, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  view: View;
  size: Size;
}

/** By the arrow keys, degrees. */
const STEP = 5;

export function BridgeHandles({ examination, view, size }: Props) {
  const selection = useBench((state) => state.selection);
  const move = useBench((state) => state.move);
  if (move && move.what !== "bridge") return null;
  if (!selection) return null;
  const { move: takes } = selection;
  const wordId = "wordId" in takes ? takes.wordId : takes.what === "letters" ? takes.letters[0]?.wordId : undefined;
  return examination.bridges
    .filter((bridge) => bridge.wordId === wordId)
    .map((bridge) => {
      const { key, hole, angle } = bridge;
      const [from, at] = [toScreen(view, size, bridge.from), toScreen(view, size, bridge.at)];
      const letter = examination.letters.find((each) => each.wordId === wordId && each.key === key);
      const title = `Bridge of ${letter?.text ?? "the letter"}`;
      const onKeyDown = (event: KeyboardEvent) => {
        const nudge = nudgeOf(event);
        if (!nudge) return;
        event.preventDefault();
        event.stopPropagation();
        const turn = STEP * (nudge.dx < 0 || nudge.dy > 0 ? 1 : -1);
        asRun(`arrows ${title} ${hole}`, () =>
          usePiece
            .getState()
            .change((piece) => applyMove(piece, { what: "bridge", wordId: bridge.wordId, key, hole, from: angle, turn })),
        );
      };
      return (
        <g key={`${key} ${hole}`}>
          <path d={`M${from.x} ${from.y}L${at.x} ${at.y}`} stroke="var(--color-focus)" strokeWidth={1} pointerEvents="none" />
          <circle
            data-bridge={`${bridge.wordId} ${key} ${hole}`}
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
          >
            <title>{title}: it goes round what it holds</title>
          </circle>
        </g>
      );
    });
}
