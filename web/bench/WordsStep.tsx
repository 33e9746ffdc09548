import { changeLetter, graphemesOf, LIMITS, type Piece, retype, UNCHANGED_LETTER, type Word } from "@mend-joint/core/piece";
import { Plus, Trash2 } from "lucide-react";
import { useEffect, useId, useRef, useState } from "react";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { Letterforms } from "./Letterforms";
import { addPart, changePart, removePart, roomForParts } from "./parts";

export function WordsStep({ piece }: { piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const last = words[words.length - 1];
  const addLine = () => {
    const drop = last ? lineHeight(last) : 0;
    const at = last ? { x: last.at.x, y: Math.max(-LIMITS.reach, last.at.y - drop) } : { x: 0, y: 0 };
    const size = last?.size.by === "cap-height" ? last.size : { by: "cap-height", mm: 25 };
    addPart(piece, { kind: "word", text: "", font: last?.font ?? "pacifico", size, at }, "w1");
  };
  return (
    <div className="flex flex-col gap-6">
      {words.map((word) => (
        <WordForm key={word.id} word={word} only={words.length === 1} />
      ))}
      <Button look="quiet" className="-ml-3 self-start" disabled={!roomForParts(piece)} onClick={addLine}>
        <Plus size={16} aria-hidden="true" /> {words.length === 0 ? "Add a word" : "Add a line"}
      </Button>
      <LetterMove words={words} />
    </div>
  );
}

/** A next line comes close enough that its capitals nearly touch the baseline above. */
const lineHeight = (word: Word) => (word.size.by === "cap-height" ? word.size.mm * 1.35 : 30);

function WordForm({ word, only }: { word: Word; only: boolean }) {
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
      <Choice
        label="Size by"
        value={word.size.by}
        options={[
          { value: "cap-height", text: "height of capitals" },
          { value: "width", text: "finished width" },
        ]}
        onChange={(by) => changePart<Word>(word.id, (old) => ({ ...old, size: convertSize(old, by) }))}
      />
      <div className="grid grid-cols-2 gap-4">
        <LengthField
          label={word.size.by === "width" ? "Width" : "Capitals"}
          value={word.size.mm}
          least={2}
          most={word.size.by === "width" ? 1000 : 500}
          step={1}
          onChange={(mm) => changePart<Word>(word.id, (old) => ({ ...old, size: { ...old.size, mm } }))}
        />
        {word.overlap === undefined ? (
          <LengthField
            label="Letter spacing"
            value={word.tracking}
            least={-50}
            most={50}
            step={0.1}
            onChange={(tracking) => changePart<Word>(word.id, (old) => ({ ...old, tracking }))}
          />
        ) : (
          <LengthField
            label="Overlap"
            value={word.overlap}
            least={-50}
            most={50}
            step={0.1}
            onChange={(overlap) => changePart<Word>(word.id, (old) => ({ ...old, overlap }))}
          />
        )}
      </div>
      <Choice
        label="Letters stand"
        value={word.overlap === undefined ? "font" : "overlap"}
        options={[
          { value: "font", text: "as in the font" },
          { value: "overlap", text: "overlapped" },
        ]}
        onChange={(way) =>
          changePart<Word>(word.id, ({ overlap: _, ...old }) => (way === "overlap" ? { ...old, overlap: 0.8 } : old))
        }
      />
      {word.overlap !== undefined && (
        <p className="-mt-1 text-[12px] text-quiet">
          Every two neighbours reach into each other by the same amount, measured on their outlines. Below 0 a gap is left.
        </p>
      )}
      {!only && <LinePlace word={word} />}
      <Choice
        label="Dots and accents"
        value={word.dots}
        options={[
          { value: "leave", text: "as in the font" },
          { value: "bite", text: "joined" },
        ]}
        onChange={(dots) => changePart<Word>(word.id, (old) => ({ ...old, dots }))}
      />
    </div>
  );
}

/** Where a line stands among the others. */
function LinePlace({ word }: { word: Word }) {
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

/** Switching how the size is stated keeps the size. */
function convertSize(word: Word, by: Word["size"]["by"]): Word["size"] {
  if (by === word.size.by) return word.size;
  const layout = useBench.getState().examination?.words.find(({ wordId }) => wordId === word.id);
  if (!layout?.box) return { by, mm: by === "width" ? 120 : 25 };
  const width = layout.box.maxX - layout.box.minX;
  const round = (mm: number, most: number) => Math.min(most, Math.max(2, Math.round(mm * 100) / 100));
  return by === "width" ? { by, mm: round(width, 1000) } : { by, mm: round(layout.capHeight, 500) };
}

/** Exact figures for the letter in the hand. */
function LetterMove({ words }: { words: Word[] }) {
  const selection = useBench((state) => state.selection);
  const examination = useBench((state) => state.examination);
  if (!selection || selection.move.what === "holder" || selection.move.what === "word") return null;
  const { wordId, key, what } = selection.move;
  const word = words.find(({ id }) => id === wordId);
  const letter = examination?.letters.find((each) => each.wordId === wordId && each.key === key);
  if (!word || !letter) return null;
  const change = word.changes[key] ?? UNCHANGED_LETTER;
  const [x, y] = what === "dots" ? (["dotDx", "dotDy"] as const) : (["dx", "dy"] as const);
  const set = (field: keyof typeof change, mm: number) =>
    changePart<Word>(wordId, (old) => ({ ...old, changes: { ...old.changes, [key]: { ...change, [field]: mm } } }));
  const moved = change[x] !== 0 || change[y] !== 0;
  const incomplete = what === "letter" && (change.without ?? []).length > 0;
  return (
    <div className="border-t border-rule pt-4">
      <h3 className="text-[14px] font-semibold">
        {what === "dots" ? `Dot or accent of ${letter.text}` : `Letter ${letter.text}`}
        <span className="ml-2 font-normal text-quiet">in the hand</span>
      </h3>
      <div className="mt-2 grid grid-cols-2 gap-4">
        <LengthField
          label="Moved right"
          value={change[x]}
          least={-LIMITS.reach}
          most={LIMITS.reach}
          step={0.1}
          onChange={(mm) => set(x, mm)}
        />
        <LengthField
          label="Moved up"
          value={change[y]}
          least={-LIMITS.reach}
          most={LIMITS.reach}
          step={0.1}
          onChange={(mm) => set(y, mm)}
        />
      </div>
      {what === "letter" && <Letterforms word={word} letterKey={key} />}
      {incomplete && (
        <div className="mt-2 flex items-center justify-between gap-2 text-[13px]">
          <span>Pieces of it are left out</span>
          <Button
            look="quiet"
            className="h-8 shrink-0 px-3"
            onClick={() => usePiece.getState().change((old) => changeLetter(old, wordId, key, ({ without: _, ...rest }) => rest))}
          >
            Put them back
          </Button>
        </div>
      )}
      <div className="mt-2 flex items-center justify-between gap-2">
        <p className="text-[12px] text-quiet">Arrow keys move it 0.1 mm, with Shift 1 mm.</p>
        <Button
          look="quiet"
          className="h-8 px-3"
          disabled={!moved}
          onClick={() =>
            changePart<Word>(wordId, (old) => ({ ...old, changes: { ...old.changes, [key]: { ...change, [x]: 0, [y]: 0 } } }))
          }
        >
          Put back
        </Button>
      </div>
    </div>
  );
}
