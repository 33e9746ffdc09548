import type { Tally } from "@mend-joint/core/runs";
import { useEffect, useRef, useState } from "react";
import { duration } from "../cut/duration";

/** How far the rows are, and how long it will take still. */
export function Progress({ tally: { rows, due, notMade }, paused }: { tally: Tally; paused: boolean }) {
  const all = Math.max(1, rows - notMade);
  const done = Math.max(0, all - due);
  const left = useTimeLeft(due, paused);
  const says = paused ? "paused" : left === null ? "examining …" : `about ${duration(left)} left`;
  return (
    <div>
      <p className="flex justify-between gap-2 text-[13px] text-quiet">
        <span className="figure">
          {done.toLocaleString("en")} of {all.toLocaleString("en")}
        </span>
        <span>{says}</span>
      </p>
      <div
        role="progressbar"
        aria-label="Names examined"
        aria-valuenow={done}
        aria-valuemin={0}
        aria-valuemax={all}
        className="mt-1 h-1 overflow-hidden rounded-full bg-ink/12"
      >
        <div className="h-1 rounded-full bg-ink transition-[width]" style={{ width: `${(100 * done) / all}%` }} />
      </div>
    </div>
  );
}

/** Rows are counted over so long before a time is told, ms. */
const ENOUGH = 2000;

/** By how many rows were done since it was first seen, s; `null` until that says something. */
function useTimeLeft(due: number, paused: boolean): number | null {
  const start = useRef<{ due: number; at: number } | null>(null);
  const [left, setLeft] = useState<number | null>(null);
  useEffect(() => {
    const now = performance.now();
    // More than before: something was put back.
    if (paused || !start.current || due > start.current.due) {
      start.current = paused ? null : { due, at: now };
      setLeft(null);
      return;
    }
    const [done, passed] = [start.current.due - due, now - start.current.at];
    if (done > 0 && passed > ENOUGH) setLeft(((passed / done) * due) / 1000);
  }, [due, paused]);
  return left;
}
