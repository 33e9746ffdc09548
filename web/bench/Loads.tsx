import type { Examination } from "@mend-joint/core";
import type { Piece } from "@mend-joint/core/piece";
import { labelsOf } from "@mend-joint/core/report";
import { bearsAll, type LetterLoad, usesThatCount } from "@mend-joint/core/strength";
import {
  fingerSentence,
  gramsText,
  heldSentence,
  inUseSentence,
  loadSentence,
  takesText,
  titleOf,
} from "@mend-joint/core/wording";
import { X } from "lucide-react";
import { Link } from "react-router";
import { exaggeration } from "../stage/Loads";
import { useBench } from "../state/bench";
import { Choice } from "../ui/Choice";
import { VerdictMark } from "../ui/VerdictMark";
import { MustBear } from "./MustBear";

const DIRECTIONS = [
  { value: "sideways", text: "sideways" },
  { value: "up and down", text: "up, down" },
  { value: "out of the sheet", text: "out of the sheet" },
] as const;

const drawn = (times: number) => (times === 1 ? "Drawn as far as it moves" : `Drawn ${times} times as far as it moves`);

/** What every letter takes, the weakest first; the one that is pushed, and what it does. */
export function Loads({ examination, piece }: { examination: Examination; piece: Piece }) {
  const loads = useBench((state) => state.loads);
  const finger = useBench((state) => state.finger);
  const fingered = useBench((state) => state.fingered);
  const units = useBench((state) => state.units);
  const labels = labelsOf(examination);
  const test = loads?.test;
  const inUse = test ? usesThatCount(test) : [];
  const before = new Map(loads?.before?.letters.map(({ id, takes }) => [id, takes]));
  return (
    <section id="findings" tabIndex={-1} aria-label="Load test" className="flex min-h-0 flex-1 flex-col outline-none">
      <h2 className="flex items-center justify-between px-5 pt-3 pb-1 font-display text-[17px] font-semibold">
        Load test
        <button
          type="button"
          aria-label="Back to the findings"
          className="grid size-8 place-items-center rounded-full text-quiet hover:bg-ink/8 hover:text-ink"
          onClick={() => useBench.setState({ show: "material" })}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </h2>
      <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-4">
        {loads === null && <p className="text-[14px] text-quiet">Working out what it bears …</p>}
        {loads?.fault && (
          <p role="alert" className="text-[14px] text-weak">
            {loads.fault}.
          </p>
        )}
        {test && (
          <>
            <div className="flex items-start gap-2" role="status" data-testid="load-verdict">
              <VerdictMark verdict={bearsAll(test) ? "holds" : "weak"} size={20} />
              <p className="text-[14px] leading-snug font-medium text-pretty">{loadSentence(test, labels)}</p>
            </div>
            <p className="mt-1.5 text-[13px] text-quiet">
              {heldSentence(test.held.by, piece.purpose)} It weighs {gramsText(test.grams)}. Press anywhere on the piece to push
              there.
            </p>
            {inUse.length > 0 && (
              <ul className="mt-2 flex flex-col gap-1 text-[13px]">
                {inUse.map((use) => (
                  <li key={use.kind} className={use.takes < use.force ? "font-medium text-falls" : ""}>
                    {inUseSentence(use, piece.purpose)}
                  </li>
                ))}
              </ul>
            )}
            <MustBear piece={piece} held={test.held} />
            {finger && (
              <div className="mt-3 rounded-xl bg-film p-3 text-[13px]" role="group" aria-label="The finger">
                <p className="font-medium">
                  {finger.letter === null ? "A finger on this place" : titleOf(labels.get(finger.letter))}
                </p>
                {fingered ? (
                  <>
                    <p className="mt-1">{fingerSentence(fingered, test.finger, units)}</p>
                    <p className="mt-1 text-quiet">{drawn(exaggeration(fingered))}, in slow motion.</p>
                  </>
                ) : (
                  <p className="mt-1 text-quiet">Pushing …</p>
                )}
                {fingered && (
                  <div className="mt-2">
                    <Choice
                      label="Pushed"
                      value={fingered.direction}
                      options={DIRECTIONS}
                      onChange={(direction) => useBench.setState({ finger: { ...finger, direction } })}
                    />
                  </div>
                )}
              </div>
            )}
            <ol className="-mx-2 mt-3 flex flex-col">
              {test.letters.map((letter) => (
                <li key={letter.id}>
                  <Letter
                    letter={letter}
                    name={titleOf(labels.get(letter.id))}
                    finger={test.finger}
                    before={before.get(letter.id)}
                    on={finger?.letter === letter.id}
                  />
                </li>
              ))}
            </ol>
            <p className="mt-3 text-[12px] text-quiet">
              What the sheet bears,{" "}
              <Link to={`/stock/${encodeURIComponent(piece.stock.id)}/test`} className="underline">
                a test piece
              </Link>{" "}
              measures.
            </p>
          </>
        )}
      </div>
    </section>
  );
}

/** Bars end at so many times the finger. */
const FULL = 3;

/** Changes below this share are of no account. */
const SAME = 0.02;

interface LetterProps {
  letter: LetterLoad;
  name: string;
  finger: number;
  /** N that it took before the last change of the piece. */
  before: number | undefined;
  on: boolean;
}

function Letter({ letter, name, finger, before, on }: LetterProps) {
  const { id, takes, at, direction } = letter;
  const breaks = takes < finger;
  const changed = before !== undefined && Math.abs(takes - before) > SAME * before;
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={() => useBench.setState({ finger: on ? null : { at, letter: id, direction } })}
      className="grid w-full grid-cols-[minmax(0,1fr)_64px_56px] items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-ink/6 aria-pressed:bg-film"
    >
      <span className="min-w-0">
        <span className="block text-[14px] leading-tight">{name}</span>
        <span className="block text-[12px] leading-tight text-quiet">
          {direction}
          {changed && <span className="figure">, was {takesText({ takes: before })}</span>}
        </span>
      </span>
      <span className="relative h-2 rounded-full bg-ink/8" aria-hidden="true">
        <span
          className={`absolute inset-y-0 left-0 rounded-full ${breaks ? "bg-falls" : "bg-holds"}`}
          style={{ width: `${Math.min(100, (100 * takes) / (FULL * finger))}%` }}
        />
        <span className="absolute -inset-y-0.5 w-px bg-ink" style={{ left: `${100 / FULL}%` }} />
      </span>
      <span className={`figure text-right text-[13px] ${breaks ? "font-semibold text-falls" : ""}`}>
        {takesText(letter)}
        {breaks && <span className="sr-only">, breaks</span>}
      </span>
    </button>
  );
}
