/**
 * Thousands of short edges along the middle of strokes, as few paths.
 */

export interface StrokePath {
  key: string;
  d: string;
  colour: string;
  mm: number;
}

interface StrokeLook {
  colour: string;
  /** How thick it is drawn, mm. */
  mm: number;
}

/** Thicknesses differ by so much at least, mm. */
const STEP = 0.5;
/** Figures of an edge: two ends of a stroke with what is said of them. */
const EDGE = 6;

/** A stroke's width as one of few, mm. */
export const stepWidth = (mm: number): number => Math.ceil(mm / STEP) * STEP;

/**
 * One path for each colour and thickness, in the order in which they first come.
 *
 * @param edges six figures each
 * @param lookOf what an edge looks like; and its ends: x1, y1, x2, y2, mm
 */
export function strokePaths(
  edges: Float64Array,
  lookOf: (edge: Float64Array) => StrokeLook & { ends: readonly [number, number, number, number] },
): StrokePath[] {
  const paths = new Map<string, StrokePath>();
  const n = (value: number) => value.toFixed(2);
  for (let k = 0; k < edges.length; k += EDGE) {
    const {
      colour,
      mm,
      ends: [x1, y1, x2, y2],
    } = lookOf(edges.subarray(k, k + EDGE));
    const key = `${colour} ${mm}`;
    const path = paths.get(key) ?? { key, d: "", colour, mm };
    path.d += `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`;
    paths.set(key, path);
  }
  return [...paths.values()];
}
