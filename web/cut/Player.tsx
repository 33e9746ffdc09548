/**
 * A job as it is cut: what is done, where the head is, what has dropped, what remains.
 */
import type { LinePurpose } from "@mend-joint/core/cut";
import { type Box, regionBox } from "@mend-joint/core/geometry";
import { headAt, type Job, type Run } from "@mend-joint/core/machine";
import { useEffect, useMemo, useRef, useState } from "react";
import { lookOf, MaterialPattern, type SheetLook } from "../stage/materials";
import { linePath, regionPath } from "../stage/paths";
import { fitView } from "../stage/view";
import type { CutJob } from "../state/api";
import { useSize } from "../ui/useSize";

const COLOURS: Record<LinePurpose, string> = {
  cut: "var(--color-ink)",
  score: "var(--color-focus)",
  engrave: "var(--color-quiet)",
};

/** Pieces that have dropped lie a little lower: by so much of the drawing's longer side. */
const DROPPED = 0.012;

export function Player({ job, trial, sheet }: { job: CutJob; trial: { job: Job; run: Run }; sheet: SheetLook }) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const seconds = useClock(job);
  const { run } = trial;
  const paths = useMemo(() => run.strokes.map(({ points, closed }) => linePath(points) + (closed ? "Z" : "")), [run]);
  const box: Box = { minX: 0, minY: -trial.job.height, maxX: trial.job.width, maxY: 0 };
  const view = fitView(box, size, 70);
  const { stroke, share } = headAt(run, seconds);
  const now = run.strokes[stroke];
  const part = now && partOf(now.points, now.closed, share);
  const gone = run.drops.filter(({ at }) => at <= seconds);
  const head = part ? { x: part[part.length - 2]!, y: part[part.length - 1]! } : null;
  return (
    <div ref={frame} className="absolute inset-0" data-testid="player">
      {size.width > 0 && (
        <svg width={size.width} height={size.height} role="img" aria-label={`${job.name} on the bed of the trial cutter`}>
          <defs>
            <MaterialPattern id="bed-sheet" sheet={sheet} />
          </defs>
          <g
            transform={`translate(${size.width / 2} ${size.height / 2}) scale(${view.scale}) translate(${-view.x} ${view.y})`}
            strokeLinejoin="round"
          >
            <rect
              x={-3}
              y={-3}
              width={trial.job.width + 6}
              height={trial.job.height + 6}
              fill="url(#bed-sheet)"
              fillOpacity={0.55}
              stroke={lookOf(sheet).edge}
              vectorEffect="non-scaling-stroke"
            />
            {gone.map(({ region, kind, at }) => (
              <g key={`${at} ${regionBox(region)!.minX}`} fillRule="evenodd">
                <path d={regionPath(region)} fill="var(--color-film)" />
                {kind === "piece" && (
                  <path
                    d={regionPath(region)}
                    transform={`translate(0 ${DROPPED * Math.max(trial.job.width, trial.job.height)})`}
                    fill="url(#bed-sheet)"
                    stroke={lookOf(sheet).edge}
                    strokeWidth={1}
                    vectorEffect="non-scaling-stroke"
                    data-dropped=""
                  />
                )}
              </g>
            ))}
            <path
              d={paths.slice(stroke).join("")}
              fill="none"
              stroke="var(--color-quiet)"
              strokeOpacity={0.35}
              strokeWidth={1}
              vectorEffect="non-scaling-stroke"
            />
            {(["engrave", "score", "cut"] as const).map((purpose) => (
              <path
                key={purpose}
                d={paths.filter((_, i) => i < stroke && run.strokes[i]!.purpose === purpose).join("")}
                fill="none"
                stroke={COLOURS[purpose]}
                strokeWidth={purpose === "cut" ? 1.8 : 1.1}
                vectorEffect="non-scaling-stroke"
              />
            ))}
            {now && part && (
              <path
                d={linePath(part)}
                fill="none"
                stroke={COLOURS[now.purpose]}
                strokeWidth={2.2}
                vectorEffect="non-scaling-stroke"
              />
            )}
            {head && job.state !== "queued" && (
              <g transform={`translate(${head.x} ${head.y}) scale(${1 / view.scale})`} data-testid="head">
                <circle r={9} fill="none" stroke="var(--color-falls)" strokeWidth={2} />
                <circle r={2.5} fill="var(--color-falls)" />
              </g>
            )}
          </g>
        </svg>
      )}
      <p className="absolute bottom-3 left-4 text-[13px] text-quiet" aria-live="polite">
        {said(job, run, gone)}
      </p>
    </div>
  );
}

function said({ state }: CutJob, { drops }: Run, gone: Run["drops"]): string {
  const pieces = (list: Run["drops"]) => list.filter(({ kind }) => kind === "piece").length;
  if (state === "queued") return "On the bed, not begun.";
  const all = pieces(drops);
  if (state === "done") return `In the hand: ${all} ${all === 1 ? "piece" : "pieces"}.`;
  return `${pieces(gone)} of ${all} ${all === 1 ? "piece" : "pieces"} free.`;
}

/** Seconds of the machine's time; between two answers of the cutter it goes on by itself. */
function useClock({ doneSeconds, totalSeconds, state, speed }: CutJob): number {
  const [seconds, setSeconds] = useState(doneSeconds);
  useEffect(() => {
    setSeconds(doneSeconds);
    if (state !== "cutting") return;
    const start = performance.now();
    let frame = 0;
    const tick = (now: number) => {
      setSeconds(Math.min(totalSeconds, doneSeconds + (Math.max(0, now - start) / 1000) * speed));
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [doneSeconds, totalSeconds, state, speed]);
  return state === "done" ? totalSeconds : seconds;
}

/** The first part of a line, by its share of the length. */
function partOf(points: Float64Array, closed: boolean, share: number): Float64Array {
  const all = closed ? Float64Array.from([...points, points[0]!, points[1]!]) : points;
  let length = 0;
  for (let i = 2; i < all.length; i += 2) length += Math.hypot(all[i]! - all[i - 2]!, all[i + 1]! - all[i - 1]!);
  let left = length * share;
  const part = [all[0]!, all[1]!];
  for (let i = 2; i < all.length; i += 2) {
    const [dx, dy] = [all[i]! - all[i - 2]!, all[i + 1]! - all[i - 1]!];
    const step = Math.hypot(dx, dy);
    if (step >= left) {
      const k = step > 0 ? left / step : 0;
      part.push(all[i - 2]! + dx * k, all[i - 1]! + dy * k);
      break;
    }
    part.push(all[i]!, all[i + 1]!);
    left -= step;
  }
  return Float64Array.from(part);
}
