/**
 * What several kinds of line have in common: on which side letters stand, how they are spread, how far they keep from the line.
 */
import { type ArcPath, type CurvePath, LINE_WIDTH, partBounds, type SpiralPath } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Two } from "../../ui/Two";

interface Sided {
  side: ArcPath["side"];
  reading: ArcPath["reading"];
}

/** Whether letters are spread over the whole of a closed line. */
export function Spread({
  of,
  path,
  set,
}: {
  of: "ring" | "outline";
  path: { around: boolean };
  set(change: { around: boolean }): void;
}) {
  return (
    <Choice
      label="Spacing"
      value={path.around ? "around" : "natural"}
      options={[
        { value: "natural", text: "as set above" },
        { value: "around", text: of === "ring" ? "spread to close the ring" : "spread all round it" },
      ]}
      onChange={(value) => set({ around: value === "around" })}
    />
  );
}

/** On which side letters stand, and to which their heads point. */
export function SideAndReading({
  of,
  path: { side, reading },
  set,
}: {
  of: "ring" | "outline";
  path: Sided;
  set(change: Partial<Sided & { angle: number }>): void;
}) {
  return (
    <>
      <Choice
        label={`Side of the ${of}`}
        value={side}
        options={[
          { value: "outside", text: "outside" },
          { value: "inside", text: "inside" },
        ]}
        onChange={(next) => set({ side: next })}
      />
      <Choice
        label="Read"
        value={reading}
        options={[
          { value: "clockwise", text: "along the top" },
          { value: "counter-clockwise", text: "along the bottom" },
        ]}
        onChange={(next) => set({ reading: next, angle: next === "clockwise" ? 90 : 270 })}
      />
    </>
  );
}

type LinedPath = ArcPath | CurvePath | SpiralPath;

/** How far the letters keep from their line, and whether it is cut. */
export function LineFields({ path, set }: { path: LinedPath; set(change: Partial<LinedPath>): void }) {
  return (
    <>
      <Choice
        label="The line itself"
        value={path.line === undefined ? "guide" : "cut"}
        options={[
          { value: "guide", text: "only guides" },
          { value: "cut", text: "is cut and holds" },
        ]}
        onChange={(value) => set({ line: value === "cut" ? LINE_WIDTH : undefined })}
      />
      <Two>
        <LengthField
          label="Distance from it"
          value={path.distance}
          {...partBounds("word", "path", path.kind, "distance")}
          step={0.1}
          onChange={(distance) => set({ distance })}
          hint="below 0 into it"
        />
        {path.line !== undefined && (
          <LengthField
            label="Width of the line"
            value={path.line}
            {...partBounds("word", "path", path.kind, "line")}
            onChange={(line) => set({ line })}
          />
        )}
      </Two>
    </>
  );
}
