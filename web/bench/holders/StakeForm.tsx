import type { Stake } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { boxOf } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { Two } from "../../ui/Two";
import { PartOutcomes } from "../Outcomes";
import { changePart } from "../parts";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";

export function StakeForm({ stake }: { stake: Stake }) {
  const set = (change: Partial<Stake>) => changePart<Stake>(stake.id, (old) => ({ ...old, ...change }));
  // The whole length begins with the present one; before that has been measured, nothing changes.
  const lengthNow = () => {
    const box = boxOf(stake.id);
    return box ? Math.round(box.width * 100) / 100 : stake.total;
  };
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return (
          <Two>
            <PartLength part={stake} field="below" label="Body below the letters" />
            <PartLength part={stake} field="margin" label="Body on either side" />
          </Two>
        );
      case "bite":
        return <PartLength part={stake} field="bite" label="Letters bite in" />;
      case "gap":
        return (
          <>
            <PartOutcomes
              part={stake}
              label="Clear space"
              value={stake.clear ?? "around"}
              options={[
                { value: "around", text: "on both sides" },
                { value: "left", text: "at the left" },
                { value: "right", text: "at the right" },
              ]}
              change={(value) => ({ clear: value === "around" ? undefined : value })}
            />
            <PartLength part={stake} field="gap" label="Clear around them" />
          </>
        );
      case "point":
        return (
          <>
            <Choice
              label="Held is"
              value={stake.total === undefined ? "point" : "total"}
              options={[
                { value: "point", text: "the pointed end" },
                { value: "total", text: "the whole length" },
              ]}
              onChange={(value) => set({ total: value === "total" ? lengthNow() : undefined })}
            />
            {stake.total === undefined ? (
              <PartLength part={stake} field="point" label="Pointed end" />
            ) : (
              <PartLength part={stake} field="total" label="Whole length" step={1} />
            )}
          </>
        );
      default:
        return <PartLength part={stake} field="corner" label="Corner radius" />;
    }
  };
  return <HolderForm part={stake} title="Flat stake" edit={edit} />;
}
