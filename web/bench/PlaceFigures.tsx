import type { Point } from "@mend-joint/core/geometry";
import { type Part, partBounds } from "@mend-joint/core/piece";
import { LengthField } from "../ui/LengthField";
import { Two } from "../ui/Two";

interface Props {
  at: Point;
  /** Where in the schema the place is. */
  within: readonly [kind: Part["kind"], ...path: string[]];
  /** How the two figures are called. */
  labels?: readonly [right: string, up: string];
  onChange(change: Partial<Point>): void;
}

/** A place on the piece by its two figures. */
export function PlaceFigures({ at, within, labels = ["Right", "Up"], onChange }: Props) {
  return (
    <Two>
      <LengthField label={labels[0]} value={at.x} {...partBounds(...within, "x")} onChange={(x) => onChange({ x })} />
      <LengthField label={labels[1]} value={at.y} {...partBounds(...within, "y")} onChange={(y) => onChange({ y })} />
    </Two>
  );
}
