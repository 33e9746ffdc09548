/**
 * The bridges of the cut-out word in the hand: each goes round the inside that it holds.
 */
import type { Examination } from "@mend-joint/core";
import { useBench } from "../state/bench";
import { RoundHandle, turnBy } from "./RoundHandle";
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
  if (!selection || (move && move.what !== "bridge")) return null;
  const { move: takes } = selection;
  const wordId = "wordId" in takes ? takes.wordId : takes.what === "letters" ? takes.letters[0]?.wordId : undefined;
  return examination.bridges
    .filter((bridge) => bridge.wordId === wordId)
    .map((bridge) => {
      const { key, hole, angle } = bridge;
      const [from, at] = [toScreen(view, size, bridge.from), toScreen(view, size, bridge.at)];
      const letter = examination.letters.find((each) => each.wordId === wordId && each.key === key);
      const title = `Bridge of ${letter?.text ?? "the letter"}`;
      return (
        <g key={`${key} ${hole}`}>
          <path d={`M${from.x} ${from.y}L${at.x} ${at.y}`} stroke="var(--color-focus)" strokeWidth={1} pointerEvents="none" />
          <RoundHandle
            at={at}
            title={title}
            hint={`${title}: it goes round what it holds`}
            taken={{ "data-bridge": `${bridge.wordId} ${key} ${hole}` }}
            moves={(nudge) => ({
              what: "bridge",
              wordId: bridge.wordId,
              key,
              hole,
              from: angle,
              turn: turnBy(nudge, STEP),
            })}
          />
        </g>
      );
    });
}
