import type { RingSize } from "@mend-joint/core/mend";
import { type ArcPath, LIMITS, LINE_WIDTH, partBounds, SECOND_RING, type Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Two } from "../../ui/Two";
import { ringOfSize } from "../../workers/examiner";
import { changeBy } from "../parts";
import { LineFields, SideAndReading, Spread } from "./AlongFields";

/** Letters along an arc or round a ring, or between two. */
export function ArcFields({ word, path, set }: { word: Word; path: ArcPath; set(change: Partial<ArcPath>): void }) {
  return (
    <>
      <RingSizeFields word={word} />
      <Two>
        <LengthField
          label="Radius"
          value={path.radius}
          {...partBounds("word", "path", "arc", "radius")}
          step={1}
          onChange={(radius) => set({ radius })}
        />
        <NumberField
          label="Middle at"
          unit="°"
          value={path.angle}
          {...partBounds("word", "path", "arc", "angle")}
          onChange={(angle) => set({ angle })}
          hint="90 top, 270 bottom"
        />
      </Two>
      <SideAndReading of="ring" path={path} set={set} />
      <Spread of="ring" path={path} set={set} />
      <LineFields path={path} set={set} />
      <Choice
        label="A second ring"
        value={path.between ? "yes" : "no"}
        options={[
          { value: "no", text: "none" },
          { value: "yes", text: "letters between two rings" },
        ]}
        onChange={(value) =>
          set(value === "yes" ? { between: SECOND_RING, line: path.line ?? LINE_WIDTH, distance: 0 } : { between: undefined })
        }
      />
      {path.between && <BetweenFields between={path.between} set={(between) => set({ between })} />}
    </>
  );
}

/** Diameters of the whole ring. Letters grow and shrink with what lies between the two. */
function RingSizeFields({ word }: { word: Word }) {
  const ring = useBench((state) => state.examination?.words.find(({ wordId }) => wordId === word.id)?.ring);
  if (!ring) return null;
  const set = (wanted: RingSize) =>
    changeBy((piece) => ringOfSize(piece, word.id, wanted), "The letters leave no room for that: make the hole smaller.");
  const [outer, hole] = [ring.outer, ring.inner].map((radius) => Math.round(200 * radius) / 100) as [number, number];
  return (
    <Two>
      <LengthField
        label="Outer diameter"
        value={outer}
        least={Math.min(outer, hole + 1)}
        most={2 * LIMITS.coordinate}
        step={1}
        onChange={(mm) => void set({ outer: mm })}
      />
      <LengthField
        label="Hole"
        value={hole}
        least={0}
        most={Math.max(hole, outer - 1)}
        step={1}
        hint="letters fill what is between"
        onChange={(mm) => void set({ hole: mm })}
      />
    </Two>
  );
}

type Between = NonNullable<ArcPath["between"]>;

function BetweenFields({ between, set }: { between: Between; set(between: Between): void }) {
  return (
    <Two>
      <LengthField
        label="Between the rings"
        value={between.gap}
        {...partBounds("word", "path", "arc", "between", "gap")}
        onChange={(gap) => set({ ...between, gap })}
      />
      <LengthField
        label="Letters bite in"
        value={between.bite}
        {...partBounds("word", "path", "arc", "between", "bite")}
        step={0.1}
        onChange={(bite) => set({ ...between, bite })}
      />
      <LengthField
        label="Second ring"
        value={between.line}
        {...partBounds("word", "path", "arc", "between", "line")}
        onChange={(line) => set({ ...between, line })}
        hint="its width"
      />
    </Two>
  );
}
