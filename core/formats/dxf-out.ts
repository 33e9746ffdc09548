/**
 * DXF for the cutter: millimetres, a layer for each purpose, lines with arcs and splines, or fine polylines.
 */
import { DxfWriter, LWPolylineFlags, point2d, point3d, SplineFlags, TrueColor, Units } from "@tarikjabiri/dxf";
import type { CutPlan, LinePurpose } from "../cut";
import { type CurvePath, flatten, mapCurve, type Point } from "../geometry";

export type DxfCurves = "curves" | "polylines";

/** Polylines follow the curves so closely, mm. */
const FINE = 0.005;
/** Number of the nearest colour of the format's old palette, for programs that know no others. */
const PALETTE: Record<LinePurpose, number> = { engrave: 7, score: 5, cut: 1 };
/** Knots of a single cubic curve. */
const KNOTS = [0, 0, 0, 0, 1, 1, 1, 1];

/** @returns a complete DXF document; y runs upwards in it */
export function writeDxf(plan: CutPlan, curves: DxfCurves = "curves"): string {
  const { profile, lines, fills, width, height } = plan;
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.setVariable("$MEASUREMENT", { 70: 1 });
  const low = profile.origin === "top-left" ? -height : 0;
  dxf.setVariable("$EXTMIN", { 10: 0, 20: low, 30: 0 });
  dxf.setVariable("$EXTMAX", { 10: width, 20: low + height, 30: 0 });
  const all = [...fills.map((path) => ({ purpose: "engrave" as const, path })), ...lines].map(({ purpose, path }) => ({
    purpose,
    path: low === 0 ? path : mapCurve(path, (x, y) => ({ x, y: y + low }), false),
  }));
  for (const purpose of new Set(all.map((line) => line.purpose))) {
    const layer = dxf.addLayer(profile.lines[purpose].layer, PALETTE[purpose], "Continuous");
    layer.trueColor = TrueColor.fromHex(profile.lines[purpose].colour);
  }
  for (const { purpose, path } of all) {
    const layerName = profile.lines[purpose].layer;
    if (curves === "polylines") addPolyline(dxf, flatten(path, FINE), path.closed, layerName);
    else addCurves(dxf, path, layerName);
  }
  return dxf.stringify();
}

function addPolyline(dxf: DxfWriter, line: Float64Array, closed: boolean, layerName: string): void {
  const vertices = Array.from({ length: line.length / 2 }, (_, i) => ({ point: point2d(line[2 * i]!, line[2 * i + 1]!) }));
  dxf.addLWPolyline(vertices, { layerName, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
}

function addCurves(dxf: DxfWriter, path: CurvePath, layerName: string): void {
  // An outline of lines alone is one closed polyline.
  if (path.segments.every(({ type }) => type === "L")) {
    const ends: Point[] = [path, ...path.segments];
    const line = Float64Array.from((path.closed ? ends.slice(0, -1) : ends).flatMap(({ x, y }) => [x, y]));
    addPolyline(dxf, line, path.closed, layerName);
    return;
  }
  let from: Point = path;
  for (const segment of path.segments) {
    const to = point3d(segment.x, segment.y, 0);
    if (segment.type === "L") dxf.addLine(point3d(from.x, from.y, 0), to, { layerName });
    else if (segment.type === "C") {
      const controlPoints = [
        point3d(from.x, from.y, 0),
        point3d(segment.x1, segment.y1, 0),
        point3d(segment.x2, segment.y2, 0),
        to,
      ];
      dxf.addSpline({ controlPoints, knots: [...KNOTS], degreeCurve: 3, flags: SplineFlags.Planar }, { layerName });
    } else {
      const { cx, cy, r, ccw } = segment;
      const degrees = (p: Point) => ((((Math.atan2(p.y - cy, p.x - cx) * 180) / Math.PI) % 360) + 360) % 360;
      // Arcs of the format always run counter-clockwise.
      const [start, end] = ccw ? [from, segment] : [segment, from];
      dxf.addArc(point3d(cx, cy, 0), r, degrees(start), degrees(end), { layerName });
    }
    from = segment;
  }
}
