/**
 * Empty places that cannot be cut: gaps that the cut itself would eat, holes too small for it.
 */
import { boxHolds, type Point, type Ring, regionBox } from "../geometry";
import { formatLength, type Units } from "../piece";
import { type Finding, type JudgedPart, partLabels } from "./findings";
import { nameOf, placeName } from "./wording";

export interface JudgedSlit {
  width: number;
  parts: number[];
  from: Point;
  to: Point;
  /** How far it reaches from there, mm. */
  reach: number;
}

/** A hole in the material, with the diameter in mm of the largest disc in it. */
export interface JudgedHole {
  ring: Ring;
  width: number;
  at: Point;
  parts: number[];
}

/** Gaps that the cut itself would eat: its two lines run into each other and both sides burn. */
export function judgeSlits(
  parts: readonly JudgedPart[],
  slits: readonly JudgedSlit[],
  holes: readonly JudgedHole[],
  cutWidth: number,
  units: Units = "mm",
): Finding[] {
  const labels = partLabels(parts);
  const boxes = holes.map(({ ring }) => regionBox([ring])!);
  return slits.flatMap(({ width, parts: sides, from, to, reach }): Finding[] => {
    const at = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    // A hole that is too small as a whole is told as such.
    if (boxes.some((box) => boxHolds(box, at.x, at.y))) return [];
    const ids = sides.map((i) => parts[i]!.id);
    const where = ids.length > 1 ? `Between ${placeName(ids, labels)}` : `Beside ${nameOf(labels.get(ids[0] ?? ""))}`;
    const gap = width < 0.01 ? "a hair-thin gap" : `a gap of only ${formatLength(width, units, 2)}`;
    const message = `${where} ${gap} is left; the cut is ${formatLength(cutWidth, units, 2)} wide. Close it, or make it wider.`;
    return [
      { kind: "narrow-gap", parts: ids, meeting: ids.length, at, width, chord: { from, to }, reach, means: "note", message },
    ];
  });
}

/** @param limit narrowest hole that can be cut, mm @param holes those that are narrower */
export function judgeHoles(
  parts: readonly JudgedPart[],
  holes: readonly JudgedHole[],
  limit: number,
  units: Units = "mm",
): Finding[] {
  const labels = partLabels(parts);
  return holes.map(({ width, at, parts: around }): Finding => {
    const ids = around.map((i) => parts[i]!.id);
    const where = ids.length > 1 ? `Between ${placeName(ids, labels)}` : `In ${nameOf(labels.get(ids[0] ?? ""))}`;
    const message = `${where} a hole only ${formatLength(width, units, 2)} wide is left; one that can be cut has ${formatLength(limit, units)}. Fill it, or make it wider.`;
    return { kind: "small-hole", parts: ids, meeting: ids.length, at: { x: at.x, y: at.y }, width, means: "note", message };
  });
}
