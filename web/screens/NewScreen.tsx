import type { Begun } from "@mend-joint/core/mend";
import { EXAMPLE_WORDS, type Piece, parsePiece, STARTERS, STOCKS, UNNAMED } from "@mend-joint/core/piece";
import { ArrowLeft } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { bringIn } from "../bring/BringIn";
import { useArriving } from "../bring/useArriving";
import { Thumbnail } from "../stage/Thumbnail";
import { createPiece, listPieces } from "../state/api";
import {
  type Beginning,
  keepExample,
  knownBeginning,
  makeBeginning,
  stopOtherBeginnings,
  type Wording,
} from "../state/beginnings";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { useGoOn } from "../ui/useGoOn";
import { VerdictMark } from "../ui/VerdictMark";
import { BEGINNERS, type Beginner, beginWith, beginWithOwn } from "../workers/examiner";

/** Typing pauses so long (ms) before all beginnings are made anew. */
const PAUSE = 300;

/** Choose a beginning, type a word: every beginning is shown with the maker's own words, and whether it holds. */
export function NewScreen() {
  const [texts, setTexts] = useState<[string, string]>(["", ""]);
  const goOn = useGoOn();
  const words = texts.map((text, i) => text.trim() || EXAMPLE_WORDS[i]!);
  const beginnings = useAllBeginnings();
  const [asTyped, setAsTyped] = useState(false);
  const wording = { words, asTyped };
  const [putting, setPutting] = useState(false);
  useBeginnings(beginnings, wording, putting);
  const own = beginnings.filter(({ own }) => own);
  /** @param then told the id of what was put on the bench */
  const put = async (make: () => Promise<Piece>, then: (id: string) => void = () => {}) => {
    // Pressed twice it is put there once.
    if (putting) return;
    setPutting(true);
    try {
      const { id } = await createPiece(await make());
      then(id);
      await goOn(`/bench/${id}`);
    } catch (error) {
      setPutting(false);
      toast.error((error as Error).message);
    }
  };
  /** The others are of no use from now on. */
  const choose = (beginning: Beginning) => {
    stopOtherBeginnings({ beginning, wording });
    void put(async () => (await makeBeginning(beginning, wording)).piece);
  };
  /** An empty piece with the sheet for drawings open. */
  const startWith = (file: File | null) =>
    void put(
      async () => emptyPiece(),
      (id) => bringIn(file, id),
    );
  useArriving(startWith);
  const cards = (list: readonly Beginning[]) => (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(260px,100%),1fr))] gap-4">
      {list.map((beginning) => (
        <li key={beginning.id}>
          <Card beginning={beginning} made={knownBeginning(beginning, wording)} onChoose={() => choose(beginning)} />
        </li>
      ))}
    </ul>
  );
  return (
    <div className="h-full overflow-y-auto">
      <header className="mx-auto max-w-[1200px] px-5 pt-8 pb-5 sm:px-8">
        <Link
          to="/"
          className="inline-flex items-center gap-1.5 text-[14px] text-quiet underline underline-offset-4 hover:text-ink"
        >
          <ArrowLeft size={15} aria-hidden="true" /> The rack
        </Link>
        <div className="mt-3 flex items-end justify-between gap-8">
          <h1 className="font-display text-[34px] leading-none font-semibold">What will it be?</h1>
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => startWith(null)}>Start with a drawing or picture</Button>
            <Button onClick={() => void put(async () => emptyPiece())}>Start empty</Button>
          </div>
        </div>
        <div className="mt-6 grid gap-6 sm:grid-cols-2 lg:grid-cols-[1fr_1fr_auto]">
          <TextField
            label="Your word"
            value={texts[0]}
            example={EXAMPLE_WORDS[0]}
            onChange={(text) => setTexts([text, texts[1]])}
            focus
          />
          <TextField
            label="Second line, where there are two"
            value={texts[1]}
            example={EXAMPLE_WORDS[1]}
            onChange={(text) => setTexts([texts[0], text])}
          />
          <Choice
            label="Letters"
            value={asTyped ? "typed" : "capitals"}
            options={[
              { value: "capitals", text: "capitals where they suit" },
              { value: "typed", text: "as typed" },
            ]}
            onChange={(value) => setAsTyped(value === "typed")}
          />
        </div>
      </header>
      <main className="mx-auto flex max-w-[1200px] flex-col gap-6 px-5 pb-16 sm:px-8">
        {own.length > 0 && (
          <section aria-label="Your own beginnings" className="flex flex-col gap-3">
            <h2 className="font-display text-[19px] font-semibold">Your own beginnings</h2>
            {cards(own)}
          </section>
        )}
        {cards(beginnings.filter(({ own }) => !own))}
      </main>
    </div>
  );
}

const SHIPPED: readonly Beginning[] = STARTERS.map(({ id, name, note }) => ({
  id,
  name,
  note,
  own: false,
  make: (texts, asTyped, by) => beginWith(id, texts, asTyped, by),
}));

/** Own beginnings first. Without the server there are still the shipped ones. */
function useAllBeginnings(): readonly Beginning[] {
  const [all, setAll] = useState(SHIPPED);
  useEffect(() => {
    listPieces().then(
      ({ pieces }) => {
        const own = pieces.filter(({ piece }) => piece.starter);
        const beginnings = own.map(
          ({ id, version, piece }): Beginning => ({
            id: `${id} ${version}`,
            name: piece.name,
            note: `in ${piece.stock.name}`,
            own: true,
            make: (texts, _, by) => beginWithOwn(piece, texts, by),
          }),
        );
        if (beginnings.length > 0) setAll([...beginnings, ...SHIPPED]);
      },
      () => {},
    );
  }, []);
  return all;
}

function TextField(props: { label: string; value: string; example: string; onChange(text: string): void; focus?: boolean }) {
  return (
    <label className="block text-[13px] text-quiet">
      {props.label}
      <input
        value={props.value}
        maxLength={60}
        placeholder={props.example}
        autoFocus={props.focus}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => props.onChange(event.target.value)}
        className="mt-1 w-full border-b border-quiet/50 bg-transparent py-1.5 text-[19px] text-ink outline-none placeholder:text-quiet/60 focus:border-ink"
      />
    </label>
  );
}

function Card({
  beginning: { name, note },
  made,
  onChoose,
}: {
  beginning: Beginning;
  made: Begun | undefined;
  onChoose(): void;
}) {
  // While the words change it stays in sight as it was, pale and without a verdict: that would be another word's.
  const [before, setBefore] = useState(made);
  if (made && made !== before) setBefore(made);
  const shown = made ?? before;
  return (
    <button
      type="button"
      onClick={onChoose}
      aria-busy={!made}
      className="flex h-full w-full flex-col rounded-2xl border border-rule bg-film text-left transition-colors hover:border-ink"
    >
      <span className={`block h-[170px] w-full p-5 transition-opacity ${made ? "" : "opacity-35"}`}>
        {shown ? (
          <Thumbnail examination={shown.examination} sheet={shown.piece.stock} />
        ) : (
          <span className="grid h-full place-items-center text-[13px] text-quiet">…</span>
        )}
      </span>
      <span className="flex w-full items-end justify-between gap-2 border-t border-rule px-4 py-3">
        <span className="min-w-0">
          <span className="block truncate font-display text-[16px] font-semibold">{name}</span>
          <span className="block text-[12px] leading-snug text-quiet">{note}</span>
        </span>
        {/* Its room is kept, so that nothing jumps when it comes. */}
        <span className={`flex ${made ? "" : "invisible"}`}>
          <VerdictMark verdict={shown?.examination.verdict ?? "holds"} label />
        </span>
      </span>
    </button>
  );
}

const isExample = ({ words, asTyped }: Wording) => !asTyped && words.every((text, i) => text === EXAMPLE_WORDS[i]);

/**
 * Makes all beginnings with these words, by two workers from both ends: those that take longest stand last.
 *
 * @param paused while one is put on the bench
 */
function useBeginnings(beginnings: readonly Beginning[], wording: Wording, paused: boolean): void {
  const [, setRound] = useState(0);
  /** Whoever has just come has typed nothing yet. */
  const asked = useRef(false);
  const { asTyped } = wording;
  const all = wording.words.join("\n");
  useEffect(() => {
    if (paused) return;
    let gone = false;
    const wanted = { words: all.split("\n"), asTyped };
    const isMissing = (beginning: Beginning) => !knownBeginning(beginning, wanted);
    const waiting = [...beginnings];
    const make = async (by: Beginner) => {
      const take = () => (by === 0 ? waiting.shift() : waiting.pop());
      for (let next = take(); next && !gone; next = take()) {
        if (!isMissing(next)) continue;
        await makeBeginning(next, wanted, by).catch(() => {});
        if (!gone) setRound((round) => round + 1);
      }
    };
    const begin = async () => {
      const shipped = beginnings.filter(({ own }) => !own);
      if (isExample(wanted) && shipped.some(isMissing)) await keepExample().catch(() => {});
      if (gone) return;
      setRound((round) => round + 1);
      BEGINNERS.forEach(make);
    };
    const timer = setTimeout(() => void begin(), asked.current ? PAUSE : 0);
    asked.current = true;
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [all, beginnings, asTyped, paused]);
  useEffect(() => () => stopOtherBeginnings(), []);
}

function emptyPiece(): Piece {
  return parsePiece({
    name: UNNAMED,
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w1", text: "", font: "pacifico", size: { by: "cap-height", mm: 25 } }],
  });
}
