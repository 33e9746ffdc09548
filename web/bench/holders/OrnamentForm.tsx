import type { Ornament } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { toast } from "sonner";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { bestBridgePlace } from "../../workers/examiner";
import { PartOutcomes } from "../Outcomes";
import { PlaceFigures } from "../PlaceFigures";
import { changePart } from "../parts";
import { SymbolChoice } from "../SymbolMenu";
import { Follows } from "./Follows";
import { PartAngle, PartLength, YesOrNo } from "./fields";
import { HolderForm } from "./HolderForm";

export function OrnamentForm({ ornament }: { ornament: Ornament }) {
  const set = (change: Partial<Ornament>) => changePart<Ornament>(ornament.id, (old) => ({ ...old, ...change }));
  const bridge = async () => {
    const { piece } = usePiece.getState();
    const at = piece && (await bestBridgePlace(piece, ornament.id));
    if (at) set({ at, meets: "add", closes: false });
    else toast("It is joined where it is, and there is nothing loose or weak that it could bridge at this size.");
  };
  const place = (change: Partial<Ornament["at"]>) =>
    changePart<Ornament>(ornament.id, (old) => ({ ...old, at: { ...old.at, ...change } }));
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "form":
        return <SymbolChoice value={ornament.name} onChange={(name) => set({ name })} />;
      case "size":
        return <PartLength part={ornament} field="height" label="Height" />;
      case "turn":
        return (
          <>
            <PartAngle part={ornament} field="turn" label="Turned" />
            <YesOrNo label="Mirrored" value={ornament.mirror} onChange={(mirror) => set({ mirror })} />
          </>
        );
      case "place":
        return (
          <>
            <PlaceFigures at={ornament.at} within={["ornament", "at"]} onChange={place} />
            <Follows at={ornament.at} onChange={(at) => set({ at })} />
          </>
        );
      case "round":
        return <PartLength part={ornament} field="round" label="Round points by" step={0.1} />;
      default:
        return (
          <>
            <PartOutcomes
              part={ornament}
              label="It"
              around={ornament.id}
              value={ornament.meets === "carve" && ornament.closes ? "counter" : ornament.meets}
              options={[
                { value: "add", text: "joins" },
                { value: "carve", text: "is knocked out" },
                { value: "counter", text: "takes a counter’s place" },
                { value: "halo", text: "stands in a gap" },
              ]}
              change={(value) =>
                value === "counter" ? { meets: "carve" as const, closes: true } : { meets: value, closes: false }
              }
            />
            {ornament.meets === "halo" && <PartLength part={ornament} field="gap" label="Gap around it" step={0.1} />}
          </>
        );
    }
  };
  return (
    <HolderForm part={ornament} title="Ornament" edit={edit}>
      <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void bridge()}>
        Put it where it joins most
      </Button>
    </HolderForm>
  );
}
