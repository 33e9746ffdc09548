/**
 * Material that is thin without deciding any hold: hairlines between wider places, tails that end free.
 */
import type { Point } from "../geometry";
import type { Finding, JudgedPart } from "./findings";

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
): Finding[] {
  const findings: Finding[] = [];
  const hairlines = new Map<string, { ids: string[]; places: JudgedZone[] }>();
  for (const zone of zones) {
    const middle = { x: (zone.from.x + zone.to.x) / 2, y: (zone.from.y + zone.to.y) / 2 };
    if (known.some(({ chord, at }) => chord && Math.hypot(at.x - middle.x, at.y - middle.y) < leastWidth)) continue;
    const ids = zone.parts.map((i) => parts[i]!.id);
    if (zone.exits > 1) {
      const key = zone.parts.join();
      const known = hairlines.get(key);
      if (known) known.places.push(zone);
      else hairlines.set(key, { ids, places: [zone] });
      continue;
    }
    if (zone.reach < LONG_TAIL * leastWidth) continue;
    const chord = { from: zone.from, to: zone.to };
    const { reach } = zone;
    findings.push({
      kind: "thin-tail",
      parts: ids,
      meeting: ids.length,
      at: zone.tip,
      width: zone.width,
      chord,
      reach,
      means: "note",
      wanted: leastWidth,
    });
  }
  for (const { ids, places } of hairlines.values()) {
    const { width, from, to } = places[0]!;
    findings.push({
      kind: "hairline",
      parts: ids,
      meeting: ids.length,
      at: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 },
      width,
      chord: { from, to },
      means: "note",
      wanted: leastWidth,
      places: places.length,
    });
  }
  return findings.sort((a, b) => a.width - b.width);
}
