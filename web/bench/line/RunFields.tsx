import { parsePathData } from "@mend-joint/core/geometry";
import type { RingSize } from "@mend-joint/core/mend";
import {
  type ArcPath,
  type CurvePath,
  type DrawingPart,
  LIMITS,
  type OutlinePath,
  type PathKind,
  partBounds,
  type SpiralPath,
  type Word,
  type WordPath,
} from "@mend-joint/core/piece";
import { useMemo } from "react";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Pick } from "../../ui/Pick";
import { Two } from "../../ui/Two";
import { ringOfSize } from "../../workers/examiner";
import { Outcomes } from "../Outcomes";
import { changeBy, changePart, withPart } from "../parts";

/** What the letters of a word stand on. */
export function RunFields({ word }: { word: Word }) {
  const kind = word.path?.kind ?? "straight";
  const drawings = useDrawings();
  return (
    <>
      <Outcomes
        label="Letters run"
        around={word.id}
        value={kind}
        options={[
          { value: "straight", text: "straight" },
          { value: "stacked", text: "downwards, one below the other" },
          { value: "arc", text: "along an arc or round a ring" },
          { value: "curve", text: "along a curve of your own" },
          { value: "spiral", text: "along a spiral" },
          ...(drawings.length > 0 || kind === "outline"
            ? [{ value: "outline" as const, text: "round a drawing’s outline" }]
            : []),
        ]}
        apply={(piece, next) => withPart<Word>(piece, word.id, (old) => (next === kind ? old : withPath(old, next, drawings[0])))}
      />
      {word.path && <PathFields word={word} path={word.path} />}
    </>
  );
}

function PathFields({ word, path }: { word: Word; path: WordPath }) {
  const set = <P extends WordPath>(change: Partial<P>) =>
    changePart<Word>(word.id, (old) => (old.path ? { ...old, path: { ...old.path, ...change } as WordPath } : old));
  switch (path.kind) {
    case "stacked":
      return (
        <LengthField
          label="Joint from letter to letter"
          value={path.joint}
          {...partBounds("word", "path", "stacked", "joint")}
          step={0.1}
          onChange={(joint) => set({ joint })}
          hint="Each comes up until it bites so wide into the one above."
        />
      );
    case "arc":
      return <ArcFields word={word} path={path} set={set<ArcPath>} />;
    case "curve":
      return (
        <>
          <p className="text-[12px] text-quiet">Drag the points on the piece. Letters stand on the curve and stay undistorted.</p>
          <div className="flex gap-1">
            <Button
              look="quiet"
              className="-ml-3 h-8 px-3"
              disabled={path.points.length >= LIMITS.nodes}
              onClick={() => set<CurvePath>({ points: onePointMore(path) })}
            >
              Add a point
            </Button>
            <Button
              look="quiet"
              className="h-8 px-3"
              disabled={path.points.length <= 2}
              onClick={() => set<CurvePath>({ points: path.points.slice(0, -1) })}
            >
              Take the last away
            </Button>
          </div>
          <LineFields path={path} set={set} />
        </>
      );
    case "spiral":
      return <SpiralFields path={path} set={set<SpiralPath>} />;
    case "outline":
      return <OutlineFields path={path} set={set<OutlinePath>} />;
  }
}

function ArcFields({ word, path, set }: { word: Word; path: ArcPath; set(change: Partial<ArcPath>): void }) {
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
          set(
            value === "yes"
              ? { between: { gap: 15, bite: 1.5, line: 4 }, line: path.line ?? 4, distance: 0 }
              : { between: undefined },
          )
        }
      />
      {path.between && <BetweenFields between={path.between} set={(between) => set({ between })} />}
    </>
  );
}

/** Drawings that a line can go round: one that sits on a letter goes where that goes. */
function useDrawings(): readonly DrawingPart[] {
  const parts = usePiece((state) => state.piece?.parts);
  return (parts ?? []).filter((part): part is DrawingPart => part.kind === "drawing" && !part.at.letter);
}

function OutlineFields({ path, set }: { path: OutlinePath; set(change: Partial<OutlinePath>): void }) {
  const drawings = useDrawings();
  const drawing = drawings.find(({ id }) => id === path.drawing);
  const outline = drawing?.outline;
  const count = useMemo(() => (outline ? (parsePathData(outline)?.length ?? 1) : 1), [outline]);
  return (
    <>
      {!drawing && (
        <p className="text-[13px] text-falls">
          Its drawing is gone, so the letters stand straight. Choose another, or another way to run.
        </p>
      )}
      {(drawings.length > 1 || !drawing) && (
        <Pick
          label="Round"
          value={drawing?.id ?? ""}
          options={[
            ...(drawing ? [] : [{ value: "", text: "choose a drawing" }]),
            ...drawings.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onChange={(id) => id !== "" && set({ drawing: id, number: 0 })}
        />
      )}
      {count > 1 && (
        <Pick
          label="Which outline"
          value={String(Math.min(path.number, count - 1))}
          options={Array.from({ length: Math.min(count, LIMITS.numbered + 1) }, (_, i) => ({
            value: String(i),
            text: i === 0 ? "the largest" : `number ${i + 1} by size`,
          }))}
          onChange={(value) => set({ number: Number(value) })}
        />
      )}
      <Two>
        <LengthField
          label="Distance from it"
          value={path.distance}
          {...partBounds("word", "path", "outline", "distance")}
          step={0.1}
          onChange={(distance) => set({ distance })}
          hint="below 0 into it"
        />
        <NumberField
          label="Middle at"
          unit="°"
          value={path.angle}
          {...partBounds("word", "path", "outline", "angle")}
          onChange={(angle) => set({ angle })}
          hint="90 top, 270 bottom"
        />
      </Two>
      <SideAndReading of="outline" path={path} set={set} />
      <Spread of="outline" path={path} set={set} />
    </>
  );
}

interface Sided {
  side: ArcPath["side"];
  reading: ArcPath["reading"];
}

/** Whether letters are spread over the whole of a closed line. */
function Spread({
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
function SideAndReading({
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
        most={2 * LIMITS.reach}
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

function SpiralFields({ path, set }: { path: SpiralPath; set(change: Partial<SpiralPath>): void }) {
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

type LinedPath = ArcPath | CurvePath | SpiralPath;

/** How far the letters keep from their line, and whether it is cut. */
function LineFields({ path, set }: { path: LinedPath; set(change: Partial<LinedPath>): void }) {
  return (
    <>
      <Choice
        label="The line itself"
        value={path.line === undefined ? "guide" : "cut"}
        options={[
          { value: "guide", text: "only guides" },
          { value: "cut", text: "is cut and holds" },
        ]}
        onChange={(value) => set({ line: value === "cut" ? 4 : undefined })}
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

function onePointMore({ points }: CurvePath): CurvePath["points"] {
  const [before, last] = points.slice(-2) as [CurvePath["points"][number], CurvePath["points"][number]];
  const next = { x: 2 * last.x - before.x, y: before.y };
  return [...points, { x: Math.min(LIMITS.reach, next.x), y: next.y }];
}

/** A line of another kind, about as long as the word is now. */
function withPath(word: Word, kind: PathKind | "straight", drawing: DrawingPart | undefined): Word {
  const { path: _, ...plain } = word;
  if (kind === "straight") return plain;
  const layout = useBench.getState().examination?.words.find(({ wordId }) => wordId === word.id);
  const width = Math.round(layout?.box ? layout.box.maxX - layout.box.minX : 100);
  const from = { distance: 0 };
  switch (kind) {
    case "stacked":
      return { ...plain, path: { kind, joint: 2 }, size: word.size.by === "width" ? { by: "cap-height", mm: 20 } : word.size };
    case "arc":
      return {
        ...plain,
        path: {
          kind,
          radius: Math.max(10, Math.round(width * 0.5)),
          angle: 90,
          side: "outside",
          reading: "clockwise",
          around: false,
          ...from,
        },
      };
    case "curve":
      return {
        ...plain,
        path: {
          kind,
          points: [
            { x: -width * 0.55, y: 0 },
            { x: -width * 0.18, y: width * 0.1 },
            { x: width * 0.18, y: -width * 0.1 },
            { x: width * 0.55, y: 0 },
          ].map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) })),
          ...from,
        },
      };
    case "outline":
      return {
        ...plain,
        path: {
          kind,
          drawing: drawing?.id ?? "drawing",
          number: 0,
          angle: 90,
          side: "outside",
          reading: "clockwise",
          around: false,
          ...from,
        },
        size: word.size.by === "cap-height" ? word.size : { by: "cap-height", mm: 15 },
        at: { x: 0, y: 0 },
      };
    case "spiral":
      return {
        ...plain,
        path: { kind, radius: Math.max(8, Math.round(width * 0.12)), pitch: 30, angle: 90, ...from },
        align: "left",
      };
  }
}
