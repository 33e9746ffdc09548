import { graphemesOf, LIMITS, retype, usualTieWidth, type Word } from "@mend-joint/core/piece";
import { type LineChoiceKey, lineSentence } from "@mend-joint/core/wording";
import { Copy, Trash2 } from "lucide-react";
import { useEffect, useId, useRef, useState } from "react";
import { useBench } from "../../state/bench";
import { copyLine } from "../../state/copied";
import { asRun } from "../../state/piece";
import { Sentence } from "../../ui/Sentence";
import { changePart, removePart } from "../parts";
import { SymbolMenu } from "../SymbolMenu";
import { DotsFields } from "./DotsFields";
import { MeetsFields } from "./MeetsFields";
import { PlaceFields } from "./PlaceFields";
import { RunFields } from "./RunFields";
import { SeparatorField } from "./SeparatorField";
import { SizeFields } from "./SizeFields";
import { SpacingFields } from "./SpacingFields";

/** The text with something put in where the writing mark is. */
function insertAt(input: HTMLInputElement | null, text: string, more: string): string {
  const at = input?.selectionStart ?? text.length;
  return text.slice(0, at) + more + text.slice(at);
}

/** A line of the piece: its text, and what is decided about it as a sentence. */
export function LineForm({ word, only, first }: { word: Word; only: boolean; first: boolean }) {
  const units = useBench((state) => state.units);
  const leastWidth = useBench((state) => usualTieWidth(state.examination?.leastWidth ?? 1.5));
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const [tooLong, setTooLong] = useState(0);

  useEffect(() => {
    if (only && input.current?.value === "") input.current.focus();
  }, [only]);

  const type = (text: string) => {
    const letters = graphemesOf(text).length;
    // Refused whole rather than cut off: what is there stays as it was.
    if (letters > LIMITS.letters) return setTooLong(letters);
    setTooLong(0);
    asRun(`text of ${word.id}`, () => changePart<Word>(word.id, (old) => retype(old, text.replace(/[\r\n\u2028\u2029]+/g, " "))));
  };

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
      <div>
        <label htmlFor={id} className="block text-[13px] text-quiet">
          Word or line
        </label>
        <div className="flex items-center gap-1 border-b border-quiet/50 focus-within:border-ink">
          <input
            id={id}
            ref={input}
            value={word.text}
            onChange={(event) => type(event.target.value)}
            aria-describedby={tooLong ? `${id}-note` : undefined}
            aria-invalid={tooLong > 0}
            data-taken
            className="w-full min-w-0 bg-transparent py-1.5 text-[17px] outline-none"
            placeholder="Type here"
            autoComplete="off"
            spellCheck={false}
            dir="auto"
          />
          <SymbolMenu onPick={(symbol) => type(insertAt(input.current, word.text, symbol))} />
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
        </div>
        {tooLong > 0 && (
          <p id={`${id}-note`} role="alert" className="mt-1 text-[12px] text-falls">
            That would be {tooLong} letters; a line can have {LIMITS.letters}. Your line was left as it is.
          </p>
        )}
      </div>
      <Sentence about={`the line ${word.text}`} choices={lineSentence(word, { units, only, first, leastWidth })} edit={edit} />
    </div>
  );
}
