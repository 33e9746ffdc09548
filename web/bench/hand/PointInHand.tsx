import { addNode, LIMITS, removeNode, type Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { PlaceFigures } from "../PlaceFigures";
import { changePart } from "../parts";

/** A point of the curve that a line stands on. */
export function PointInHand({ word, index }: { word: Word; index: number }) {
  const { path } = word;
  const point = path?.kind === "curve" ? path.points[index] : undefined;
  if (path?.kind !== "curve" || !point) return null;
  const { points } = path;
  const set = (change: Partial<typeof point>) =>
    changePart<Word>(word.id, (old) =>
      old.path?.kind === "curve"
        ? {
            ...old,
            path: { ...old.path, points: old.path.points.map((each, i) => (i === index ? { ...each, ...change } : each)) },
          }
        : old,
    );
  return (
    <div className="flex flex-col gap-3">
      <h3 className="text-[14px] font-semibold">
        Point {index + 1} of {points.length} of the curve
      </h3>
      <PlaceFigures at={point} within={["word", "path", "curve", "points"]} onChange={set} />
      <div className="-mx-2 flex flex-wrap">
        <Button
          look="quiet"
          className="h-8 !px-2 text-[13px]"
          disabled={points.length >= LIMITS.nodes}
          onClick={() => usePiece.getState().change((piece) => addNode(piece, word.id, index))}
        >
          Add one after it
        </Button>
        <Button
          look="quiet"
          className="h-8 !px-2 text-[13px]"
          disabled={points.length <= 2}
          onClick={() => {
            usePiece.getState().change((piece) => removeNode(piece, word.id, index));
            useBench.setState({ selection: null });
          }}
        >
          Remove it
        </Button>
      </div>
      <p className="text-[12px] text-quiet">From the line’s own place. Drag it, or move it by the arrow keys.</p>
    </div>
  );
}
