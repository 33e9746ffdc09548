import type { Bar } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
import { HolderForm } from "./HolderForm";

export function BarForm({ bar }: { bar: Bar }) {
  const set = (change: Partial<Bar>) => changePart<Bar>(bar.id, (old) => ({ ...old, ...change }));
  const fits = bar.length === "fit";
  const lengthNow = () => {
    const box = useBench.getState().examination?.solids.find(({ id }) => id === bar.id)?.region[0];
    if (!box) return 120;
    const xs = box.filter((_, i) => i % 2 === 0);
    return Math.round((Math.max(...xs) - Math.min(...xs)) * 100) / 100;
  };
  return (
    <HolderForm id={bar.id} title="Bar">
      <Choice
        label="Length"
        value={fits ? "fit" : "fixed"}
        options={[
          { value: "fit", text: "as the lettering" },
          { value: "fixed", text: "fixed" },
        ]}
        onChange={(value) => set({ length: value === "fit" ? "fit" : lengthNow() })}
      />
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        {typeof bar.length === "number" ? (
          <LengthField label="Length" value={bar.length} least={1} most={1000} step={1} onChange={(length) => set({ length })} />
        ) : (
          <LengthField
            label="Longer each end"
            value={bar.overhang}
            least={-500}
            most={500}
            onChange={(overhang) => set({ overhang })}
          />
        )}
        <LengthField label="Height" value={bar.height} least={0.5} most={500} onChange={(height) => set({ height })} />
        <LengthField
          label="Overlap"
          value={bar.overlap}
          least={-100}
          most={100}
          step={0.1}
          onChange={(overlap) => set({ overlap })}
          hint="above the baseline"
        />
        <LengthField label="Corner radius" value={bar.corner} least={0} most={250} onChange={(corner) => set({ corner })} />
      </div>
    </HolderForm>
  );
}
