/**
 * The two ends of the tie in the hand: each is pulled by itself, and stays with the letter that it sits on.
 */
import type { Examination } from "@mend-joint/core";
import type { Piece, Tie } from "@mend-joint/core/piece";
import { placesOf, useBench } from "../state/bench";
import { PointHandle } from "./PointHandle";
import { type Size, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  piece: Piece;
  view: View;
  size: Size;
}

export function TieHandles({ examination, piece, view, size }: Props) {
  const selection = useBench((state) => state.selection);
  const move = useBench((state) => state.move);
  if (selection?.move.what !== "holder" || (move && move.what !== "end")) return null;
  const { id } = selection.move;
  const tie = piece.parts.find((part): part is Tie => part.kind === "tie" && part.id === id);
  const places = tie && placesOf(examination, tie);
  if (!places) return null;
  return places.map((place, index) => {
    const moved = move?.what === "end" && move.index === index;
    const at = toScreen(view, size, { x: place.x + (moved ? move.dx : 0), y: place.y + (moved ? move.dy : 0) });
    return (
      <PointHandle
        // biome-ignore lint/suspicious/noArrayIndexKey: ends have no name but their place
        key={index}
        moves={{ what: "end", id, index: index === 0 ? 0 : 1 }}
        at={at}
        title={index === 0 ? "First end of the tie" : "Second end of the tie"}
      />
    );
  });
}
