import type { Examination } from "@mend-joint/core";
import type { Point } from "@mend-joint/core/geometry";
import { isNarrower } from "@mend-joint/core/judge";
import { useMemo } from "react";
import { useBench } from "../state/bench";
import type { Measure } from "./Callipers";

const MOST_CALLIPERS = 14;

/** Callipers for what matters: thin places, gaps of loose parts, the thinnest place that carries, and what is pointed at or in the hand. */
export function useMeasures(examination: Examination): Measure[] {
  const selection = useBench((state) => state.selection);
  const pointed = useBench((state) => state.pointed);
  const pointedJoint = useBench((state) => state.pointedJoint);
  return useMemo(() => {
    const { joints, findings, holds, leastWidth, solids } = examination;
    const named = new Set([...(selection?.solids ?? []), ...pointed]);
    const shown = new Map<string, Measure>();
    const put = (
      chord: { from: Point; to: Point },
      width: number,
      state: Measure["state"],
      how: Pick<Measure, "strong" | "small" | "takes"> = {},
    ) => {
      const key = `${chord.from.x.toFixed(2)} ${chord.from.y.toFixed(2)} ${chord.to.x.toFixed(2)}`;
      if (how.strong || !shown.has(key)) shown.set(key, { key, from: chord.from, to: chord.to, width, state, ...how });
    };
    for (const { kind, means, parts, gap, chord, width } of findings) {
      if (gap) put(gap, gap.width, "gap");
      // Notes are shown when they are pointed at, so that they do not crowd what must be mended.
      if (chord && means !== "note") put(chord, width, "weak");
      else if (chord && parts.every((id) => pointed.includes(id)) && pointed.length > 0)
        put(chord, width, kind === "narrow-gap" ? "gap" : "weak", { strong: true });
    }
    const thinnest = holds.reduce<(typeof holds)[number] | null>(
      (least, hold) => (hold.neck && !hold.anchor && hold.width < (least?.width ?? Infinity) ? hold : least),
      null,
    );
    if (thinnest?.neck) put(thinnest.neck, thinnest.width, isNarrower(thinnest.width, leastWidth) ? "weak" : "holds");
    // Of the joints of what is in the hand the narrowest has jaws, the others ticks: they must not hide what they measure.
    const own = joints.filter(({ parts }) => named.size > 0 && parts.some((i) => named.has(solids[i]!.id)));
    const narrowest = own.reduce((least, { width }) => Math.min(least, width), Infinity);
    const stateOf = (width: number) => (isNarrower(width, leastWidth) ? "weak" : "holds");
    for (const joint of own) {
      const takes = joint.parts.map((i) => solids[i]!.id).find((id) => named.has(id));
      put(joint, joint.width, stateOf(joint.width), joint.width > narrowest ? { small: true, takes } : {});
    }
    const asked = pointedJoint === null ? undefined : joints[pointedJoint];
    if (asked) put(asked, asked.width, stateOf(asked.width), { strong: true });
    return [...shown.values()].sort((a, b) => Number(a.strong ?? false) - Number(b.strong ?? false)).slice(-MOST_CALLIPERS);
  }, [examination, selection, pointed, pointedJoint]);
}
