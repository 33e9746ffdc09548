import { type Piece, pieceBounds } from "@mend-joint/core/piece";
import { type FinishChoiceKey, finishSentence } from "@mend-joint/core/wording";
import { toast } from "sonner";
import { keepOnShelf } from "../bring/keep";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { Sentence } from "../ui/Sentence";
import { outlineOf } from "../workers/examiner";

/** The largest size that the finished piece may have, and whether it is one of a pair. */
export function FinishedPiece({ piece }: { piece: Piece }) {
  const { limit, pair } = piece;
  const units = useBench((state) => state.units);
  const setPair = (next: Piece["pair"]) => usePiece.getState().change((old) => ({ ...old, pair: next }));
  const set = (next: Piece["limit"]) => usePiece.getState().change((old) => ({ ...old, limit: next }));
  const keep = async () => {
    const outline = await outlineOf(piece).catch(() => null);
    if (outline) await keepOnShelf({ name: piece.name, ...outline });
    else toast("There is no outline that could be kept: nothing is cut yet, or it has too many nodes.");
  };
  const edit = (key: FinishChoiceKey) =>
    key === "limit" ? (
      <>
        <Choice
          label="The finished piece"
          value={limit ? "limited" : "any"}
          options={[
            { value: "any", text: "may have any size" },
            { value: "limited", text: "must fit a box" },
          ]}
          onChange={(value) => set(value === "limited" ? { width: 50.8, height: 50.8 } : undefined)}
        />
        {limit && (
          <div className="grid grid-cols-2 gap-4">
            <LengthField
              label="Box width"
              value={limit.width}
              {...pieceBounds("limit", "width")}
              onChange={(width) => set({ ...limit, width })}
            />
            <LengthField
              label="Box height"
              value={limit.height}
              {...pieceBounds("limit", "height")}
              onChange={(height) => set({ ...limit, height })}
            />
          </div>
        )}
      </>
    ) : (
      <>
        <Choice
          label="Cut"
          value={pair ? "pair" : "one"}
          options={[
            { value: "one", text: "once" },
            { value: "pair", text: "as a mirrored pair" },
          ]}
          onChange={(value) => setPair(value === "pair" ? { gap: 6, engraving: "readable" } : undefined)}
        />
        {pair && (
          <>
            <LengthField
              label="Between the two"
              value={pair.gap}
              {...pieceBounds("pair", "gap")}
              onChange={(gap) => setPair({ ...pair, gap })}
            />
            <Choice
              label="Engraving on the second"
              value={pair.engraving}
              options={[
                { value: "readable", text: "readable" },
                { value: "mirrored", text: "mirrored" },
              ]}
              onChange={(engraving) => setPair({ ...pair, engraving })}
            />
          </>
        )}
      </>
    );
  return (
    <div className="border-t border-rule pt-4">
      <Sentence
        about="the finished piece"
        subject="The finished piece"
        choices={finishSentence({ limit, pair }, units)}
        edit={edit}
      />
      <Button
        look="quiet"
        className="mt-1 -ml-3 h-8 px-3 text-[14px]"
        title="To lie on other pieces, as a drawing"
        onClick={() => void keep()}
      >
        Keep its outline on your shelf
      </Button>
    </div>
  );
}
