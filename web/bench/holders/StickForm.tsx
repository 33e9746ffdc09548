import type { Stick } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { bestStickPlace } from "../../workers/examiner";
import { changePart } from "../parts";
import { HolderForm } from "./HolderForm";

export function StickForm({ stick }: { stick: Stick }) {
  const set = (change: Partial<Stick>) => changePart<Stick>(stick.id, (old) => ({ ...old, ...change }));
  const best = async () => {
    const { piece } = usePiece.getState();
    const dx = piece && (await bestStickPlace(piece, stick.id));
    if (typeof dx === "number") set({ dx });
    else
      toast("There is no place along the underside that is solid over the stick’s whole width. Make it narrower, or add a bar.");
  };
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
      <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void best()}>
        Best place
      </Button>
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
