import type { Stick } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { toast } from "sonner";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Two } from "../../ui/Two";
import { bestStickPlace } from "../../workers/examiner";
import { PartOutcomes } from "../Outcomes";
import { changePart } from "../parts";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";

export function StickForm({ stick }: { stick: Stick }) {
  const set = (change: Partial<Stick>) => changePart<Stick>(stick.id, (old) => ({ ...old, ...change }));
  const best = async () => {
    const { piece } = usePiece.getState();
    const dx = piece && (await bestStickPlace(piece, stick.id));
    if (typeof dx === "number") set({ dx, under: undefined });
    else
      toast("There is no place along the underside that is solid over the stick’s whole width. Make it narrower, or add a bar.");
  };
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return (
          <Two>
            <PartLength part={stick} field="width" label="Width" />
            <PartLength part={stick} field="length" label="Length" step={1} />
          </Two>
        );
      case "bite":
        return <PartLength part={stick} field="bite" label="Bite" step={0.2} hint="into the material" />;
      case "place":
        return (
          <>
            <PartOutcomes
              part={stick}
              label="It stands under"
              value={stick.under ?? "middle"}
              options={[
                { value: "middle", text: "the middle of the lettering" },
                { value: "mass", text: "the centre of mass" },
              ]}
              change={(value) => ({ under: value === "mass" ? value : undefined, dx: 0 })}
            />
            <PartLength part={stick} field="dx" label={stick.under ? "Right of it" : "Right of middle"} />
          </>
        );
      default:
        return (
          <PartOutcomes
            part={stick}
            label="Tip"
            around={stick.id}
            value={stick.tip}
            options={[
              { value: "round", text: "round" },
              { value: "pointed", text: "pointed" },
              { value: "square", text: "square" },
            ]}
            change={(tip) => ({ tip })}
          />
        );
    }
  };
  return (
    <HolderForm part={stick} title="Stick" edit={edit}>
      <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void best()}>
        Best place
      </Button>
    </HolderForm>
  );
}
