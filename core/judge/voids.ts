/**
 * Empty places that cannot be cut: gaps that the cut itself would eat, holes too small for it.
 */
import { boxHolds, type Point, type Ring, regionBox } from "../geometry";
import type { Finding, JudgedPart } from "./findings";

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
): Finding[] {
  const boxes = holes.map(({ ring }) => regionBox([ring])!);
  return slits.flatMap(({ width, parts: sides, from, to, reach }): Finding[] => {
    const at = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
    // A hole that is too small as a whole is told as such.
    if (boxes.some((box) => boxHolds(box, at.x, at.y))) return [];
    const ids = sides.map((i) => parts[i]!.id);
    const chord = { from, to };
    return [{ kind: "narrow-gap", parts: ids, meeting: ids.length, at, width, chord, reach, means: "note", cut: cutWidth }];
  });
}

/** @param limit narrowest hole that can be cut, mm @param holes those that are narrower */
export function judgeHoles(parts: readonly JudgedPart[], holes: readonly JudgedHole[], limit: number): Finding[] {
  return holes.map(({ width, at, parts: around }): Finding => {
    const ids = around.map((i) => parts[i]!.id);
    const place = { x: at.x, y: at.y };
    return { kind: "small-hole", parts: ids, meeting: ids.length, at: place, width, means: "note", wanted: limit };
  });
}
