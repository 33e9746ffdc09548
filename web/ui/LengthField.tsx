import { editableNumber, formatLength, parseLength } from "@mend-joint/core/piece";
import { useBench } from "../state/bench";
import { FigureField, type FigureProps } from "./FigureField";

/** A length in mm that can be typed as it is spoken: 12, 1/4 in, 3.5 mm. */
export function LengthField(props: FigureProps) {
  const units = useBench((state) => state.units);
  return (
    <FigureField
      {...props}
      notation={{
        unit: units,
        write: (mm) => editableNumber(mm, units),
        read: (text) => parseLength(text, units),
        say: (mm) => formatLength(mm, units),
        example: "12 mm or 1/2 in",
      }}
    />
  );
}
