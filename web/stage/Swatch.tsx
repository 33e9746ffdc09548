import { useId } from "react";
import { lookOf, MaterialPattern, type SheetLook } from "./materials";

/** A round of a sheet. */
export function Swatch({ sheet, size = 36 }: { sheet: SheetLook; size?: number }) {
  const id = useId();
  return (
    <svg width={size} height={size} viewBox="8 4 24 24" className="shrink-0" aria-hidden="true">
      <defs>
        <MaterialPattern id={id} sheet={sheet} />
      </defs>
      <circle cx={20} cy={16} r={11} fill={`url(#${CSS.escape(id)})`} stroke={lookOf(sheet).edge} strokeWidth={0.8} />
    </svg>
  );
}
