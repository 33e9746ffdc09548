import { graphemesOf, LIMITS, type Piece, retype, type Word } from "@mend-joint/core/piece";
import { ClipboardPaste, Copy, Plus, Trash2 } from "lucide-react";
import { useEffect, useId, useRef, useState } from "react";
import { useBench } from "../state/bench";
import { copyLine, putLine, useCopied } from "../state/copied";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { Pick } from "../ui/Pick";
import { DOTS_WAYS } from "./dotsWays";
import { LetterInHand } from "./LetterInHand";
import { addPart, changePart, removePart, roomForParts } from "./parts";
import { SymbolRow } from "./SymbolRow";
import { WordLine } from "./WordLine";
import { WordSize } from "./WordSize";

export function WordsStep({ piece }: { piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const last = words[words.length - 1];
  const copied = useCopied();
  const addLine = () => {
    const drop = last ? lineHeight(last) : 0;
    const at = last ? { x: last.at.x, y: Math.max(-LIMITS.reach, last.at.y - drop) } : { x: 0, y: 0 };
    const size = last?.size.by === "cap-height" ? last.size : { by: "cap-height", mm: 25 };
    addPart({ kind: "word", text: "", font: last?.font ?? "pacifico", size, at }, "w1");
  };
  return (
    <div className="flex flex-col gap-6">
      {words.map((word, i) => (
        <WordForm key={word.id} word={word} only={words.length === 1} first={i === 0} />
      ))}
      <div className="-ml-3 flex flex-wrap gap-1">
        <Button look="quiet" disabled={!roomForParts(piece)} onClick={addLine}>
          <Plus size={16} aria-hidden="true" /> {words.length === 0 ? "Add a word" : "Add a line"}
        </Button>
        {copied && (
          <Button look="quiet" disabled={!roomForParts(piece)} onClick={() => putLine()}>
            <ClipboardPaste size={15} aria-hidden="true" /> Put in the copied line
          </Button>
        )}
      </div>
      <Limit piece={piece} />
      <LetterInHand words={words} />
    </div>
  );
}

/** The text with something put in where the writing mark is. */
function insertAt(input: HTMLInputElement | null, text: string, more: string): string {
  const at = input?.selectionStart ?? text.length;
  return text.slice(0, at) + more + text.slice(at);
}

/** The largest size that the finished piece may have, and whether it is one of a pair. */
function Limit({ piece: { limit, pair } }: { piece: Piece }) {
  const setPair = (next: Piece["pair"]) => usePiece.getState().change((old) => ({ ...old, pair: next }));
  const set = (next: Piece["limit"]) => usePiece.getState().change((old) => ({ ...old, limit: next }));
  return (
    <div className="flex flex-col gap-3 border-t border-rule pt-4">
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
            least={1}
            most={2000}
            onChange={(width) => set({ ...limit, width })}
          />
          <LengthField
            label="Box height"
            value={limit.height}
            least={1}
            most={2000}
            onChange={(height) => set({ ...limit, height })}
          />
        </div>
      )}
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
            least={0}
            most={500}
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
    </div>
  );
}

/** A next line comes close enough that its capitals nearly touch the baseline above. */
const lineHeight = (word: Word) => (word.size.by === "cap-height" ? word.size.mm * 1.35 : 30);

function WordForm({ word, only, first }: { word: Word; only: boolean; first: boolean }) {
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
    changePart<Word>(word.id, (old) => retype(old, text.replace(/[\r\n\u2028\u2029]+/g, " ")));
  };

  return (
    <div className="flex flex-col gap-3">
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
            className="w-full min-w-0 bg-transparent py-1.5 text-[17px] outline-none"
            placeholder="Type here"
            autoComplete="off"
            spellCheck={false}
            dir="auto"
          />
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
        <SymbolRow onPick={(symbol) => type(insertAt(input.current, word.text, symbol))} />
        {tooLong > 0 && (
          <p id={`${id}-note`} role="alert" className="mt-1 text-[12px] text-falls">
            That would be {tooLong} letters; a line can have {LIMITS.letters}. Your line was left as it is.
          </p>
        )}
      </div>
      <WordSize word={word} />
      <SpacingFields word={word} />
      <WordLine word={word} />
      {!only && <LinePlace word={word} first={first} />}
      <DotsFields word={word} />
      <MeetsFields word={word} />
    </div>
  );
}

type Spacing = "font" | "overlap" | "join";

const spacingOf = ({ join, overlap }: Word): Spacing =>
  join !== undefined ? "join" : overlap !== undefined ? "overlap" : "font";

/** How neighbours stand to each other. */
function SpacingFields({ word }: { word: Word }) {
  const spacing = spacingOf(word);
  const set = (change: Partial<Word>) => changePart<Word>(word.id, (old) => ({ ...old, ...change }));
  const choose = (next: Spacing) =>
    changePart<Word>(word.id, ({ overlap: _, join: __, ...old }) =>
      next === "overlap" ? { ...old, overlap: 0.8 } : next === "join" ? { ...old, join: 2 } : old,
    );
  return (
    <>
      <Pick
        label="Letters stand"
        value={spacing}
        options={[
          { value: "font", text: "as in the font" },
          { value: "overlap", text: "overlapped by a number" },
          { value: "join", text: "joined by a number" },
        ]}
        onChange={choose}
      />
      <div className="grid grid-cols-2 gap-4">
        {spacing === "join" && (
          <LengthField
            label="Joint width"
            value={word.join!}
            least={0.1}
            most={50}
            step={0.1}
            onChange={(join) => set({ join })}
          />
        )}
        {spacing === "overlap" && (
          <LengthField
            label="Overlap"
            value={word.overlap!}
            least={-50}
            most={50}
            step={0.1}
            onChange={(overlap) => set({ overlap })}
          />
        )}
        {spacing === "font" && (
          <LengthField
            label="Letter spacing"
            value={word.tracking}
            least={-50}
            most={50}
            step={0.1}
            onChange={(tracking) => set({ tracking })}
          />
        )}
      </div>
      {spacing === "overlap" && (
        <p className="-mt-1 text-[12px] text-quiet">
          Every two neighbours reach into each other by the same amount, measured on their outlines. Below 0 a gap is left.
        </p>
      )}
      {spacing === "join" && (
        <p className="-mt-1 text-[12px] text-quiet">
          Every two neighbours come together until the joint between them is so wide.
        </p>
      )}
    </>
  );
}

/** How the word meets what lies under it. */
function MeetsFields({ word }: { word: Word }) {
  return (
    <>
      <Pick
        label="The word is"
        value={word.meets}
        options={[
          { value: "add", text: "part of the piece" },
          { value: "halo", text: "in front, with a gap around it" },
          { value: "carve", text: "cut out of what lies under it" },
          { value: "engrave", text: "engraved" },
        ]}
        onChange={(meets) => changePart<Word>(word.id, (old) => ({ ...old, meets }))}
      />
      {(word.meets === "add" || word.meets === "halo") && (
        <Choice
          label="Where letters cover each other"
          value={word.score ? "score" : "none"}
          options={[
            { value: "none", text: "nothing is seen" },
            { value: "score", text: "their edge is scored" },
          ]}
          onChange={(value) => changePart<Word>(word.id, (old) => ({ ...old, score: value === "score" }))}
        />
      )}
      {word.meets === "halo" && (
        <LengthField
          label="Gap around it"
          value={word.gap}
          least={0.1}
          most={100}
          step={0.1}
          onChange={(gap) => changePart<Word>(word.id, (old) => ({ ...old, gap }))}
        />
      )}
    </>
  );
}

/** What is done about dots and accents. */
function DotsFields({ word }: { word: Word }) {
  const tied = word.dots === "tie" || word.dots === "slanted" || word.dots === "neighbour";
  const examination = useBench((state) => state.examination);
  return (
    <>
      <Pick
        label="Dots and accents"
        value={word.dots}
        options={DOTS_WAYS}
        onChange={(dots) => changePart<Word>(word.id, (old) => ({ ...old, dots }))}
      />
      {tied && (
        <LengthField
          label="Width of the ties"
          value={word.tieWidth ?? Math.round((examination?.leastWidth ?? 1.5) * 102) / 100}
          least={0.1}
          most={50}
          step={0.1}
          onChange={(tieWidth) => changePart<Word>(word.id, (old) => ({ ...old, tieWidth }))}
        />
      )}
    </>
  );
}

/** Where a line stands among the others. */
function LinePlace({ word, first }: { word: Word; first: boolean }) {
  const place = (at: Partial<Word["at"]>) => changePart<Word>(word.id, (old) => ({ ...old, at: { ...old.at, ...at } }));
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        <LengthField
          label="Line right"
          value={word.at.x}
          least={-LIMITS.reach}
          most={LIMITS.reach}
          onChange={(x) => place({ x })}
        />
        <LengthField label="Line up" value={word.at.y} least={-LIMITS.reach} most={LIMITS.reach} onChange={(y) => place({ y })} />
      </div>
      {!first && (
        <div className="grid grid-cols-2 gap-4">
          <Choice
            label="To the lines above"
            value={word.bitesBefore === undefined ? "free" : "bites"}
            options={[
              { value: "free", text: "free" },
              { value: "bites", text: "bites" },
            ]}
            onChange={(value) =>
              changePart<Word>(word.id, ({ bitesBefore: _, ...old }) => (value === "bites" ? { ...old, bitesBefore: 2.5 } : old))
            }
          />
          {word.bitesBefore !== undefined && (
            <LengthField
              label="Widest joint"
              value={word.bitesBefore}
              least={0.1}
              most={50}
              step={0.1}
              onChange={(bitesBefore) => changePart<Word>(word.id, (old) => ({ ...old, bitesBefore }))}
            />
          )}
        </div>
      )}
      <Choice
        label="Lined up by its"
        value={word.align}
        options={[
          { value: "left", text: "left end" },
          { value: "centre", text: "middle" },
          { value: "right", text: "right end" },
        ]}
        onChange={(align) => changePart<Word>(word.id, (old) => ({ ...old, align }))}
      />
      <p className="-mt-1 text-[12px] text-quiet">With Alt held, dragging a letter takes its whole line along.</p>
    </>
  );
}
