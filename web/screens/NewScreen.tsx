import type { Examination } from "@mend-joint/core";
import { type Piece, parsePiece, STARTERS, STOCKS, type Starter } from "@mend-joint/core/piece";
import { ArrowLeft } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { toast } from "sonner";
import { Thumbnail } from "../stage/Thumbnail";
import { createPiece } from "../state/api";
import { Button } from "../ui/Button";
import { VerdictMark } from "../ui/VerdictMark";
import { beginWith } from "../workers/examiner";

/** Shown while nothing is typed. */
const EXAMPLE = ["Isolde", "Kit"] as const;
/** Typing pauses so long (ms) before all beginnings are made anew. */
const PAUSE = 300;

/** Choose a beginning, type a word: every beginning is shown with the maker's own words, and whether it holds. */
export function NewScreen() {
  const [texts, setTexts] = useState<[string, string]>(["", ""]);
  const navigate = useNavigate();
  const words = texts.map((text, i) => text.trim() || EXAMPLE[i]!);
  const made = useBeginnings(words);
  const put = async (make: () => Promise<Piece>) => {
    try {
      navigate(`/bench/${(await createPiece(await make())).id}`);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  return (
    <div className="h-full overflow-y-auto">
      <header className="mx-auto max-w-[1200px] px-8 pt-8 pb-5">
        <Link
          to="/"
          className="inline-flex items-center gap-1.5 text-[14px] text-quiet underline underline-offset-4 hover:text-ink"
        >
          <ArrowLeft size={15} aria-hidden="true" /> The rack
        </Link>
        <div className="mt-3 flex items-end justify-between gap-8">
          <h1 className="font-display text-[34px] leading-none font-semibold">What will it be?</h1>
          <Button onClick={() => void put(async () => emptyPiece())}>Start empty</Button>
        </div>
        <div className="mt-6 grid max-w-[720px] grid-cols-2 gap-6">
          <TextField
            label="Your word"
            value={texts[0]}
            example={EXAMPLE[0]}
            onChange={(text) => setTexts([text, texts[1]])}
            focus
          />
          <TextField
            label="Second line, where there are two"
            value={texts[1]}
            example={EXAMPLE[1]}
            onChange={(text) => setTexts([texts[0], text])}
          />
        </div>
      </header>
      <main className="mx-auto max-w-[1200px] px-8 pb-16">
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-4">
          {STARTERS.map((starter) => (
            <li key={starter.id}>
              <Beginning
                starter={starter}
                examination={made.get(keyOf(starter.id, words))?.examination}
                piece={made.get(keyOf(starter.id, words))?.piece}
                onChoose={() => void put(async () => (await beginWith(starter.id, words)).piece)}
              />
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
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

function Beginning({
  starter,
  examination,
  piece,
  onChoose,
}: {
  starter: Starter;
  examination: Examination | undefined;
  piece: Piece | undefined;
  onChoose(): void;
}) {
  return (
    <button
      type="button"
      onClick={onChoose}
      className="flex h-full w-full flex-col rounded-2xl border border-rule bg-film text-left transition-colors hover:border-ink"
    >
      <span className="block h-[170px] w-full p-5">
        {examination && piece ? (
          <Thumbnail examination={examination} material={piece.stock.material} />
        ) : (
          <span className="grid h-full place-items-center text-[13px] text-quiet">…</span>
        )}
      </span>
      <span className="flex w-full items-end justify-between gap-2 border-t border-rule px-4 py-3">
        <span className="min-w-0">
          <span className="block truncate font-display text-[16px] font-semibold">{starter.name}</span>
          <span className="block text-[12px] leading-snug text-quiet">{starter.note}</span>
        </span>
        {examination && <VerdictMark verdict={examination.verdict} label />}
      </span>
    </button>
  );
}

type Made = Awaited<ReturnType<typeof beginWith>>;

const keyOf = (starter: string, words: readonly string[]) => JSON.stringify([starter, ...words]);

const known = new Map<string, Made>();
const KEPT = 240;

/** All beginnings with these words, one after the other. */
function useBeginnings(words: readonly string[]): ReadonlyMap<string, Made> {
  const [, setRound] = useState(0);
  const all = words.join("\n");
  useEffect(() => {
    let gone = false;
    const make = async () => {
      const texts = all.split("\n");
      for (const { id } of STARTERS) {
        const key = keyOf(id, texts);
        if (gone) return;
        if (known.has(key)) continue;
        const made = await beginWith(id, texts).catch(() => null);
        if (known.size > KEPT) known.clear();
        if (made) known.set(key, made);
        if (!gone) setRound((round) => round + 1);
      }
    };
    const timer = setTimeout(() => void make(), PAUSE);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [all]);
  return known;
}

function emptyPiece(): Piece {
  return parsePiece({
    name: "New piece",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w1", text: "", font: "pacifico", size: { by: "cap-height", mm: 25 } }],
  });
}
