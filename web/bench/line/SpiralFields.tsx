import { partBounds, type SpiralPath } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Two } from "../../ui/Two";
import { LineFields } from "./AlongFields";

/** Letters along a spiral. */
export function SpiralFields({ path, set }: { path: SpiralPath; set(change: Partial<SpiralPath>): void }) {
  return (
    <>
      <Two>
        <LengthField
          label="Begins at radius"
          value={path.radius}
          {...partBounds("word", "path", "spiral", "radius")}
          step={1}
          onChange={(radius) => set({ radius })}
        />
        <LengthField
          label="From turn to turn"
          value={path.pitch}
          {...partBounds("word", "path", "spiral", "pitch")}
          step={1}
          onChange={(pitch) => set({ pitch })}
          hint="below 0 inwards"
        />
        <NumberField
          label="Begins at"
          unit="°"
          value={path.angle}
          {...partBounds("word", "path", "spiral", "angle")}
          onChange={(angle) => set({ angle })}
        />
      </Two>
      <LineFields path={path} set={set} />
    </>
  );
}
