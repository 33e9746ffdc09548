/**
 * Checking an outline file that was drawn elsewhere: what falls out, what is thin, what lies twice, what is open.
 */
import type { MachineProfile } from "../cut";
import { type Examination, examineSolids, remark, type Solid } from "../examine";
import type { Drawing, DrawnShape } from "../formats";
import { islandsOf, normalise, type Point, type Region, type Ring, regionArea, regionBox, transformRing } from "../geometry";
import type { Finding } from "../judge";
import { twinFinder } from "../machine";
import { type Stock, smallestHole } from "../piece";
import { broadestLine } from "./broad";
import { asSeen } from "./covers";
import { solidsFromShapes } from "./outlines";

export interface CheckedDrawing {
  examination: Examination;
  /** Whether shapes are lines to be cut, where what lies inside another is a hole, or filled shapes that join each other. */
  as: "lines" | "shapes";
  /** What remains when the faults that need no decision are put right: twins gone, open outlines closed, crumbs gone; y upwards. */
  repaired: Region;
  repairs: Repair[];
  /** How many shapes are to be scored or engraved. */
  marks: number;
  /** What the reader of the file has to say. */
  notes: string[];
}

/** What was put right without asking. */
export type Repair =
  /** How far its ends were apart, mm, where that was more than nothing. */
  | { what: "closed"; id: string; open?: number }
  /** An outline that lay exactly on another. */
  | { what: "twin"; id: string; twin: string }
  | { what: "crumbs"; count: number };

/** Ends farther apart than this are not closed by themselves, mm. */
const CLOSES = 1;
/** Narrower than the cut and of no area, it is a crumb: side of a square, in widths of the cut. */
const CRUMB = 2;

export interface CheckOptions {
  stock: Stock;
  /** Lines of its scoring and engraving are left out. */
  profile: MachineProfile;
  onProgress?: (stage: string) => void;
}

export function checkDrawing(given: Drawing, { stock, profile, onProgress }: CheckOptions): CheckedDrawing {
  const drawing = asSeen(given);
  // Beside hairlines in the colour of cutting, what is filled is engraved.
  const hairlines = drawing.shapes.some(({ fill, stroke }) => fill === null && stroke === profile.lines.cut.colour);
  const engraved = ({ fill, stroke }: DrawnShape) =>
    hairlines && stroke === null && fill === profile.lines.engrave.colour && profile.fills === "engraved";
  const shapes = drawing.shapes.filter((shape) => !isMark(shape, profile) && !engraved(shape));
  const marks = drawing.shapes.length - shapes.length;
  const as = shapes.some(({ fill }) => fill !== null) ? "shapes" : "lines";
  onProgress?.("outlines");
  const { solids, findings, repairs } = as === "shapes" ? fromShapes(shapes) : fromLines(shapes, stock);
  // A machine follows the line in the file, so the cut takes its share as it does on the bench.
  const wanted = stock.leastWidth + stock.kerf;
  const examination = examineSolids(solids, wanted, {
    lost: stock.kerf,
    extra: findings,
    cutWidth: stock.kerf,
    smallestHole: smallestHole(stock),
    onProgress,
    thinnest: true,
  });
  const least = (CRUMB * Math.max(stock.kerf, 0.1)) ** 2;
  const kept = examination.cutouts.filter(({ region }) => Math.abs(regionArea(region)) >= least);
  const crumbs = examination.cutouts.length - kept.length;
  if (crumbs > 0) repairs.push({ what: "crumbs", count: crumbs });
  const rank = { falls: 0, weak: 1, holds: 2, note: 2 };
  examination.findings.sort((a, b) => rank[a.means] - rank[b.means]);
  return { examination, as, repaired: kept.flatMap(({ region }) => region), repairs, marks, notes: notesOf(drawing) };
}

/** What the reader said, and that broad lines are not measured as such. */
export function notesOf(drawing: Drawing): string[] {
  if (broadestLine(drawing) === null) return drawing.notes;
  return [...drawing.notes, "Lines that are drawn broad are read as the outlines that they follow, without their width"];
}

function isMark({ stroke, fill, layer }: DrawnShape, { lines }: MachineProfile): boolean {
  const colour = stroke ?? fill;
  return (["score", "engrave"] as const).some((purpose) => {
    const { colour: own, layer: name } = lines[purpose];
    if (layer !== null && layer.toLowerCase() === name.toLowerCase()) return true;
    // Filled black is what shapes are when nothing is said about them.
    return stroke !== null && colour?.toLowerCase() === own.toLowerCase() && lines.cut.colour !== own && colour !== "#000000";
  });
}

interface Made {
  solids: Solid[];
  findings: Finding[];
  repairs: Repair[];
}

function fromShapes(shapes: readonly DrawnShape[]): Made {
  const { solids, findings } = solidsFromShapes(shapes);
  const repairs = findings.flatMap(({ kind, parts: [id] }): Repair[] =>
    kind === "open-outline" ? [{ what: "closed", id: id! }] : [],
  );
  return { solids, findings, repairs };
}

/** Cut lines: what lies inside another outline is a hole, in that again a piece. */
function fromLines(shapes: readonly DrawnShape[], stock: Stock): Made {
  const findings: Finding[] = [];
  const repairs: Repair[] = [];
  const rings: Ring[] = [];
  const twinOf = twinFinder<string>();
  for (const { id, subpaths } of shapes) {
    for (const { ring: down, closed } of subpaths) {
      const ring = transformRing(down, [1, 0, 0, -1, 0, 0]);
      const n = ring.length;
      if (n < 4) continue;
      const at: Point = { x: ring[0]!, y: ring[1]! };
      const gap = Math.hypot(ring[0]! - ring[n - 2]!, ring[1]! - ring[n - 1]!);
      if (!closed && (gap > CLOSES || n < 6)) {
        findings.push(remark("open-outline", [id], at, "weak", { open: gap, closed: false }));
        continue;
      }
      if (!closed) {
        repairs.push({ what: "closed", id, open: gap });
        findings.push(remark("open-outline", [id], at, "note", { open: gap, closed: true }));
      }
      const twin = twinOf(ring, id);
      if (twin === undefined) {
        rings.push(ring);
        continue;
      }
      findings.push(remark("duplicate", [id, twin], at, "weak", { drawn: true }));
      repairs.push({ what: "twin", id, twin });
    }
  }
  const region = normalise(rings, "evenodd");
  const solids = islandsOf(region)
    .filter((island) => regionArea(island) > 1e-4)
    .map(
      (island, i): Solid => ({
        id: `piece-${i + 1}`,
        partId: `piece-${i + 1}`,
        label: { kind: "shape", text: `piece ${i + 1}`, ordinal: "" },
        holder: i === 0,
        region: island,
      }),
    );
  if (solids.length === 0 && findings.length === 0) {
    findings.push(remark("no-area", ["drawing"], { x: 0, y: 0 }, "weak", { what: "drawing" }));
  }
  const box = regionBox(region);
  if (box && solids.length === 1 && stock.leastWidth > Math.max(box.maxX - box.minX, box.maxY - box.minY)) {
    const at = { x: box.minX, y: box.minY };
    findings.push(remark("no-area", ["piece-1"], at, "weak", { what: "all of it", wanted: stock.leastWidth }));
  }
  return { solids, findings, repairs };
}
