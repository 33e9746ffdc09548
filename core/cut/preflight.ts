/**
 * What is to be looked at before a piece goes to the machine or to the saw.
 */

import { type Point, regionBox } from "../geometry";
import type { Finding } from "../judge";
import { formatLength, type Piece, type Units } from "../piece";
import { type Sheet, shortGrain } from "../report";
import type { CutPlan } from "./index";
import { startHoles } from "./startHoles";

export interface Check {
  /** Falls and what no machine could do stop the way; the rest is worth a look. */
  means: "stop" | "weak" | "note";
  message: string;
  /** Where on the piece, mm. */
  at?: Point;
}

/** Findings of the piece that matter for what comes off the machine. */
const MATTERS: ReadonlySet<Finding["kind"]> = new Set([
  "loose",
  "thin-joint",
  "thin-stroke",
  "duplicate",
  "narrow-gap",
  "small-hole",
  "too-large",
  "empty",
  "missing-letter",
  "size-missed",
]);

export interface PreflightOptions {
  units?: Units;
  /** Diameter of start holes at the saw, mm. */
  drill?: number;
  /** Direction of the grain, degrees. */
  grain?: number;
}

/** Worst first. */
export function preflight(
  piece: Piece,
  examination: Parameters<typeof shortGrain>[0] & { findings: Finding[] },
  sheet: Sheet,
  plan: CutPlan,
  { units = "mm", drill, grain = 0 }: PreflightOptions = {},
): Check[] {
  const checks: Check[] = [];
  for (const { kind, means, message, at, accepted } of examination.findings) {
    if (!MATTERS.has(kind) || accepted !== undefined) continue;
    checks.push({ means: means === "falls" ? "stop" : means === "weak" ? "weak" : "note", message, at });
  }
  const { bed, name } = plan.profile;
  const fits = plan.width <= bed.width && plan.height <= bed.height;
  if (!fits) {
    const size = (w: number, h: number) => `${formatLength(w, units)} × ${formatLength(h, units)}`;
    const turned = plan.height <= bed.width && plan.width <= bed.height;
    const than = `the bed of “${name}”: ${size(bed.width, bed.height)}`;
    const message = turned
      ? `It is ${size(plan.width, plan.height)} and fits ${than} only when it is turned by a quarter. Turn it at the machine.`
      : `It is ${size(plan.width, plan.height)}, larger than ${than}. Make it smaller, or choose another machine.`;
    checks.push({ means: turned ? "note" : "stop", message });
  }
  if (drill !== undefined) {
    for (const { at, width } of startHoles(sheet.material, drill).tooSmall) {
      const message = `A void only ${formatLength(width, units)} wide has no room for a start hole of ${formatLength(drill, units)}. Take a finer drill, or fill the void.`;
      checks.push({ means: "weak", message, at });
    }
  }
  for (const { message, at } of shortGrain(examination, piece.stock, grain, units)) checks.push({ means: "weak", message, at });
  const crumbs = sheet.material.filter((ring) => {
    const box = regionBox([ring])!;
    return Math.max(box.maxX - box.minX, box.maxY - box.minY) < piece.stock.kerf;
  });
  if (crumbs.length > 0) {
    const [x, y] = [crumbs[0]![0]!, crumbs[0]![1]!];
    const message = `${crumbs.length} ${crumbs.length === 1 ? "outline is" : "outlines are"} smaller than the cut is wide (${formatLength(piece.stock.kerf, units, 2)}); nothing will be seen of ${crumbs.length === 1 ? "it" : "them"}.`;
    checks.push({ means: "note", message, at: { x, y } });
  }
  const rank = { stop: 0, weak: 1, note: 2 };
  return checks.sort((a, b) => rank[a.means] - rank[b.means]);
}
