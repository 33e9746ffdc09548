/**
 * The thinnest stroke of a shape: its narrowest place that has something wider on both sides.
 */
import { DisjointSets } from "../geometry";
import type { WidthField } from "./field";
import type { Neck } from "./necks";

/** A neck this near to the width beside it is a plain stroke, no narrow place. */
const PLAIN = 0.93;
/** What is nowhere wider than this (mm) is a burr of the outline, and nobody misses it. */
const BURR = 0.4;
/** Sampled chords are at most this much longer than true ones. */
const SAMPLED_EXCESS = 1.1;

/**
 * Bodies are joined by necks, widest first. A neck that joins two groups is a narrow place when it is clearly narrower than the
 * widest body of each; one that closes a loop, such as the side of an o, always is one. Strokes without any narrow place are as
 * thin as their widest place. Joints between parts are no strokes.
 *
 * @returns `null` for a field without material
 */
export function thinnestStroke(field: WidthField): { width: number; neck: Neck | null } | null {
  const { bodies, necks } = field;
  if (bodies.length === 0) return null;
  const groups = new DisjointSets(bodies.length);
  /** Widest body of each group, by its leader. */
  const widest = Int32Array.from(bodies.keys());
  const widthAt = (group: number) => bodies[widest[group]!]!.width;
  const clearanceAt = (body: number) => field.locate(bodies[body]!.x, bodies[body]!.y)?.clearance ?? 0;
  const order = [...necks.width.keys()].sort((m, n) => necks.width[n]! - necks.width[m]!);
  /** Necks that may be narrow places, narrowest last, each with the widest body of its smaller side; −1 where it closes a loop. */
  const narrow: { k: number; beside: number }[] = [];
  for (const k of order) {
    const [a, b] = [groups.find(necks.a[k]!), groups.find(necks.b[k]!)];
    if (a === b) {
      if (!field.cutsOff(k)) narrow.push({ k, beside: -1 });
      continue;
    }
    const beside = widthAt(a) < widthAt(b) ? widest[a]! : widest[b]!;
    if (necks.width[k]! < PLAIN * bodies[beside]!.width && bodies[beside]!.width > BURR) narrow.push({ k, beside });
    groups.join(a, b);
    if (widthAt(b) > widthAt(a)) widest[a] = widest[b]!;
  }
  // Discs between samples may be too wide; the widest of those nearly as wide is measured truly.
  const clearance = new Map<number, number>();
  bodies.forEach(({ x, y, width }, body) => {
    const group = groups.find(body);
    if (width <= BURR || width * SAMPLED_EXCESS < widthAt(group)) return;
    clearance.set(group, Math.max(clearance.get(group) ?? 0, field.locate(x, y)?.clearance ?? 0));
  });
  const alone = Math.min(Infinity, ...clearance.values());
  let thinnest: { width: number; neck: Neck | null } = { width: alone, neck: null };
  for (const { k, beside } of narrow.reverse()) {
    if (necks.width[k]! > thinnest.width * SAMPLED_EXCESS) break;
    const neck = field.exact(k);
    if (neck.width >= thinnest.width || neck.parts.length > 1) continue;
    // In corners samples make bodies look wider than they are.
    if (beside === -1 || neck.width < PLAIN * clearanceAt(beside)) thinnest = { width: neck.width, neck };
  }
  // Nothing but burrs: as thin as the widest of them.
  if (thinnest.width === Infinity) thinnest.width = Math.max(...bodies.map(({ width }) => width));
  return thinnest;
}
