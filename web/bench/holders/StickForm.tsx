import type { Stick } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
import { HolderForm } from "./HolderForm";

export function StickForm({ stick }: { stick: Stick }) {
  const set = (change: Partial<Stick>) => changePart<Stick>(stick.id, (old) => ({ ...old, ...change }));
  return (
    <HolderForm id={stick.id} title="Stick">
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <LengthField label="Width" value={stick.width} least={0.5} most={200} onChange={(width) => set({ width })} />
        <LengthField label="Length" value={stick.length} least={1} most={1000} step={1} onChange={(length) => set({ length })} />
        <LengthField
          label="Bite"
          value={stick.bite}
          least={-100}
          most={200}
          step={0.2}
          onChange={(bite) => set({ bite })}
          hint="into the material"
        />
        <LengthField
          label="Right of middle"
          value={stick.dx}
          least={-1000}
          most={1000}
          step={0.5}
          onChange={(dx) => set({ dx })}
        />
      </div>
      <Choice
        label="Tip"
        value={stick.tip}
        options={[
          { value: "round", text: "round" },
          { value: "pointed", text: "pointed" },
          { value: "square", text: "square" },
        ]}
        onChange={(tip) => set({ tip })}
      />
    </HolderForm>
  );
}
