import type { Examination } from "@mend-joint/core";
import { isNarrower } from "@mend-joint/core/judge";
import { formatLength, formatNumber, type Piece, type Stock, stockBounds, widthToDraw } from "@mend-joint/core/piece";
import { labelsOf } from "@mend-joint/core/report";
import { countWord, placeName, type SheetChoiceKey, sheetSentence } from "@mend-joint/core/wording";
import { lazy, Suspense } from "react";
import { pointAt, showJoint, useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { Sentence } from "../ui/Sentence";
import { WhereCutRuns } from "./WhereCutRuns";

const SHOWN = 60;
/** The chart library is large and wanted here only. */
const WidthChart = lazy(() => import("./WidthChart"));

/** What the stock asks for, and every joint there is, narrowest first. */
export function JointsStep({ piece }: { piece: Piece }) {
  const examination = useBench((state) => state.examination);
  return (
    <div className="flex flex-col gap-4">
      <SheetFigures piece={piece} />
      {examination && examination.joints.length > 1 && (
        <Suspense fallback={<div className="h-[150px]" />}>
          <WidthChart examination={examination} />
        </Suspense>
      )}
      {examination && <JointList examination={examination} />}
    </div>
  );
}

/** What the rules are reckoned from. */
function SheetFigures({ piece }: { piece: Piece }) {
  const units = useBench((state) => state.units);
  const set = (change: Partial<Stock>) => usePiece.getState().change((old) => ({ ...old, stock: { ...old.stock, ...change } }));
  const { thickness, kerf, strength, leastWidth } = piece.stock;
  const edit = (key: SheetChoiceKey) => {
    switch (key) {
      case "least":
        return (
          <LengthField
            label="Least joint width"
            value={leastWidth}
            {...stockBounds("leastWidth")}
            step={0.1}
            onChange={(mm) => set({ leastWidth: mm })}
            hint="A starting value. Change it to what your machine and your hands have taught you."
          />
        );
      case "cut":
        return <WhereCutRuns piece={piece} />;
      case "kerf":
        return (
          <LengthField
            label="Width of the cut"
            value={kerf}
            {...stockBounds("kerf")}
            step={0.01}
            onChange={(mm) => set({ kerf: mm })}
          />
        );
      case "thickness":
        return (
          <LengthField
            label="Thickness"
            value={thickness}
            {...stockBounds("thickness")}
            step={0.5}
            onChange={(mm) => set({ thickness: mm })}
          />
        );
      case "strength":
        return (
          <NumberField
            label="Bending strength"
            unit="N/mm²"
            value={strength}
            {...stockBounds("strength")}
            onChange={(value) => set({ strength: value })}
            hint="What the load test goes by. A test piece of your own sheet measures it."
          />
        );
    }
  };
  return (
    <div>
      <Sentence about="this sheet" subject="The sheet" choices={sheetSentence(piece, units)} edit={edit} />
      <p className="mt-1 text-[12px] text-quiet">
        {piece.cut === "on-line"
          ? `The cut takes ${formatLength(kerf, units, 2)} from every joint, so joints must be drawn ${formatLength(widthToDraw(piece), units, 2)} wide.`
          : "The machine makes up for the width of its cut: the piece comes out as drawn."}
      </p>
    </div>
  );
}

function JointList({ examination }: { examination: Examination }) {
  const units = useBench((state) => state.units);
  const pointedJoint = useBench((state) => state.pointedJoint);
  const labels = labelsOf(examination);
  const { joints, solids, leastWidth } = examination;
  if (joints.length === 0) return <p className="text-[13px] text-quiet">No two parts meet yet.</p>;
  const widest = Math.max(leastWidth * 2, ...joints.slice(0, SHOWN).map((joint) => joint.width));
  return (
    <ol className="-mx-2 flex flex-col">
      {joints.slice(0, SHOWN).map((joint, j) => {
        const weak = isNarrower(joint.width, leastWidth);
        const name = placeName(
          joint.parts.map((i) => solids[i]!.id),
          labels,
        );
        return (
          <li key={`${joint.from.x} ${joint.from.y} ${joint.to.x}`}>
            <button
              type="button"
              className={`grid w-full grid-cols-[1fr_64px_52px] items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-ink/6 ${pointedJoint === j ? "bg-focus/12" : ""}`}
              onPointerEnter={() => pointAt([], j)}
              onPointerLeave={() => pointAt([])}
              onFocus={() => pointAt([], j)}
              onBlur={() => pointAt([])}
              onClick={() => showJoint(joint)}
            >
              <span className="min-w-0 text-[14px]">
                <span className="sr-only">Show the joint </span>
                <span className="block truncate">{name}</span>
                {joint.takes.length > 0 && (
                  <span className="block truncate text-[12px] text-quiet">
                    {joint.takes.length === 1 ? "one part hangs on it" : `${countWord(joint.takes.length)} parts hang on it`}
                  </span>
                )}
              </span>
              <span className="relative h-2 rounded-full bg-ink/8">
                <span
                  className={`absolute inset-y-0 left-0 rounded-full ${weak ? "bg-weak" : "bg-holds"}`}
                  style={{ width: `${(100 * joint.width) / widest}%` }}
                />
                <span className="absolute -inset-y-0.5 w-px bg-ink" style={{ left: `${(100 * leastWidth) / widest}%` }} />
              </span>
              <span className={`figure text-right text-[13px] ${weak ? "font-semibold text-weak" : ""}`}>
                {formatNumber(joint.width, units, 2)}
                {weak && <span className="sr-only">, weak</span>}
              </span>
            </button>
          </li>
        );
      })}
      {joints.length > SHOWN && <li className="px-2 pt-1 text-[12px] text-quiet">and {joints.length - SHOWN} wider ones</li>}
    </ol>
  );
}
