import type { Point } from "@mend-joint/core/geometry";
import type { Move, Piece } from "@mend-joint/core/piece";
import { useBench } from "../state/bench";
import { RoundHandle } from "./RoundHandle";

interface Props {
  /** Place on the stage, px. */
  at: Point;
  title: string;
  /** What a pull moves. */
  moves: Omit<Extract<Move, { what: "node" }>, "dx" | "dy"> | Omit<Extract<Move, { what: "end" }>, "dx" | "dy">;
  /** What the Delete key does. */
  onRemove?(piece: Piece): Piece;
}

/** A point that can be pulled by itself, and moved by the arrow keys: of a curve, or an end of a tie. */
export function PointHandle({ at, title, moves, onRemove }: Props) {
  const taken =
    moves.what === "node" ? { "data-node": `${moves.wordId} ${moves.index}` } : { "data-end": `${moves.id} ${moves.index}` };
  return (
    <RoundHandle
      at={at}
      title={title}
      taken={taken}
      moves={(nudge) => ({ ...moves, ...nudge })}
      onRemove={onRemove}
      onFocus={() => moves.what === "node" && useBench.setState({ selection: { solids: [], move: moves } })}
    />
  );
}
