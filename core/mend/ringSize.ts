/**
 * A line of letters round a middle, sized by its outer diameter and its hole.
 */
import { type Library, layOutWords } from "../examine";
import { type ArcPath, clampToBounds, type Piece, type Word } from "../piece";
import { changeWord } from "./scene";

type Layout = ReturnType<typeof layOutWords>["layouts"][number];
/** Radii of what a line reaches from and to, mm. */
type Extent = Pick<NonNullable<Layout["ring"]>, "inner" | "outer">;

/** Diameters, mm; what is left out stays as it is. */
export interface RingSize {
  outer?: number;
  hole?: number;
}

const ROUNDS = 8;
/** mm */
const SETTLED = 0.005;

/**
 * Letters between two rings are stretched with the space between these; others keep their shape, and grow or shrink with what lies
 * between the diameters. From then on their size is held by the height of capitals.
 *
 * @returns as near to the diameters as the bounds of a piece allow; `null` where the line does not run round a middle
 */
export function sizeRing(piece: Piece, wordId: string, wanted: RingSize, library: Library): Piece | null {
  const layoutOf = (now: Piece) => layOutWords(now, library).layouts.find((layout) => layout.wordId === wordId);
  const start = layoutOf(piece)?.ring;
  if (!start) return null;
  const outer = (wanted.outer ?? 2 * start.outer) / 2;
  const inner = (wanted.hole ?? 2 * start.inner) / 2;
  if (outer - inner <= 0) return null;
  let now = piece;
  for (let pass = 0; pass < ROUNDS; pass++) {
    const layout = layoutOf(now);
    if (!layout?.ring) break;
    if (Math.abs(layout.ring.outer - outer) < SETTLED && Math.abs(layout.ring.inner - inner) < SETTLED) break;
    const [ring, from] = [layout.ring, layout];
    now = changeWord(now, wordId, (word) => nearer(word, from, ring, { inner, outer }));
  }
  return now;
}

function nearer(word: Word, { capHeight }: Layout, ring: Extent, wanted: Extent): Word {
  const { path } = word;
  if (path?.kind !== "arc") return word;
  const fit = (path: ArcPath): Word => ({ ...word, path });
  if (path.between) {
    const gap = path.between.gap + (wanted.outer - wanted.inner) - (ring.outer - ring.inner);
    // The line that is read along keeps its place by the edge that it makes.
    const radius = path.radius + (path.reading === "clockwise" ? wanted.inner - ring.inner : wanted.outer - ring.outer);
    return fit({
      ...path,
      radius: clampToBounds(radius, "word", "path", "arc", "radius"),
      between: { ...path.between, gap: clampToBounds(gap, "word", "path", "arc", "between", "gap") },
    });
  }
  const share = (wanted.outer - wanted.inner) / Math.max(0.1, ring.outer - ring.inner);
  const radius = wanted.inner + (path.radius - ring.inner) * share;
  return {
    ...fit({ ...path, radius: clampToBounds(radius, "word", "path", "arc", "radius") }),
    size: { by: "cap-height", mm: clampToBounds(capHeight * share, "word", "size", "cap-height", "mm") },
  };
}
