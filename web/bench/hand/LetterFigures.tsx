import { type LetterChange, partBounds } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";

interface Props {
  change: LetterChange;
  set(fields: Partial<LetterChange>): void;
  /** How the gap is called. */
  gap: string;
}

/** How one letter, or several, stand beside what their line makes of them. */
export function LetterFigures({ change, set, gap }: Props) {
  return (
    <>
      <NumberField
        label="Turned"
        unit="°"
        value={change.turn ?? 0}
        {...partBounds("word", "changes", "turn")}
        onChange={(turn) => set({ turn })}
      />
      <NumberField
        label="Size"
        unit="%"
        value={Math.round((change.scale ?? 1) * 1000) / 10}
        least={10}
        most={1000}
        step={5}
        onChange={(percent) => set({ scale: percent / 100 })}
      />
      <LengthField
        label={gap}
        value={change.kern ?? 0}
        {...partBounds("word", "changes", "kern")}
        step={0.1}
        onChange={(kern) => set({ kern })}
      />
      <LengthField
        label="Stretched down"
        value={change.reach ?? 0}
        {...partBounds("word", "changes", "reach")}
        step={0.1}
        onChange={(reach) => set({ reach: reach === 0 ? undefined : reach })}
      />
    </>
  );
}
