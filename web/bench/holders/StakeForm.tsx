import type { Stake } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
import { HolderForm, Two } from "./HolderForm";

/** Label, field, least, most. */
const FIELDS = [
  ["Body below the letters", "below", 1, 200],
  ["Letters bite in", "bite", -50, 50],
  ["Clear around them", "gap", 0, 100],
  ["Body on either side", "margin", 0.5, 500],
  ["Pointed end", "point", 0, 500],
  ["Corner radius", "corner", 0, 100],
] as const;

export function StakeForm({ stake }: { stake: Stake }) {
  return (
    <HolderForm id={stake.id} title="Flat stake">
      <Two>
        {FIELDS.map(([label, field, least, most]) => (
          <LengthField
            key={field}
            label={label}
            value={stake[field]}
            least={least}
            most={most}
            onChange={(mm) => changePart<Stake>(stake.id, (old) => ({ ...old, [field]: mm }))}
          />
        ))}
      </Two>
    </HolderForm>
  );
}
