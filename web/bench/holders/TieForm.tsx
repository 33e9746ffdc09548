import type { Fill, Tie } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
import { HolderForm } from "./HolderForm";

export function TieForm({ tie }: { tie: Tie }) {
  return (
    <HolderForm id={tie.id} title="Tie">
      <LengthField
        label="Width"
        value={tie.width}
        least={0.1}
        most={100}
        step={0.1}
        onChange={(width) => changePart<Tie>(tie.id, (old) => ({ ...old, width }))}
        hint="Drag it on the piece. It follows the letters that it sits on."
      />
    </HolderForm>
  );
}

export function FillForm({ fill }: { fill: Fill }) {
  const set = (change: Partial<Fill>) => changePart<Fill>(fill.id, (old) => ({ ...old, ...change }));
  return (
    <HolderForm id={fill.id} title="Filling">
      <div className="grid grid-cols-2 gap-x-4">
        <LengthField
          label="Gaps up to"
          value={fill.width}
          least={0.05}
          most={20}
          step={0.05}
          onChange={(width) => set({ width })}
        />
        <LengthField label="Around" value={fill.reach} least={0.1} most={100} onChange={(reach) => set({ reach })} />
      </div>
    </HolderForm>
  );
}
