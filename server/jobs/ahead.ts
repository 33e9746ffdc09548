/**
 * Examinations for pages whose own engine is still being started. The last ones are kept, each of one version of a piece.
 */
import { stringify } from "devalue";
import QuickLRU from "quick-lru";
import { fontsOf } from "../store/fonts";
import { getPiece, listPieces } from "../store/pieces";
import type { Database, StoredPiece } from "../store/stored";
import type { Pool } from "./pool";

export interface Ahead {
  /** A piece and its examination, written by devalue, which keeps typed arrays; `null` where there is no such piece. */
  of(id: string): Promise<string | null>;
  /** Examines what was changed last, so that the threads are warm when the first page asks. */
  warm(): Promise<void>;
}

/** Some hundred kilobytes each; longer ones, in characters, are made anew. */
const KEPT = 32;
const LONGEST = 3_000_000;
/** So many are examined when the server starts: a second or two of one thread. */
const FIRST = 6;

/** @param pool whose threads examine: one that has run for a while is quicker than an engine that has just been started */
export function openAhead(db: Database, pool: Pool): Ahead {
  const kept = new QuickLRU<string, Promise<string>>({ maxSize: KEPT });

  const made = async (document: unknown): Promise<string> =>
    stringify({ document, examination: await pool.run({ does: "examine", document, fonts: await fontsOf(db, document) }) });

  const written = ({ id, version, document }: StoredPiece): Promise<string> => {
    const key = `${version} ${id}`;
    const known = kept.get(key);
    if (known) return known;
    const answer = made(document);
    kept.set(key, answer);
    // What failed is tried again by whoever asks next.
    const forget = () => kept.delete(key);
    answer.then((text) => text.length > LONGEST && forget(), forget);
    return answer;
  };

  return {
    of: async (id) => {
      const piece = await getPiece(db, id);
      return piece && written(piece);
    },
    warm: async () => {
      const pieces = (await listPieces(db)).sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
      for (const piece of pieces.slice(0, FIRST)) {
        if (pool.closed) return;
        // One that cannot be examined is told where it is opened.
        await written(piece).catch(() => {});
      }
    },
  };
}
