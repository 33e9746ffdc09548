import { hasGrain, type Piece, startHoleFor } from "@mend-joint/core/piece";
import { type PaperChoiceKey, paperSentence } from "@mend-joint/core/wording";
import { useBench } from "../state/bench";
import { useCutting } from "../state/cutting";
import { usePiece } from "../state/piece";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { Sentence } from "../ui/Sentence";
import type { CutSheet } from "../workers/cutting";

/** The pattern that is glued onto the wood. */
export function PaperForm({ piece, sheet }: { piece: Piece; sheet: CutSheet | null }) {
  const { paper, landscape, hatch, drill } = useCutting();
  const grain = piece.grain ?? 0;
  const units = useBench((state) => state.units);
  const setting = {
    paper,
    landscape,
    hatch,
    drill: drill ?? startHoleFor(piece.stock),
    grain: hasGrain(piece.stock) ? grain : undefined,
  };
  const edit = (key: PaperChoiceKey) => {
    switch (key) {
      case "paper":
        return (
          <Choice
            label="Paper"
            value={paper}
            options={[
              { value: "a4", text: "A4" },
              { value: "letter", text: "Letter" },
            ]}
            onChange={(next) => useCutting.setState({ paper: next })}
          />
        );
      case "pages":
        return (
          <Choice
            label="Pages lie"
            value={landscape ? "landscape" : "portrait"}
            options={[
              { value: "portrait", text: "upright" },
              { value: "landscape", text: "across" },
            ]}
            onChange={(next) => useCutting.setState({ landscape: next === "landscape" })}
          />
        );
      case "hatch":
        return (
          <Choice
            label="What is cut away inside"
            value={hatch ? "hatched" : "plain"}
            options={[
              { value: "hatched", text: "hatched" },
              { value: "plain", text: "left white" },
            ]}
            onChange={(next) => useCutting.setState({ hatch: next === "hatched" })}
          />
        );
      case "drill":
        return (
          <LengthField
            label="Start holes"
            value={setting.drill}
            least={0.3}
            most={20}
            step={0.1}
            onChange={(next) => useCutting.setState({ drill: next })}
            hint="diameter of the drill"
          />
        );
      case "grain":
        return (
          <NumberField
            label="Grain"
            unit="°"
            value={grain}
            least={-90}
            most={90}
            step={5}
            onChange={(next) => usePiece.getState().change((before) => ({ ...before, grain: next }))}
            hint="0 runs along the lettering"
          />
        );
    }
  };
  return (
    <div className="flex flex-col gap-5">
      <p className="text-[13px] text-quiet">
        Outlines only, at true size, over as many pages as it takes. Print at 100 %, and check the 100 mm and 4 in on every page
        with a ruler.
      </p>
      <Sentence about="the pattern" subject="It" choices={paperSentence(setting, units)} edit={edit} />
      {sheet?.starts && <p className="text-[12px] text-quiet">{sheet.starts.holes.length} to drill, one in each void.</p>}
    </div>
  );
}
