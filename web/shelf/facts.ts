/**
 * Measured facts of a word in every lettering, one after the other, kept for as long as the page is open.
 */
import type { Piece, Word } from "@mend-joint/core/piece";
import { type LetteringFacts, survival } from "@mend-joint/core/shelf";
import { useEffect, useRef, useState } from "react";
import type { FontEntry } from "../state/api";
import { letteringFacts } from "../workers/examiner";

const known = new Map<string, LetteringFacts | null>();
/** More than this many are too many to keep. */
const KEPT = 2000;

/** Everything that changes the facts, and nothing else. */
function keyOf(
  { id: _, keys: __, changes: ___, at: ____, path: _____, font: ______, ...word }: Word,
  { stock, cut }: Piece,
  font: string,
): string {
  return JSON.stringify([font, word, stock.leastWidth, stock.kerf, cut]);
}

export interface ShelfRow {
  font: FontEntry;
  /** `undefined` while it has not been measured. */
  facts: LetteringFacts | null | undefined;
}

export interface ShelfRows {
  rows: ShelfRow[];
  /** How many are measured. */
  measured: number;
  /** Whether the best survivors lead. */
  inOrder: boolean;
}

/** @param held whether rows stay where they are although others turn out to survive better: what is about to be pressed does not move away */
export function useShelf(word: Word, piece: Piece, fonts: readonly FontEntry[], held: boolean): ShelfRows {
  const [, setRound] = useState(0);
  const order = useRef<readonly string[]>([]);
  const key = keyOf(word, piece, "");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for what matters of the word and the piece
  useEffect(() => {
    let gone = false;
    const measure = async () => {
      for (const { id } of [...fonts].sort((a, b) => Number(b.id === word.font) - Number(a.id === word.font))) {
        const each = keyOf(word, piece, id);
        if (known.has(each)) continue;
        const facts = await letteringFacts(word, id, piece).catch(() => null);
        if (known.size > KEPT) known.clear();
        known.set(each, facts);
        if (gone) return;
        setRound((round) => round + 1);
      }
    };
    void measure();
    return () => {
      gone = true;
    };
  }, [key, fonts]);

  const rows = fonts.map((font): ShelfRow => ({ font, facts: known.get(keyOf(word, piece, font.id)) }));
  const best = rows.sort((a, b) => rank(b) - rank(a)).map(({ font }) => font.id);
  // What came in meanwhile is seen first.
  if (held) rows.sort((a, b) => order.current.indexOf(a.font.id) - order.current.indexOf(b.font.id));
  else order.current = best;
  return {
    rows,
    measured: rows.filter(({ facts }) => facts !== undefined).length,
    inOrder: rows.every(({ font }, i) => font.id === best[i]),
  };
}

const rank = ({ facts }: ShelfRow) => (facts ? survival(facts) : -100);
