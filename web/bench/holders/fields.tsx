import { type Part, partBounds } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { changePart } from "../parts";

/** The names of the fields of a part that are figures. */
type FigureKey<P> = { [K in keyof P]-?: Exclude<P[K], undefined> extends number ? K : never }[keyof P] & string;

interface PartFieldProps<P extends Part> {
  part: P;
  field: FigureKey<P>;
  label: string;
  step?: number;
  hint?: string;
}

const figureOf = <P extends Part>(part: P, field: FigureKey<P>): number => (part[field] as number | undefined) ?? 0;

const setFigure = <P extends Part>({ id }: P, field: FigureKey<P>, figure: number) =>
  changePart<P>(id, (old) => ({ ...old, [field]: figure }));

/** A length of a part, within the bounds of its schema. */
export function PartLength<P extends Part>({ part, field, ...shown }: PartFieldProps<P>) {
  return (
    <LengthField
      {...shown}
      {...partBounds(part.kind, field)}
      value={figureOf(part, field)}
      onChange={(mm) => setFigure(part, field, mm)}
    />
  );
}

/** An angle of a part, degrees. */
export function PartAngle<P extends Part>({ part, field, ...shown }: PartFieldProps<P>) {
  return (
    <NumberField
      {...shown}
      {...partBounds(part.kind, field)}
      unit="°"
      value={figureOf(part, field)}
      onChange={(degrees) => setFigure(part, field, degrees)}
    />
  );
}

/** One of two, as yes and no. */
export function YesOrNo({ label, value, onChange }: { label: string; value: boolean; onChange(value: boolean): void }) {
  return (
    <Choice
      label={label}
      value={value ? "yes" : "no"}
      options={[
        { value: "no", text: "no" },
        { value: "yes", text: "yes" },
      ]}
      onChange={(next) => onChange(next === "yes")}
    />
  );
}
