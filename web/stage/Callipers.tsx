import type { Point } from "@mend-joint/core/geometry";
import { formatNumber, type Units } from "@mend-joint/core/piece";
import { useState } from "react";
import { placeLabels } from "./labels";
import { type Size, toScreen, type View } from "./view";

export interface Measure {
  key: string;
  from: Point;
  to: Point;
  width: number;
  /** Closed jaws hold, open jaws are weak, dotted ones span a gap. */
  state: "holds" | "weak" | "gap";
  strong?: boolean;
  /** Only a tick, which opens when it is pointed at: one of several that are not the narrowest. */
  small?: boolean;
  /** Part that a tick lies over. */
  takes?: string | undefined;
}

const COLOUR = { holds: "var(--color-holds)", weak: "var(--color-weak)", gap: "var(--color-falls)" } as const;

/** A pair of jaws closing on a neck from both sides, with its width. All sizes in screen pixels. */
export function Callipers({
  measures,
  view,
  size,
  units,
  middle,
}: {
  measures: Measure[];
  view: View;
  size: Size;
  units: Units;
  middle: Point;
}) {
  const [pointed, setPointed] = useState<string | null>(null);
  const centre = toScreen(view, size, middle);
  const drawn = measures.map((measure) => drawingOf(measure, view, size, units, centre));
  const open = drawn.filter(({ measure }) => !measure.small || measure.key === pointed);
  // What is strong comes last, over the others, and has its place first.
  const labels = placeLabels(open.map(({ wish }) => wish).reverse(), size).reverse();
  return (
    <g pointerEvents="none">
      {drawn.map(({ measure, p, q }) => (
        <Tick key={measure.key} measure={measure} p={p} q={q} onPoint={(on) => setPointed(on ? measure.key : null)} />
      ))}
      {open.map((each) => (
        <Jaws key={each.measure.key} drawing={each} />
      ))}
      {open.map((each, i) => (
        <Figure key={each.measure.key} drawing={each} at={labels[i]!} />
      ))}
    </g>
  );
}

interface CalliperDrawing {
  measure: Measure;
  text: string;
  /** Ends of the chord, and the direction from the first to the second. */
  p: Point;
  q: Point;
  ux: number;
  uy: number;
  stem: number;
  wish: { places: Point[]; width: number; height: number };
}

function drawingOf(measure: Measure, view: View, size: Size, units: Units, centre: Point): CalliperDrawing {
  const p = toScreen(view, size, measure.from);
  const q = toScreen(view, size, measure.to);
  const length = Math.hypot(q.x - p.x, q.y - p.y);
  const [ux, uy] = length > 0.01 ? [(q.x - p.x) / length, (q.y - p.y) / length] : [0, 1];
  const stem = measure.strong ? 22 : 15;
  const text = formatNumber(measure.width, units);
  const width = text.length * 7.4 + 12;
  const reach = stem + 4 + (Math.abs(ux) * width) / 2 + Math.abs(uy) * 9;
  // The figure stands at the end that points away from the piece, else at the other one, farther out, or beside.
  const outward = (p.x - centre.x) * -ux + (p.y - centre.y) * -uy > (q.x - centre.x) * ux + (q.y - centre.y) * uy;
  const ends = outward
    ? [
        { at: p, dx: -ux, dy: -uy },
        { at: q, dx: ux, dy: uy },
      ]
    : [
        { at: q, dx: ux, dy: uy },
        { at: p, dx: -ux, dy: -uy },
      ];
  const places = [0, 22, 44].flatMap((more) =>
    [0, 26, -26].flatMap((aside) =>
      ends.map(({ at, dx, dy }) => ({ x: at.x + dx * (reach + more) - dy * aside, y: at.y + dy * (reach + more) + dx * aside })),
    ),
  );
  return { measure, text, p, q, ux, uy, stem, wish: { places, width, height: 18 } };
}

/** The chord itself; of a small measure all that is seen of it until it is pointed at. */
function Tick({ measure, p, q, onPoint }: { measure: Measure; p: Point; q: Point; onPoint(on: boolean): void }) {
  const line = { x1: p.x, y1: p.y, x2: q.x, y2: q.y };
  return (
    <g strokeLinecap="round">
      {measure.small && <line {...line} stroke="var(--color-film)" strokeWidth={5} />}
      <line
        {...line}
        stroke={COLOUR[measure.state]}
        strokeWidth={measure.small ? 2.6 : 2}
        strokeDasharray={measure.state === "holds" ? undefined : "1 4"}
      />
      {measure.small && (
        <line
          {...line}
          data-takes={measure.takes}
          stroke="transparent"
          strokeWidth={14}
          pointerEvents="stroke"
          onPointerEnter={() => onPoint(true)}
          onPointerLeave={() => onPoint(false)}
        />
      )}
    </g>
  );
}

function Jaws({ drawing: { measure, p, q, ux, uy, stem } }: { drawing: CalliperDrawing }) {
  const colour = COLOUR[measure.state];
  // Closed jaws lie on the outline; jaws of a weak joint stand a little open.
  const open = measure.state === "holds" ? 1 : 4;
  const jaw = measure.strong ? 10 : 7.5;
  const face = (at: Point, sx: number, sy: number) => {
    const [bx, by] = [at.x + sx * open, at.y + sy * open];
    const [nx, ny] = [-sy * jaw, sx * jaw];
    return `M${bx + nx} ${by + ny}L${bx - nx} ${by - ny}M${bx} ${by}L${at.x + sx * stem} ${at.y + sy * stem}`;
  };
  return (
    <g strokeLinecap="round" fill="none">
      {[face(p, -ux, -uy), face(q, ux, uy)].map((d) => (
        <g key={d}>
          <path d={d} stroke="var(--color-film)" strokeWidth={measure.strong ? 6.5 : 5.5} />
          <path d={d} stroke={colour} strokeWidth={measure.strong ? 3.2 : 2.4} />
        </g>
      ))}
    </g>
  );
}

/** The width, over all jaws. */
function Figure({ drawing: { measure, text, wish }, at }: { drawing: CalliperDrawing; at: Point }) {
  const colour = COLOUR[measure.state];
  return (
    <g>
      <rect
        x={at.x - wish.width / 2}
        y={at.y - 9}
        width={wish.width}
        height={18}
        rx={9}
        fill="var(--color-film)"
        stroke={colour}
        strokeWidth={measure.strong ? 1.6 : 1}
      />
      <text x={at.x} y={at.y + 4} textAnchor="middle" fontSize={12} fontWeight={600} className="figure" fill={colour}>
        {text}
      </text>
    </g>
  );
}
