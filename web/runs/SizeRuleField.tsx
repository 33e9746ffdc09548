import type { SizeRule } from "@mend-joint/core/runs";
import { LengthField } from "../ui/LengthField";
import { Pick } from "../ui/Pick";

const RULES = [
  { value: "design", text: "as the design has it" },
  { value: "width", text: "all equally wide" },
  { value: "height", text: "all equally high" },
  { value: "letters", text: "letters equally large" },
] as const;

const NOTES: Record<SizeRule["by"], string> = {
  design: "",
  width: "Long names get smaller letters; what cannot survive at that size is told.",
  height: "Long names get wider.",
  letters: "Long names get wider, and so does what holds them.",
};

/** How large the pieces of a run are. */
export function SizeRuleField({ size, onChange }: { size: SizeRule; onChange(size: SizeRule): void }) {
  const choose = (by: SizeRule["by"]) =>
    onChange(by === "width" || by === "height" ? { by, mm: by === "width" ? 120 : 60 } : { by });
  return (
    <div className="flex flex-col gap-2">
      <Pick label="Size of the pieces" value={size.by} options={RULES} onChange={choose} />
      {NOTES[size.by] && <p className="text-[13px] text-quiet">{NOTES[size.by]}</p>}
      {"mm" in size && (
        <LengthField
          label={size.by === "width" ? "Width of each piece" : "Height of each piece"}
          value={size.mm}
          least={5}
          most={2000}
          onChange={(mm) => onChange({ by: size.by, mm })}
        />
      )}
    </div>
  );
}
