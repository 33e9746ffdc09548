/**
 * What is to be looked at before a piece goes to the machine or to the saw.
 */

import { type Point, regionBox } from "../geometry";
import type { Finding } from "../judge";
import type { Piece } from "../piece";
import { type Sheet, type ShortGrain, shortGrain } from "../report";
import type { CutPlan } from "./plan";
import { startHoles } from "./startHoles";

/** Falls and what no machine could do stop the way; the rest is worth a look. */
export type Check = {
  means: "stop" | "weak" | "note";
  /** Where on the piece, mm. */
  at?: Point;
} & (
  | { about: "finding"; finding: Finding }
  | { about: "bed"; size: Size; bed: Size; machine: string; turned: boolean }
  /** A void that has no room for a start hole of the drill, mm. */
  | { about: "start hole"; width: number; drill: number }
  | { about: "grain"; grain: ShortGrain }
  /** Outlines that are smaller than the cut is wide. */
  | { about: "crumbs"; count: number; kerf: number }
);

type Size = readonly [width: number, height: number];

/** Of what is merely worth knowing, this matters for what comes off the machine. What falls or is weak always does. */
const MATTERS: ReadonlySet<Finding["kind"]> = new Set(["narrow-gap", "small-hole", "size-missed"]);

export interface PreflightOptions {
  /** Diameter of start holes at the saw, mm. */
  drill?: number | undefined;
  /** Direction of the grain, degrees. */
  grain?: number | undefined;
}

/** Worst first. */
export function preflight(
  piece: Piece,
  examination: Parameters<typeof shortGrain>[0] & { findings: Finding[] },
  sheet: Sheet,
  plan: CutPlan,
  { drill, grain = 0 }: PreflightOptions = {},
): Check[] {
  const checks: Check[] = [];
  for (const finding of examination.findings) {
    const { kind, means, at, accepted } = finding;
    if ((means === "note" && !MATTERS.has(kind)) || accepted !== undefined) continue;
    checks.push({ means: means === "falls" ? "stop" : means === "weak" ? "weak" : "note", at, about: "finding", finding });
  }
  const { bed, name } = plan.profile;
  if (plan.width > bed.width || plan.height > bed.height) {
    const turned = plan.height <= bed.width && plan.width <= bed.height;
    const sizes = { size: [plan.width, plan.height], bed: [bed.width, bed.height] } as const;
    checks.push({ means: turned ? "note" : "stop", about: "bed", ...sizes, machine: name, turned });
  }
  if (drill !== undefined) {
    for (const { at, width } of startHoles(sheet.material, drill).tooSmall) {
      checks.push({ means: "weak", at, about: "start hole", width, drill });
    }
  }
  for (const short of shortGrain(examination, piece.stock, grain)) {
    checks.push({ means: "weak", at: short.at, about: "grain", grain: short });
  }
  const crumbs = sheet.material.filter((ring) => {
    const box = regionBox([ring])!;
    return Math.max(box.maxX - box.minX, box.maxY - box.minY) < piece.stock.kerf;
  });
  if (crumbs.length > 0) {
    const [x, y] = [crumbs[0]![0]!, crumbs[0]![1]!];
    checks.push({ means: "note", at: { x, y }, about: "crumbs", count: crumbs.length, kerf: piece.stock.kerf });
  }
  const rank = { stop: 0, weak: 1, note: 2 };
  return checks.sort((a, b) => rank[a.means] - rank[b.means]);
}
