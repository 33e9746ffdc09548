/**
 * What examinations remember for each other. Whoever owns a library may give it a memory; without one all is made anew.
 */
import QuickLRU from "quick-lru";
import { fingerprint, type Region } from "../geometry";
import { type DrawingLook, drawingShape } from "../holders";
import { type Font, type LayoutOptions, layoutWord, type WordLayout } from "../lettering";
import { type Body, poleOf } from "../measure";
import type { Word } from "../piece";

/** While one word is typed or a part is dragged, all else stays as it is: a few pieces' worth of words. */
const LAYOUTS = 80;
/** Bars and plates are drawn anew for every examination, and mostly stay the same. */
const POLES = 300;
/** Drawings of a piece or two. */
const DRAWINGS = 12;
/** What front words and cut-out shapes leave of what lies behind them: a few pieces' worth. */
const COMBINED = 120;

export class Memory {
  readonly #layouts = new QuickLRU<string, WordLayout>({ maxSize: LAYOUTS });
  readonly #poles = new QuickLRU<string, Body | null>({ maxSize: POLES });
  readonly #drawings = new QuickLRU<string, Region>({ maxSize: DRAWINGS });
  readonly #combined = new QuickLRU<string, Region>({ maxSize: COMBINED });

  /** @param font the one that the word names, at the word's own axes: it is known by that name */
  layout(word: Word, font: Font, options: LayoutOptions): WordLayout {
    const { joint, guide } = options;
    const key = `${joint} ${JSON.stringify(word)} ${guide ? fingerprint([guide]) : ""}`;
    return recalled(this.#layouts, key, () => layoutWord(word, font, options));
  }

  /** The middle of a shape. */
  pole(region: Region): Body | null {
    return recalled(this.#poles, fingerprint(region), () => poleOf(region));
  }

  /** The shape of a drawing, so that what is dragged over one does not draw it anew. */
  drawing(look: DrawingLook): Region {
    const { outline, height, turn, mirror, thicken, round } = look;
    return recalled(this.#drawings, `${height} ${turn} ${mirror} ${thicken} ${round} ${outline}`, () => drawingShape(look));
  }

  /** What an operation makes of regions. @param operation tells it from all others, with its figures */
  combined(operation: string, regions: readonly Region[], make: () => Region): Region {
    return recalled(this.#combined, [operation, ...regions.map(fingerprint)].join(" "), make);
  }
}

/** Parts whose middle is not known yet get theirs. */
export const withPoles = <Part extends { region: Region; pole?: Body | null | undefined }>(
  parts: readonly Part[],
  memory: Memory,
): Part[] => parts.map((part) => (part.pole === undefined ? { ...part, pole: memory.pole(part.region) } : part));

function recalled<T>(known: QuickLRU<string, T>, key: string, make: () => T): T {
  const kept = known.get(key);
  if (kept !== undefined) return kept;
  const made = make();
  known.set(key, made);
  return made;
}
