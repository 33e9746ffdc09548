/**
 * How long the lines are and how long the machine takes.
 *
 * Speeds are starting values from memory, for a CO2 laser of about 60 W and a scroll saw in a practised hand; they fall with the
 * thickness of the sheet. Common practice, no published source.
 */
import { type CurvePath, curveLength, flatten, ringArea } from "../geometry";
import type { Stock } from "../piece";
import { LINE_PURPOSES, type LinePurpose } from "./profile";

export interface Speeds {
  /** mm/s */
  cut: number;
  score: number;
  /** Head speed while engraving line by line, mm/s, and distance of those lines, mm. */
  engrave: number;
  pitch: number;
  /** Between lines. */
  travel: number;
  /** Seconds to break through at the start of each cut; at the saw, to drill and thread the blade. */
  pierce: number;
}

/** mm/s through a sheet of 3 mm. */
const THROUGH_3_MM: Record<Stock["material"], number> = {
  birch: 16,
  poplar: 18,
  bamboo: 13,
  oak: 11,
  maple: 11,
  cherry: 12,
  walnut: 12,
  mdf: 12,
  "acrylic-clear": 10,
  "acrylic-frosted": 10,
  "acrylic-white": 10,
  "acrylic-black": 10,
  "acrylic-gold": 9,
  "acrylic-silver": 9,
  leather: 14,
  card: 40,
  "acrylic-teal": 10,
  "acrylic-red": 10,
};

export function speedsFor({ material, thickness, tool }: Stock): Speeds {
  if (tool === "saw") return { cut: 9 / thickness, score: 20, engrave: 20, pitch: 1, travel: Infinity, pierce: 45 };
  return { cut: (THROUGH_3_MM[material] * 3) / thickness, score: 80, engrave: 300, pitch: 0.1, travel: 250, pierce: 0.3 };
}

export interface Work {
  /** mm of lines; for engraved areas the way of the head over them. */
  length: number;
  seconds: number;
  /** How many separate lines or areas. */
  count: number;
}

export interface Effort extends Record<LinePurpose, Work> {
  /** mm between lines. */
  travel: number;
  /** Starts of cuts. */
  pierces: number;
  /** Seconds in all. */
  seconds: number;
}

export interface WorkLine {
  purpose: LinePurpose;
  path: CurvePath;
}

/** @param lines in the order in which they are done @param fills outlines of engraved areas, with their holes */
export function effortOf(lines: readonly WorkLine[], fills: readonly CurvePath[], speeds: Speeds): Effort {
  const none = (): Work => ({ length: 0, seconds: 0, count: 0 });
  const effort: Effort = { engrave: none(), score: none(), cut: none(), travel: 0, pierces: 0, seconds: 0 };
  let at = { x: 0, y: 0 };
  for (const { purpose, path } of lines) {
    const length = curveLength(path);
    const work = effort[purpose];
    work.length += length;
    work.count++;
    work.seconds += length / (purpose === "cut" ? speeds.cut : speeds.score);
    effort.travel += Math.hypot(path.x - at.x, path.y - at.y);
    at = path.segments[path.segments.length - 1] ?? path;
    if (purpose !== "cut") continue;
    effort.pierces++;
    work.seconds += speeds.pierce;
  }
  const area = Math.abs(fills.reduce((sum, path) => sum + ringArea(flatten(path, 0.02)), 0));
  if (area > 0) {
    effort.engrave.length += area / speeds.pitch;
    effort.engrave.count += fills.length;
    effort.engrave.seconds += area / speeds.pitch / speeds.engrave;
  }
  effort.seconds = LINE_PURPOSES.reduce((sum, purpose) => sum + effort[purpose].seconds, effort.travel / speeds.travel);
  return effort;
}
