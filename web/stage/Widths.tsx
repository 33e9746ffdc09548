/**
 * The piece by its widths: the line along the middle of every stroke, as thick and as coloured as the stroke is wide.
 */
import type { Skeleton } from "@mend-joint/core/measure";
import { formatNumber, type Units } from "@mend-joint/core/piece";
import { useMemo } from "react";
import { Legend } from "./Legend";
import { type StrokePath, stepWidth, strokePaths } from "./strokes";

/** Upper ends of the classes as shares of the least width; the last is open. */
const CLASSES = [
  { upTo: 0.7, colour: "var(--color-falls)" },
  { upTo: 1, colour: "var(--color-weak)" },
  { upTo: 1.5, colour: "#7fae6b" },
  { upTo: 2.5, colour: "var(--color-holds)" },
  { upTo: Infinity, colour: "#12603f" },
] as const;
/** Of a stroke's width so much is drawn. */
const SHARE = 0.34;

export function Widths({ skeleton, leastWidth }: { skeleton: Skeleton; leastWidth: number }) {
  const lines = useMemo(() => linesOf(skeleton, leastWidth), [skeleton, leastWidth]);
  return (
    <g pointerEvents="none" fill="none" strokeLinecap="round" data-testid="widths">
      {lines.map(({ key, d, colour, mm }) => (
        <path key={key} d={d} stroke={colour} strokeWidth={Math.max(0.25, mm * SHARE)} />
      ))}
    </g>
  );
}

/** Widest first, so that the thin ones lie on top. */
const linesOf = (skeleton: Skeleton, leastWidth: number): StrokePath[] =>
  strokePaths(skeleton, (edge) => {
    const [x1, y1, w1, x2, y2, w2] = edge as unknown as [number, number, number, number, number, number];
    const width = Math.min(w1, w2);
    const { colour } = CLASSES.find(({ upTo }) => width < upTo * leastWidth)!;
    return { colour, mm: stepWidth(width), ends: [x1, y1, x2, y2] };
  }).sort((a, b) => b.mm - a.mm);

export function WidthsLegend({ leastWidth, units }: { leastWidth: number; units: Units }) {
  const from = (share: number) => formatNumber(share * leastWidth, units);
  const entries = CLASSES.map(({ upTo, colour }, i) => {
    const low = i === 0 ? 0 : CLASSES[i - 1]!.upTo;
    const text =
      i === 0 ? `under ${from(upTo)}` : upTo === Infinity ? `over ${from(low)} ${units}` : `${from(low)}–${from(upTo)}`;
    return { colour, thick: 3 + 2 * i, text };
  });
  return <Legend label="Widths of strokes" entries={entries} />;
}
