/**
 * Examinations for the rack: one at a time, those in sight first, and none any more when the maker has gone on.
 */
import type { Examination } from "@mend-joint/core";
import QuickLRU from "quick-lru";
import type { StoredPiece } from "./api";

export interface Wish {
  stored: StoredPiece;
  inSight: boolean;
  tell(examination: Examination): void;
}

/** Examinations kept, so that coming back to the rack shows it at once. */
const KEPT = 300;

/** A piece as it was saved once. */
const keyOf = ({ id, version, updatedAt }: StoredPiece) => `${id} ${version} ${updatedAt}`;

export function createRackExaminer(examine: (piece: StoredPiece["piece"]) => Promise<Examination>) {
  const known = new QuickLRU<string, Examination>({ maxSize: KEPT });
  /** In the order of the rack. */
  const wishes = new Set<Wish>();
  let busy = false;

  const next = () => {
    const all = [...wishes];
    return all.find(({ inSight }) => inSight) ?? all[0];
  };

  async function work(): Promise<void> {
    if (busy) return;
    busy = true;
    for (let wish = next(); wish; wish = next()) {
      wishes.delete(wish);
      // A piece that cannot be examined keeps its place on the rack, without a picture.
      const key = keyOf(wish.stored);
      const examination = known.get(key) ?? (await examine(wish.stored.piece).catch(() => null));
      if (!examination) continue;
      known.set(key, examination);
      wish.tell(examination);
    }
    busy = false;
  }

  return {
    known: (stored: StoredPiece) => known.get(keyOf(stored)) ?? null,
    /** @returns takes the wish back */
    ask(wish: Wish): () => void {
      wishes.add(wish);
      // What is shown together comes together: the first to be examined is chosen when all are there.
      queueMicrotask(() => void work());
      return () => wishes.delete(wish);
    },
  };
}
