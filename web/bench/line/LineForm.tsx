import { usualTieWidth, type Word } from "@mend-joint/core/piece";
import { type LineChoiceKey, lineSentence } from "@mend-joint/core/wording";
import { Copy, Trash2 } from "lucide-react";
import { useEffect, useRef } from "react";
import { useBench } from "../../state/bench";
import { copyLine } from "../../state/copied";
import { Sentence } from "../../ui/Sentence";
import { removePart } from "../parts";
import { SymbolMenu } from "../SymbolMenu";
import { DotsFields } from "./DotsFields";
import { MeetsFields } from "./MeetsFields";
import { PlaceFields } from "./PlaceFields";
import { RunFields } from "./RunFields";
import { SeparatorField } from "./SeparatorField";
import { SizeFields } from "./SizeFields";
import { SpacingFields } from "./SpacingFields";
import { TextField } from "./TextField";

/** A line of the piece: its text, and what is decided about it as a sentence. */
export function LineForm({ word, only, first }: { word: Word; only: boolean; first: boolean }) {
  const units = useBench((state) => state.units);
  const leastWidth = useBench((state) => usualTieWidth(state.examination?.leastWidth ?? 1.5));
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    if (only && input.current?.value === "") input.current.focus();
  }, [only]);

  const edit = (key: LineChoiceKey) => {
    switch (key) {
      case "size":
        return <SizeFields word={word} />;
      case "run":
        return <RunFields word={word} />;
      case "spacing":
        return <SpacingFields word={word} />;
      case "dots":
        return <DotsFields word={word} />;
      case "separator":
        return <SeparatorField word={word} />;
      case "place":
        return <PlaceFields word={word} first={first} />;
      case "meets":
        return <MeetsFields word={word} />;
    }
  };
  return (
    <div className="flex flex-col gap-2">
      <TextField
        word={word}
        label="Word or line"
        input={input}
        beside={(insert) => (
          <>
            <SymbolMenu onPick={insert} />
            {word.text !== "" && (
              <button
                type="button"
                aria-label={`Copy the line ${word.text}`}
                title="Copy this line, to put it into another piece"
                className="p-1.5 text-quiet hover:text-ink"
                onClick={() => copyLine(word)}
              >
                <Copy size={15} />
              </button>
            )}
            {!only && (
              <button
                type="button"
                aria-label={`Remove the line ${word.text}`}
                className="p-1.5 text-quiet hover:text-falls"
                onClick={() => removePart(word.id)}
              >
                <Trash2 size={15} />
              </button>
            )}
          </>
        )}
      />
      <Sentence about={`the line ${word.text}`} choices={lineSentence(word, { units, only, first, leastWidth })} edit={edit} />
    </div>
  );
}
