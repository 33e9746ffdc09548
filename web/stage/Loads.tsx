/**
 * The piece by what it bears: every stroke against a careless finger, where it is held, and how it bends under the finger that is put on it.
 */
import { type Point, type Region, regionBox } from "@mend-joint/core/geometry";
import type { Fingered, LoadTest } from "@mend-joint/core/strength";
import { takesText } from "@mend-joint/core/wording";
import { useEffect, useMemo, useRef } from "react";
import { Legend } from "./Legend";
import { regionPath } from "./paths";
import { type StrokePath, stepWidth, strokePaths } from "./strokes";
import { type Size, toScreen, type View } from "./view";

/** Upper ends of the classes as shares of what the sheet bears; the last is open. Thicker lines bear less. */
const CLASSES = [
  { upTo: 1 / 3, colour: "#12603f", share: 0.14, text: "under a third" },
  { upTo: 2 / 3, colour: "#7fae6b", share: 0.24, text: "to two thirds" },
  { upTo: 1, colour: "var(--color-weak)", share: 0.38, text: "nearly all" },
  { upTo: Infinity, colour: "var(--color-falls)", share: 0.62, text: "breaks" },
] as const;
/** What is held is hatched so far beyond its outline too, mm. */
const BESIDE = 1.5;
/** However thin a stroke is, its line is seen, mm. */
const THINNEST = 0.3;

/** What bears least lies on top. */
const linesOf = (strokes: Float64Array): StrokePath[] =>
  strokePaths(strokes, (stroke) => {
    const [x1, y1, x2, y2, width, taken] = stroke as unknown as [number, number, number, number, number, number];
    const { colour, share } = CLASSES.find(({ upTo }) => taken < upTo)!;
    return { colour, mm: Math.max(THINNEST, stepWidth(width) * share), ends: [x1, y1, x2, y2] };
  }).sort((a, b) => RANK.get(a.colour)! - RANK.get(b.colour)!);

const RANK = new Map<string, number>(CLASSES.map(({ colour }, i) => [colour, i]));

/** In mm, y up. */
export function LoadStrokes({ test }: { test: LoadTest }) {
  const lines = useMemo(() => linesOf(test.strokes), [test]);
  return (
    <g pointerEvents="none" fill="none" strokeLinecap="round" data-testid="loads">
      <defs>
        <pattern id="held" width={2.4} height={2.4} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V2.4" stroke="var(--color-ink)" strokeWidth={0.5} />
        </pattern>
      </defs>
      {test.held.places.map(({ minX, minY, maxX, maxY, of = [] }, k) => (
        // Only the holder is held, so far as it lies in the box, and not what lies beside it there.
        <g key={`${minX} ${minY} ${maxX} ${maxY}`}>
          <clipPath id={`held-${k}`}>
            <rect x={minX - BESIDE} y={minY - BESIDE} width={maxX - minX + 2 * BESIDE} height={maxY - minY + 2 * BESIDE} />
          </clipPath>
          <path
            d={regionPath(of)}
            clipPath={`url(#held-${k})`}
            fill="url(#held)"
            stroke="url(#held)"
            strokeWidth={2 * BESIDE}
            fillOpacity={0.55}
            strokeOpacity={0.55}
            fillRule="evenodd"
          />
        </g>
      ))}
      {lines.map(({ key, d, colour, mm }) => (
        <path key={key} d={d} stroke={colour} strokeWidth={mm} />
      ))}
    </g>
  );
}

/** So long one swing takes, ms. */
const SWING = 2600;
/** Bent so far as a share of the piece's size, whatever it is in truth. */
const SHOWN = 0.07;
/** What moves out of the sheet is drawn to the side and up, as seen from a little to the left below. */
const ASIDE = 0.5;

/** By how much the bending is drawn larger than it is. */
export function exaggeration({ outline, moved }: Fingered): number {
  let most = 0;
  for (let i = 0; i < moved.length; i += 3) most = Math.max(most, Math.hypot(moved[i]!, moved[i + 1]!, moved[i + 2]!));
  const box = regionBox(outline);
  if (most === 0 || !box) return 1;
  const factor = (SHOWN * (box.maxX - box.minX)) / most;
  return factor >= 10 ? Math.round(factor / 5) * 5 : Math.max(1, Math.round(factor));
}

function bentRegion({ outline, moved }: Fingered, factor: number): Region {
  let k = 0;
  return outline.map((ring) => {
    const bent = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2, k += 3) {
      bent[i] = ring[i]! + factor * (moved[k]! + ASIDE * moved[k + 2]!);
      bent[i + 1] = ring[i + 1]! + factor * (moved[k + 1]! + ASIDE * moved[k + 2]!);
    }
    return bent;
  });
}

/** The outline swinging slowly between rest and bent; it stands bent where movement is not wanted. In mm, y up. */
export function BentPiece({ fingered }: { fingered: Fingered }) {
  const path = useRef<SVGPathElement>(null);
  useEffect(() => {
    const factor = exaggeration(fingered);
    const draw = (share: number) => path.current?.setAttribute("d", regionPath(bentRegion(fingered, factor * share)));
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) {
      draw(1);
      return;
    }
    let frame = 0;
    const start = performance.now();
    const step = (now: number) => {
      draw((1 - Math.cos((2 * Math.PI * (now - start)) / SWING)) / 2);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [fingered]);
  return (
    <path
      ref={path}
      pointerEvents="none"
      fill="var(--color-ink)"
      fillOpacity={0.08}
      stroke="var(--color-ink)"
      strokeWidth={1.4}
      vectorEffect="non-scaling-stroke"
      fillRule="evenodd"
      data-testid="bent"
    />
  );
}

interface MarksProps {
  test: LoadTest;
  fingered: Fingered | null;
  view: View;
  size: Size;
}

/** Where letters that a finger would break give way first, and where the finger is. On the screen. */
export function LoadMarks({ test, fingered, view, size }: MarksProps) {
  const on = (point: Point) => toScreen(view, size, point);
  const broken = fingered ? [] : test.letters.filter(({ takes }) => takes < test.finger);
  return (
    <g pointerEvents="none">
      {broken.map(({ id, breaks }) => (
        <Break key={id} {...on(breaks)} />
      ))}
      {fingered && (
        <>
          {Number.isFinite(fingered.takes) && <Break {...on(fingered.breaks)} text={takesText(fingered)} />}
          <Finger {...on(fingered.at)} direction={fingered.direction} />
        </>
      )}
    </g>
  );
}

/** A crack. */
function Break({ x, y, text }: Point & { text?: string }) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <path d="M-9 -7L-3 -1L-5 3L4 8" fill="none" stroke="var(--color-film)" strokeWidth={5} strokeLinejoin="round" />
      <path d="M-9 -7L-3 -1L-5 3L4 8" fill="none" stroke="var(--color-falls)" strokeWidth={2.4} strokeLinejoin="round" />
      {text && (
        <text
          x={12}
          y={4}
          className="figure fill-falls stroke-film text-[13px] font-semibold [paint-order:stroke]"
          strokeWidth={4}
        >
          {text}
        </text>
      )}
    </g>
  );
}

const ARROWS: Record<Fingered["direction"], string> = {
  sideways: "M-26 0H26M18 -6L26 0L18 6M-18 -6L-26 0L-18 6",
  "up and down": "M0 -26V26M-6 -18L0 -26L6 -18M-6 18L0 26L6 18",
  "out of the sheet": "M-18 18L18 -18M8 -18H18V-8M-8 18H-18V8",
};

function Finger({ x, y, direction }: Point & { direction: Fingered["direction"] }) {
  return (
    <g transform={`translate(${x} ${y})`} fill="none">
      <path d={ARROWS[direction]} stroke="var(--color-film)" strokeWidth={5} />
      <path d={ARROWS[direction]} stroke="var(--color-ink)" strokeWidth={1.8} />
      <circle r={6} fill="var(--color-ink)" stroke="var(--color-film)" strokeWidth={2} />
    </g>
  );
}

export const LoadsLegend = () => (
  <Legend
    label="Of what the sheet bears, a careless finger takes"
    entries={CLASSES.map(({ colour, share, text }) => ({ colour, thick: 3 + 14 * (share - 0.1), text }))}
  />
);
