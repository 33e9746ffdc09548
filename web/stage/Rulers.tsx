import type { Units } from "@mend-joint/core/piece";
import { memo } from "react";
import { rulerStep, type Size, toPiece, toScreen, type View } from "./view";

const EDGE = 22;
const PARTS = 5;

/** Ruler edges along the top and the left of the board. */
export const Rulers = memo(function Rulers({ view, size, units }: { view: View; size: Size; units: Units }) {
  const step = rulerStep(view.scale, units === "in");
  const unit = units === "in" ? 25.4 : 1;
  const topLeft = toPiece(view, size, { x: 0, y: 0 });
  const bottomRight = toPiece(view, size, { x: size.width, y: size.height });
  const marks = (from: number, to: number) => {
    const list: { value: number; long: boolean }[] = [];
    const first = Math.ceil((from * PARTS) / step);
    const last = Math.floor((to * PARTS) / step);
    for (let i = first; i <= last; i++) list.push({ value: (i * step) / PARTS, long: i % PARTS === 0 });
    return list;
  };
  const label = (value: number) => String(Number((value / unit).toFixed(3)));
  return (
    <g aria-hidden="true" className="figure" fontSize={10} fill="var(--color-quiet)" stroke="none">
      <rect x={0} y={0} width={size.width} height={EDGE} fill="var(--color-film)" />
      <rect x={0} y={0} width={EDGE} height={size.height} fill="var(--color-film)" />
      {marks(topLeft.x, bottomRight.x).map(({ value, long }) => {
        const { x } = toScreen(view, size, { x: value, y: 0 });
        if (x < EDGE) return null;
        return (
          <g key={value}>
            <line x1={x} x2={x} y1={long ? 8 : 16} y2={EDGE} stroke="var(--color-quiet)" strokeWidth={long ? 1 : 0.6} />
            {long && (
              <text x={x + 3} y={13}>
                {label(value)}
              </text>
            )}
          </g>
        );
      })}
      {marks(bottomRight.y, topLeft.y).map(({ value, long }) => {
        const { y } = toScreen(view, size, { x: 0, y: value });
        if (y < EDGE + 6) return null;
        return (
          <g key={value}>
            <line y1={y} y2={y} x1={long ? 8 : 16} x2={EDGE} stroke="var(--color-quiet)" strokeWidth={long ? 1 : 0.6} />
            {long && (
              <text x={11} y={y - 3} transform={`rotate(-90 11 ${y - 3})`}>
                {label(value)}
              </text>
            )}
          </g>
        );
      })}
      <path d={`M${EDGE} ${size.height}V${EDGE}H${size.width}`} fill="none" stroke="var(--color-rule)" />
      <rect x={0} y={0} width={EDGE} height={EDGE} fill="var(--color-film)" />
      <text x={EDGE / 2} y={14} textAnchor="middle" fontSize={9}>
        {units}
      </text>
    </g>
  );
});
