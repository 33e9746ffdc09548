/**
 * Material that is thin without deciding any hold: hairlines between wider places, tails that end free.
 */
import type { Point } from "../geometry";
import { formatLength, type Units } from "../piece";
import { type Finding, type JudgedPart, partLabels } from "./findings";
import { capital, countWord, nameOf, placeName } from "./wording";

/** A tail is worth a word when it reaches more than so many least widths beyond wide material. Common practice, no published source. */
const LONG_TAIL = 2;

export interface JudgedZone {
  exits: number;
  width: number;
  from: Point;
  to: Point;
  reach: number;
  tip: Point;
  parts: number[];
}

/**
 * One note for each part (or meeting of parts) with hairlines, one for each long tail.
 * @param known findings made already: a thin place that decides a hold is not told twice
 */
export function judgeStrokes(
  parts: readonly JudgedPart[],
  zones: readonly JudgedZone[],
  known: readonly Finding[],
  leastWidth: number,
  units: Units = "mm",
): Finding[] {
  const labels = partLabels(parts);
  const limit = formatLength(leastWidth, units);
  const findings: Finding[] = [];
  const hairlines = new Map<string, JudgedZone[]>();
  for (const zone of zones) {
    const middle = { x: (zone.from.x + zone.to.x) / 2, y: (zone.from.y + zone.to.y) / 2 };
    if (known.some(({ chord, at }) => chord && Math.hypot(at.x - middle.x, at.y - middle.y) < leastWidth)) continue;
    const ids = zone.parts.map((i) => parts[i]!.id);
    if (zone.exits > 1) {
      hairlines.set(ids.join(" "), [...(hairlines.get(ids.join(" ")) ?? []), zone]);
      continue;
    }
    if (zone.reach < LONG_TAIL * leastWidth) continue;
    // Where several parts share its edges, the first of them is named.
    const message = `The tail of ${nameOf(labels.get(ids[0]!))} is narrower than ${limit} over its last ${formatLength(zone.reach, units)}: it breaks or burns easily. Shorten it, tie its end down, or choose heavier lettering.`;
    const chord = { from: zone.from, to: zone.to };
    findings.push({
      kind: "thin-tail",
      parts: ids,
      meeting: ids.length,
      at: zone.tip,
      width: zone.width,
      chord,
      means: "note",
      message,
    });
  }
  for (const [key, places] of hairlines) {
    const ids = key.split(" ");
    const { width, from, to } = places[0]!;
    const where = ids.length > 1 ? `The place ${placeName(ids, labels)}` : capital(nameOf(labels.get(ids[0]!)));
    // A hair below the limit must not read as if it were the limit.
    const digits = formatLength(width, units) === limit ? 2 : 1;
    const narrowest = formatLength(width, units, digits);
    const often = places.length > 1 ? ` in ${countWord(places.length)} places, ${narrowest} at the narrowest` : `: ${narrowest}`;
    const message = `${where} is thinner than ${formatLength(leastWidth, units, digits)}${often}. No part is held least here, but it may burn through.`;
    const at = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    findings.push({ kind: "hairline", parts: ids, meeting: ids.length, at, width, chord: { from, to }, means: "note", message });
  }
  return findings.sort((a, b) => a.width - b.width);
}
