/**
 * Checking an outline file that was drawn elsewhere: what falls out, what is thin, what lies twice, what is open.
 */
import type { MachineProfile } from "./cut";
import { type Examination, examineSolids, type Solid } from "./examine";
import type { Drawing, DrawnShape } from "./formats";
import { islandsOf, normalise, type Point, type Region, type Ring, regionArea, regionBox, transformRing } from "./geometry";
import type { Finding } from "./judge";
import { twinFinder } from "./machine";
import { solidsFromShapes } from "./outlines";
import { formatLength, type Stock, smallestHole, type Units } from "./piece";

export interface CheckedDrawing {
  examination: Examination;
  /** Whether shapes are lines to be cut, where what lies inside another is a hole, or filled shapes that join each other. */
  as: "lines" | "shapes";
  /** What remains when the faults that need no decision are put right: twins gone, open outlines closed, crumbs gone; y upwards. */
  repaired: Region;
  /** What was put right, in words. */
  repairs: string[];
  notes: string[];
}

/** Ends farther apart than this are not closed by themselves, mm. */
const CLOSES = 1;
/** Narrower than the cut and of no area, it is a crumb: side of a square, in widths of the cut. */
const CRUMB = 2;

export interface CheckOptions {
  stock: Stock;
  /** Lines of its scoring and engraving are left out. */
  profile: MachineProfile;
  units?: Units;
  onProgress?: (stage: string) => void;
}

export function checkDrawing(drawing: Drawing, { stock, profile, units = "mm", onProgress }: CheckOptions): CheckedDrawing {
  // Beside hairlines in the colour of cutting, what is filled is engraved.
  const hairlines = drawing.shapes.some(({ fill, stroke }) => fill === null && stroke === profile.lines.cut.colour);
  const engraved = ({ fill, stroke }: DrawnShape) =>
    hairlines && stroke === null && fill === profile.lines.engrave.colour && profile.fills === "engraved";
  const shapes = drawing.shapes.filter((shape) => !isMark(shape, profile) && !engraved(shape));
  const notes = [...drawing.notes];
  if (shapes.length < drawing.shapes.length) {
    const count = drawing.shapes.length - shapes.length;
    notes.push(`${count} ${count === 1 ? "shape is" : "shapes are"} to be scored or engraved by colour or layer, and not cut`);
  }
  const as = shapes.some(({ fill }) => fill !== null) ? "shapes" : "lines";
  onProgress?.("outlines");
  const { solids, findings, repairs } = as === "shapes" ? fromShapes(shapes) : fromLines(shapes, stock, units);
  // A machine follows the line in the file, so the cut takes its share as it does on the bench.
  const wanted = stock.leastWidth + stock.kerf;
  const examination = examineSolids(solids, wanted, {
    units,
    lost: stock.kerf,
    extra: findings,
    cutWidth: stock.kerf,
    smallestHole: smallestHole(stock),
    bending: { ...stock, lost: stock.kerf },
    onProgress,
    thinnest: true,
  });
  const least = (CRUMB * Math.max(stock.kerf, 0.1)) ** 2;
  const kept = examination.cutouts.filter(({ region }) => Math.abs(regionArea(region)) >= least);
  const crumbs = examination.cutouts.length - kept.length;
  if (crumbs > 0) repairs.push(`${crumbs} ${crumbs === 1 ? "crumb" : "crumbs"} left out`);
  const rank = { falls: 0, weak: 1, holds: 2, note: 2 };
  examination.findings.sort((a, b) => rank[a.means] - rank[b.means]);
  return { examination, as, repaired: kept.flatMap(({ region }) => region), repairs, notes };
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
  repairs: string[];
}

function fromShapes(shapes: readonly DrawnShape[]): Made {
  const { solids, findings } = solidsFromShapes(shapes);
  return {
    solids,
    findings,
    repairs: findings.filter(({ kind }) => kind === "open-outline").map(({ parts }) => `${parts[0]} closed`),
  };
}

/** Cut lines: what lies inside another outline is a hole, in that again a piece. */
function fromLines(shapes: readonly DrawnShape[], stock: Stock, units: Units): Made {
  const findings: Finding[] = [];
  const repairs: string[] = [];
  const rings: Ring[] = [];
  const twinOf = twinFinder<string>();
  for (const { id, subpaths } of shapes) {
    for (const { ring: down, closed } of subpaths) {
      const ring = transformRing(down, [1, 0, 0, -1, 0, 0]);
      const n = ring.length;
      if (n < 4) continue;
      const at: Point = { x: ring[0]!, y: ring[1]! };
      const gap = Math.hypot(ring[0]! - ring[n - 2]!, ring[1]! - ring[n - 1]!);
      if (closed || (gap <= CLOSES && n >= 6)) {
        if (!closed) {
          repairs.push(`${id} closed over ${formatLength(gap, units, 2)}`);
          findings.push(
            note(
              "open-outline",
              id,
              at,
              "note",
              `${id} is open by ${formatLength(gap, units, 2)}. It was closed for the check; the machine would not free it.`,
            ),
          );
        }
        const twin = twinOf(ring, id);
        if (twin !== undefined) {
          findings.push(
            note("duplicate", id, at, "weak", `${id} lies exactly on ${twin}: it would be cut twice and burn. Take one away.`, [
              twin,
            ]),
          );
          repairs.push(`${id}, which lay on ${twin}, left out`);
        } else rings.push(ring);
      } else
        findings.push(
          note(
            "open-outline",
            id,
            at,
            "weak",
            `${id} is an open line: its ends are ${formatLength(gap, units)} apart, so it frees nothing. Close it, or give it the colour of scoring.`,
          ),
        );
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
  if (solids.length === 0 && findings.length === 0)
    findings.push(
      note("no-area", "drawing", { x: 0, y: 0 }, "weak", "No outline encloses an area: there is nothing to cut out."),
    );
  const box = regionBox(region);
  if (box && solids.length === 1 && stock.leastWidth > Math.max(box.maxX - box.minX, box.maxY - box.minY))
    findings.push(
      note(
        "no-area",
        "piece-1",
        { x: box.minX, y: box.minY },
        "weak",
        `All of it is smaller than ${formatLength(stock.leastWidth, units)}: is the unit of the file right?`,
      ),
    );
  return { solids, findings, repairs };
}

function note(
  kind: Finding["kind"],
  id: string,
  at: Point,
  means: Finding["means"],
  message: string,
  more: string[] = [],
): Finding {
  return { kind, parts: [id, ...more], meeting: 1 + more.length, at, width: 0, means, message };
}
