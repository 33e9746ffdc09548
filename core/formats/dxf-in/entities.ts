/**
 * Entities of a DXF as lines in the plane (Autodesk, "DXF Reference", chapters 6 "ENTITIES Section" and "Object Coordinate Systems", from
 * memory; what ezdxf makes of the same files is the proof).
 */
import type { Matrix } from "../../geometry";
import { ellipticalArc, polyline, spline, type XY } from "./curves";
import { allOf, type DxfRecord, hasFlag, numberOf } from "./records";

/** A line in the coordinates that its entity is in. */
export interface DxfLine {
  points: Float64Array;
  closed: boolean;
}

export interface Axes {
  x: readonly [number, number, number];
  y: readonly [number, number, number];
  z: readonly [number, number, number];
}

type Vector = readonly [number, number, number];
const cross = ([a, b, c]: Vector, [d, e, f]: Vector): Vector => [b * f - c * e, c * d - a * f, a * e - b * d];
const unit = ([a, b, c]: Vector): Vector => {
  const length = Math.hypot(a, b, c) || 1;
  return [a / length, b / length, c / length];
};

/** Nearer to the z axis than this, the other axes are made from the y axis ("Arbitrary Axis Algorithm"). */
const UPRIGHT = 1 / 64;

/** The coordinate system that an entity's extrusion stands for. */
export function axesOf(record: DxfRecord): Axes {
  const z = unit([numberOf(record, 210), numberOf(record, 220), numberOf(record, 230, 1)]);
  const upright = Math.abs(z[0]) < UPRIGHT && Math.abs(z[1]) < UPRIGHT;
  const x = unit(cross(upright ? [0, 1, 0] : [0, 0, 1], z));
  return { x, y: cross(z, x), z };
}

/** Places of an entity as they are seen from above. @param elevation above its own plane */
export const fromAbove = ({ x, y, z }: Axes, elevation: number): Matrix => [
  x[0],
  x[1],
  y[0],
  y[1],
  z[0] * elevation,
  z[1] * elevation,
];

/** Entities whose places are in the coordinate system of their extrusion; of all others they are in that of the drawing. */
const IN_OWN_SYSTEM = new Set(["CIRCLE", "ARC", "LWPOLYLINE", "INSERT"]);

/** How the places of an entity come into the drawing; `null` where they are there. */
export function ownSystem(record: DxfRecord): Matrix | null {
  if (!IN_OWN_SYSTEM.has(record.type) && !(record.type === "POLYLINE" && !hasFlag(record, 70, IN_SPACE))) return null;
  return fromAbove(axesOf(record), numberOf(record, record.type === "LWPOLYLINE" ? 38 : 30));
}

const placeOf = (record: DxfRecord): XY => ({ x: numberOf(record, 10, Number.NaN), y: numberOf(record, 20, Number.NaN) });
const TURN = 2 * Math.PI;
const RADIANS = Math.PI / 180;

/** Flags of a polyline of the old kind. */
const CLOSED = 1;
const IN_SPACE = 8;
const MESH = 16 | 64;
/** Flag of a vertex that is not on the line, but draws it to itself. */
const CONTROL = 16;

/** @returns `null` for what is no line, or none that can be read */
export function lineOf(record: DxfRecord, tolerance: number): DxfLine | null {
  switch (record.type) {
    case "LINE": {
      const { x, y } = placeOf(record);
      const to = [numberOf(record, 11, Number.NaN), numberOf(record, 21, Number.NaN)];
      return { points: Float64Array.from([x, y, ...to]), closed: false };
    }
    case "CIRCLE":
      return { points: circularArc(record, 0, TURN, tolerance).slice(0, -2), closed: true };
    case "ARC": {
      const [from, to] = [numberOf(record, 50) * RADIANS, numberOf(record, 51, 360) * RADIANS];
      return { points: circularArc(record, from, onwards(from, to), tolerance), closed: false };
    }
    case "ELLIPSE":
      return ellipse(record, tolerance);
    case "LWPOLYLINE":
      return { points: polyline(cornersOf(record), hasFlag(record, 70, CLOSED), tolerance), closed: hasFlag(record, 70, CLOSED) };
    case "POLYLINE": {
      if (hasFlag(record, 70, MESH)) return null;
      const corners = record.vertices
        .filter((vertex) => !hasFlag(vertex, 70, CONTROL))
        .map((vertex) => ({ ...placeOf(vertex), bulge: numberOf(vertex, 42) }));
      return { points: polyline(corners, hasFlag(record, 70, CLOSED), tolerance), closed: hasFlag(record, 70, CLOSED) };
    }
    case "SPLINE": {
      const [xs, ys] = [allOf(record, 10), allOf(record, 20)];
      const points = spline(
        {
          controls: xs.map((x, i) => ({ x, y: ys[i] ?? Number.NaN })),
          knots: allOf(record, 40),
          weights: allOf(record, 41),
          degree: numberOf(record, 71),
        },
        tolerance,
      );
      return points && { points, closed: false };
    }
    default:
      return null;
  }
}

/** The end of an arc, after its beginning. */
function onwards(from: number, to: number): number {
  return to > from ? to : to + TURN * (Math.floor((from - to) / TURN) + 1);
}

function circularArc(record: DxfRecord, from: number, to: number, tolerance: number): Float64Array {
  const r = numberOf(record, 40, Number.NaN);
  return ellipticalArc({ centre: placeOf(record), major: { x: r, y: 0 }, minor: { x: 0, y: r }, from, to }, tolerance);
}

function ellipse(record: DxfRecord, tolerance: number): DxfLine {
  const major: Vector = [numberOf(record, 11), numberOf(record, 21), numberOf(record, 31)];
  const ratio = numberOf(record, 40, 1);
  const [x, y] = cross(axesOf(record).z, major);
  const [from, said] = [numberOf(record, 41), numberOf(record, 42, TURN)];
  const whole = Math.abs(said - from) >= TURN - 1e-6;
  const arc = {
    centre: placeOf(record),
    major: { x: major[0], y: major[1] },
    minor: { x: ratio * x, y: ratio * y },
    from,
    to: whole ? from + TURN : onwards(from, said),
  };
  const points = ellipticalArc(arc, tolerance);
  return { points: whole ? points.slice(0, -2) : points, closed: whole };
}

/** Corners of a polyline of the new kind, whose groups stand one after the other. */
function cornersOf({ groups }: DxfRecord): (XY & { bulge: number })[] {
  const corners: (XY & { bulge: number })[] = [];
  for (const { code, value } of groups) {
    if (code === 10) corners.push({ x: Number(value), y: Number.NaN, bulge: 0 });
    const corner = corners[corners.length - 1];
    if (!corner) continue;
    if (code === 20) corner.y = Number(value);
    if (code === 42) corner.bulge = Number(value);
  }
  return corners;
}

/** Whether a polyline is a broad line, and not an outline. */
export const isBroad = (record: DxfRecord): boolean =>
  (record.type === "LWPOLYLINE" || record.type === "POLYLINE") &&
  [record, ...record.vertices].some(({ groups }) =>
    groups.some(({ code, value }) => code >= 40 && code <= 43 && code !== 42 && Number(value) > 0),
  );
