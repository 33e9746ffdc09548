import type { Point } from "@mend-joint/core/geometry";
import { formatNumber, type Units } from "@mend-joint/core/piece";
import { type Size, toScreen, type View } from "./view";

export interface Measure {
  key: string;
  from: Point;
  to: Point;
  width: number;
  /** Closed jaws hold, open jaws are weak, dotted ones span a gap. */
  state: "holds" | "weak" | "gap";
  strong?: boolean;
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
  const centre = toScreen(view, size, middle);
  return (
    <g pointerEvents="none">
      {measures.map((measure) => (
        <Jaws key={measure.key} measure={measure} view={view} size={size} units={units} centre={centre} />
      ))}
    </g>
  );
}

function Jaws({ measure, view, size, units, centre }: { measure: Measure; view: View; size: Size; units: Units; centre: Point }) {
  const p = toScreen(view, size, measure.from);
  const q = toScreen(view, size, measure.to);
  const length = Math.hypot(q.x - p.x, q.y - p.y);
  const [ux, uy] = length > 0.01 ? [(q.x - p.x) / length, (q.y - p.y) / length] : [0, 1];
  const colour = COLOUR[measure.state];
  // Closed jaws lie on the outline; jaws of a weak joint stand a little open.
  const open = measure.state === "holds" ? 1 : 4;
  const jaw = measure.strong ? 10 : 7.5;
  const stem = measure.strong ? 22 : 15;
  const face = (at: Point, sx: number, sy: number) => {
    const [bx, by] = [at.x + sx * open, at.y + sy * open];
    const [nx, ny] = [-sy * jaw, sx * jaw];
    return `M${bx + nx} ${by + ny}L${bx - nx} ${by - ny}M${bx} ${by}L${at.x + sx * stem} ${at.y + sy * stem}`;
  };
  // The figure stands at the end that points away from the piece.
  const outward = (p.x - centre.x) * -ux + (p.y - centre.y) * -uy > (q.x - centre.x) * ux + (q.y - centre.y) * uy;
  const end = outward ? p : q;
  const [dx, dy] = outward ? [-ux, -uy] : [ux, uy];
  const text = formatNumber(measure.width, units);
  const wide = text.length * 7.4 + 12;
  const reach = stem + 4 + (Math.abs(dx) * wide) / 2 + Math.abs(dy) * 9;
  const label = { x: end.x + dx * reach, y: end.y + dy * reach };
  return (
    <g strokeLinecap="round" fill="none">
      <line
        x1={p.x}
        y1={p.y}
        x2={q.x}
        y2={q.y}
        stroke={colour}
        strokeWidth={2}
        strokeDasharray={measure.state === "holds" ? undefined : "1 4"}
      />
      {[face(p, -ux, -uy), face(q, ux, uy)].map((d) => (
        <g key={d}>
          <path d={d} stroke="var(--color-film)" strokeWidth={measure.strong ? 6.5 : 5.5} />
          <path d={d} stroke={colour} strokeWidth={measure.strong ? 3.2 : 2.4} />
        </g>
      ))}
      <rect
        x={label.x - wide / 2}
        y={label.y - 9}
        width={wide}
        height={18}
        rx={9}
        fill="var(--color-film)"
        stroke={colour}
        strokeWidth={measure.strong ? 1.6 : 1}
      />
      <text x={label.x} y={label.y + 4} textAnchor="middle" fontSize={12} fontWeight={600} className="figure" fill={colour}>
        {text}
      </text>
    </g>
  );
}
