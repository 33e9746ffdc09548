import type { Bar } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { boxOf } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { changePart } from "../parts";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";

export function BarForm({ bar }: { bar: Bar }) {
  const set = (length: Bar["length"]) => changePart<Bar>(bar.id, (old) => ({ ...old, length }));
  // A length of its own begins with the present one; before that has been measured, nothing changes.
  const lengthNow = (): Bar["length"] => {
    const box = boxOf(bar.id);
    return box ? Math.round(box.width * 100) / 100 : bar.length;
  };
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return (
          <>
            <Choice
              label="Length"
              value={bar.length === "fit" ? "fit" : "fixed"}
              options={[
                { value: "fit", text: "as the lettering" },
                { value: "fixed", text: "fixed" },
              ]}
              onChange={(value) => set(value === "fit" ? "fit" : lengthNow())}
            />
            {bar.length === "fit" ? (
              <PartLength part={bar} field="overhang" label="Longer each end" />
            ) : (
              <PartLength part={{ ...bar, length: bar.length }} field="length" label="Length" step={1} />
            )}
          </>
        );
      case "height":
        return <PartLength part={bar} field="height" label="Height" />;
      case "overlap":
        return <PartLength part={bar} field="overlap" label="Overlap" step={0.1} hint="above the baseline" />;
      default:
        return <PartLength part={bar} field="corner" label="Corner radius" />;
    }
  };
  return <HolderForm part={bar} title="Bar" edit={edit} />;
}
