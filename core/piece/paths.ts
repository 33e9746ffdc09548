/**
 * Lines of their own that words begin with: arcs, curves, spirals, outlines.
 */
import { type ArcPath, type CurvePath, LIMITS, type PathKind, type Word } from "./schema";

/** Width of a line that is cut and holds its letters, to begin with, mm. */
export const LINE_WIDTH = 4;
/** A second ring to begin with: letters between two. mm */
export const SECOND_RING: NonNullable<ArcPath["between"]> = { gap: 15, bite: 1.5, line: LINE_WIDTH };

/** Points of a curve with one more at its end, as far on as the last from the one before. */
export function onePointMore({ points }: CurvePath): CurvePath["points"] {
  const [before, last] = points.slice(-2) as [CurvePath["points"][number], CurvePath["points"][number]];
  const x = Math.max(-LIMITS.coordinate, Math.min(LIMITS.coordinate, 2 * last.x - before.x));
  return [...points, { x, y: before.y }];
}

/**
 * A word on a line of another kind, about as long as the word is now.
 *
 * @param width of the word, mm
 * @param drawing id of the one that its outline is to go round
 */
export function withPath(
  word: Word,
  kind: PathKind | "straight",
  { width: present = 100, drawing = "drawing" }: { width?: number | undefined; drawing?: string | undefined } = {},
): Word {
  const { path: _, ...plain } = word;
  if (kind === "straight") return plain;
  // Points of a curve lie within reach of the middle.
  const width = Math.round(Math.min(present, 1.8 * LIMITS.coordinate));
  const from = { distance: 0 };
  switch (kind) {
    case "stacked":
      return { ...plain, path: { kind, joint: 2 }, size: word.size.by === "width" ? { by: "cap-height", mm: 20 } : word.size };
    case "arc":
      return {
        ...plain,
        path: {
          kind,
          radius: Math.max(10, Math.round(width * 0.5)),
          angle: 90,
          side: "outside",
          reading: "clockwise",
          around: false,
          ...from,
        },
      };
    case "curve":
      return {
        ...plain,
        path: {
          kind,
          points: [
            { x: -width * 0.55, y: 0 },
            { x: -width * 0.18, y: width * 0.1 },
            { x: width * 0.18, y: -width * 0.1 },
            { x: width * 0.55, y: 0 },
          ].map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) })),
          ...from,
        },
      };
    case "outline":
      return {
        ...plain,
        path: {
          kind,
          drawing,
          number: 0,
          angle: 90,
          side: "outside",
          reading: "clockwise",
          around: false,
          ...from,
        },
        size: word.size.by === "cap-height" ? word.size : { by: "cap-height", mm: 15 },
        at: { x: 0, y: 0 },
      };
    case "spiral":
      return {
        ...plain,
        path: { kind, radius: Math.max(8, Math.round(width * 0.12)), pitch: 30, angle: 90, ...from },
        align: "left",
      };
  }
}
