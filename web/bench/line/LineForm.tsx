import { usualTieWidth, type Word } from "@mend-joint/core/piece";
import { type LineChoiceKey, lineSentence } from "@mend-joint/core/wording";
import { Copy, Hand, Trash2 } from "lucide-react";
import { useEffect, useRef } from "react";
import { useBench, wholeLine } from "../../state/bench";
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

interface Props {
  word: Word;
  only: boolean;
  first: boolean;
}

/** What is decided about a line, as a sentence. */
export function LineSentence({ word, only, first }: Props) {
  const units = useBench((state) => state.units);
  const leastWidth = useBench((state) => usualTieWidth(state.examination?.leastWidth ?? 1.5));
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
    <Sentence about={`the line ${word.text}`} choices={lineSentence(word, { units, only, first, leastWidth })} edit={edit} />
  );
}

/** A line of the piece: its text, and what is decided about it. */
export function LineForm({ word, only, first }: Props) {
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    if (only && input.current?.value === "") input.current.focus();
  }, [only]);

  return (
    <div className="flex flex-col gap-2">
      <TextField
        word={word}
        label="Word or line"
        input={input}
        beside={(insert) => (
          <>
            <SymbolMenu word={word} onPick={insert} />
            {word.text !== "" && (
              <button
                type="button"
                data-hand
                aria-label={`Take the line ${word.text} in the hand`}
                title="Take the whole line in the hand: arrow keys move it"
                className="p-1.5 text-quiet hover:text-ink"
                onClick={() => useBench.setState({ selection: wholeLine(useBench.getState().examination, word.id) })}
              >
                <Hand size={15} />
              </button>
            )}
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
      <LineSentence word={word} only={only} first={first} />
    </div>
  );
}
