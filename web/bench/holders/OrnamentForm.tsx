import { type Ornament, SYMBOL_NAMES } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Pick } from "../../ui/Pick";
import { bestBridgePlace } from "../../workers/examiner";
import { changePart } from "../parts";
import { HolderForm, Two } from "./HolderForm";

export function OrnamentForm({ ornament }: { ornament: Ornament }) {
  const set = (change: Partial<Ornament>) => changePart<Ornament>(ornament.id, (old) => ({ ...old, ...change }));
  const bridge = async () => {
    const { piece } = usePiece.getState();
    const at = piece && (await bestBridgePlace(piece, ornament.id));
    if (at) set({ at, meets: "add", closes: false });
    else toast("There is nothing loose or weak that it could join at this size.");
  };
  return (
    <HolderForm id={ornament.id} title="Ornament">
      <Pick
        label="Which"
        value={ornament.name}
        options={SYMBOL_NAMES.map((value) => ({ value, text: value }))}
        onChange={(name) => set({ name })}
      />
      <Two>
        <LengthField label="Height" value={ornament.height} least={1} most={500} onChange={(height) => set({ height })} />
        <NumberField label="Turned" unit="°" value={ornament.turn} least={-180} most={180} onChange={(turn) => set({ turn })} />
        <LengthField
          label="Right"
          value={ornament.at.x}
          least={-1000}
          most={1000}
          onChange={(x) => set({ at: { ...ornament.at, x } })}
        />
        <LengthField
          label="Up"
          value={ornament.at.y}
          least={-1000}
          most={1000}
          onChange={(y) => set({ at: { ...ornament.at, y } })}
        />
        <LengthField
          label="Round points by"
          value={ornament.round}
          least={0}
          most={20}
          step={0.1}
          onChange={(round) => set({ round })}
        />
        {ornament.meets === "halo" && (
          <LengthField
            label="Gap around it"
            value={ornament.gap}
            least={0.1}
            most={100}
            step={0.1}
            onChange={(gap) => set({ gap })}
          />
        )}
      </Two>
      <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void bridge()}>
        Put it where it joins most
      </Button>
      <Choice
        label="It"
        value={ornament.meets === "carve" && ornament.closes ? "counter" : ornament.meets}
        options={[
          { value: "add", text: "joins" },
          { value: "carve", text: "is knocked out" },
          { value: "counter", text: "takes a counter’s place" },
          { value: "halo", text: "stands in a gap" },
        ]}
        onChange={(value) => set(value === "counter" ? { meets: "carve", closes: true } : { meets: value, closes: false })}
      />
      <Choice
        label="Mirrored"
        value={ornament.mirror ? "yes" : "no"}
        options={[
          { value: "no", text: "no" },
          { value: "yes", text: "yes" },
        ]}
        onChange={(value) => set({ mirror: value === "yes" })}
      />
    </HolderForm>
  );
}
