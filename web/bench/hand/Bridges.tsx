import { type Piece, partBounds, putBridge } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { useBench } from "../../state/bench";
import { asRun, usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { bridgePlacesOf } from "../../workers/examiner";

/** Where the bridges of a cut-out letter stand. */
export function Bridges({ piece, wordId, letterKey: key }: { piece: Piece; wordId: string; letterKey: string }) {
  const all = useBench((state) => state.examination?.bridges);
  const own = (all ?? []).filter((bridge) => bridge.wordId === wordId && bridge.key === key);
  const set = (hole: number, angle: number | null) =>
    asRun(`bridge ${wordId} ${key} ${hole}`, () =>
      usePiece.getState().change((old) => putBridge(old, { wordId, key, hole }, angle)),
    );
  const elsewhere = async (hole: number, angle: number) => {
    const places = await bridgePlacesOf(piece, { wordId, key, hole });
    // The one after the place that it is at now, the best first.
    const now = places.findIndex((place) => Math.abs(place - angle) < 1);
    const next = places[(now + 1) % places.length];
    if (next === undefined || places.length < 2) toast("There is no other place where it would reach material.");
    else set(hole, next);
  };
  if (own.length === 0) return null;
  return (
    <div className="mt-3 flex flex-col gap-2">
      {own.map(({ hole, angle }) => (
        <div key={hole} className="flex items-end gap-2">
          <div className="min-w-0 flex-1">
            <NumberField
              label={own.length > 1 ? `Bridge ${hole + 1} stands at` : "Its bridge stands at"}
              value={Math.round(angle)}
              unit="°"
              {...partBounds("word", "changes", "turn")}
              onChange={(degrees) => set(hole, degrees)}
            />
          </div>
          <Button look="quiet" className="h-8 shrink-0 !px-2 text-[13px]" onClick={() => void elsewhere(hole, angle)}>
            Another place
          </Button>
        </div>
      ))}
    </div>
  );
}
