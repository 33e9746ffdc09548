import { useId } from "react";
import { LOOKS, MaterialPattern } from "./materials";

/** A round of a sheet. */
export function Swatch({ material, size = 36 }: { material: keyof typeof LOOKS; size?: number }) {
  const id = useId();
  return (
    <svg width={size} height={size} viewBox="8 4 24 24" className="shrink-0" aria-hidden="true">
      <defs>
        <MaterialPattern id={id} material={material} />
      </defs>
      <circle cx={20} cy={16} r={11} fill={`url(#${CSS.escape(id)})`} stroke={LOOKS[material].edge} strokeWidth={0.8} />
    </svg>
  );
}
