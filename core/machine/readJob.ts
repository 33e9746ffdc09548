/**
 * What a cutter makes of a file that it is sent: lines with their purposes, or the reasons why it will not take them.
 */
import { type LinePurpose, type MachineProfile, purposeOf } from "../cut";
import type { Drawing, DrawnShape } from "../formats";
import { type Box, coincide, normalise, type Region, type Ring, regionBox, transformRing } from "../geometry";

export interface JobLine {
  purpose: LinePurpose;
  /** mm from the left edge and the upper edge of the sheet. */
  points: Float64Array;
  closed: boolean;
}

export interface Job {
  /** In the order in which they are done. */
  lines: JobLine[];
  /** Areas that are engraved over, each with its holes. */
  areas: Region[];
  /** Of the drawing, mm. */
  width: number;
  height: number;
  /** Worth knowing; the machine runs all the same. */
  warnings: string[];
}

/** A file that the machine does not take, with all reasons. */
export interface Refusal {
  refused: string[];
}

export const isRefused = (job: Job | Refusal): job is Refusal => "refused" in job;

/** Lines wider than this are areas to a machine that wants hairlines, mm. */
const HAIRLINE = 0.3;
/** Outlines count as the same when nothing of them lies farther apart, mm. */
const SAME = 0.05;
/** The bed may be overrun by so much, mm. */
const GRACE = 0.01;

export function readJob(given: Drawing & { format?: string }, profile: MachineProfile): Job | Refusal {
  const refused: string[] = [];
  const drawing = given.format === "dxf" ? onBed(given) : given;
  const warnings: string[] = [...drawing.notes];
  const { shapes } = drawing;
  const box = regionBox(shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)));
  if (!box) return { refused: ["There is nothing in the file that could be cut."] };
  const size = sizeOf(drawing, box, refused);
  const job: Job = { lines: [], areas: [], width: size.width, height: size.height, warnings };
  const strange = new Map<string, number>();
  const wide = new Set<string>();
  for (const shape of shapes) sortIn(shape, profile, job, { strange, wide, refused });
  for (const [colour, count] of strange) {
    warnings.push(
      `${count} ${count === 1 ? "line has" : "lines have"} the colour ${colour}, which means nothing to this machine: left out.`,
    );
  }
  if (wide.size > 0)
    refused.push(
      `Lines ${[...wide].join(", ")} are wider than a hairline (${HAIRLINE} mm): the machine would take them for areas.`,
    );
  if (job.lines.length === 0 && job.areas.length === 0 && refused.length === 0) {
    const { engrave, score, cut } = profile.lines;
    refused.push(
      `No line has a colour or layer of the profile: cut ${cut.colour}, score ${score.colour}, engrave ${engrave.colour}.`,
    );
  }
  const twice = equalOutlines(job.lines);
  if (twice > 0)
    refused.push(
      `${twice} ${twice === 1 ? "outline lies" : "outlines lie"} twice on the same place: it would be cut twice and burn.`,
    );
  refused.push(...outsideBed(job, profile));
  if (refused.length > 0) return { refused: [...new Set(refused)] };
  job.lines.sort((a, b) => ORDER[a.purpose] - ORDER[b.purpose]);
  return job;
}

const ORDER: Record<LinePurpose, number> = { engrave: 0, score: 1, cut: 2 };

/** DXF counts upwards from the lower edge of the bed: its drawing is pushed up against the upper edge. */
function onBed<T extends Drawing>(drawing: T): T {
  const box = regionBox(drawing.shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)));
  if (!box || box.maxY > GRACE) return drawing;
  const shapes = drawing.shapes.map((shape) => ({
    ...shape,
    subpaths: shape.subpaths.map(({ ring, closed }) => ({ ring: transformRing(ring, [1, 0, 0, 1, 0, -box.minY]), closed })),
  }));
  return { ...drawing, shapes };
}

/** The size that the file says it has; DXF has none of its own. */
function sizeOf(drawing: Drawing & { format?: string }, box: Box, refused: string[]): { width: number; height: number } {
  if (drawing.widthMm !== null && drawing.heightMm !== null) return { width: drawing.widthMm, height: drawing.heightMm };
  if (drawing.format !== "dxf") refused.push("The file has no size in real units: its width and height are missing.");
  else if (drawing.notes.some((note) => note.includes("does not say its unit"))) refused.push("The file does not say its unit.");
  return { width: box.maxX - box.minX, height: box.maxY - box.minY };
}

interface Found {
  strange: Map<string, number>;
  wide: Set<string>;
  refused: string[];
}

function sortIn(shape: DrawnShape, profile: MachineProfile, job: Job, { strange, wide, refused }: Found): void {
  const { fill, stroke, layer, strokeWidth, subpaths, fillRule } = shape;
  if (fill !== null) {
    const purpose = purposeOf(profile, fill, layer);
    if (profile.fills === "refused") refused.push("There are filled shapes, where this machine wants hairlines without fill.");
    else if (purpose === "engrave") {
      job.areas.push(
        normalise(
          subpaths.map(({ ring }) => ring),
          fillRule,
        ),
      );
    } else if (purpose !== null)
      refused.push(`A shape that is to be ${said(purpose)} is filled; only lines can be ${said(purpose)}.`);
    else strange.set(fill, (strange.get(fill) ?? 0) + 1);
  }
  if (stroke === null) return;
  const purpose = purposeOf(profile, stroke, layer);
  if (purpose === null) {
    strange.set(stroke, (strange.get(stroke) ?? 0) + 1);
    return;
  }
  if ((strokeWidth ?? 0) > HAIRLINE) wide.add(shape.id);
  for (const { ring, closed } of subpaths) {
    if (ring.length < 4) continue;
    if (purpose === "cut" && !closed && !job.warnings.includes(OPEN)) job.warnings.push(OPEN);
    job.lines.push({ purpose, points: ring, closed });
  }
}

const OPEN = "There are open cut lines: what they are to free stays in the sheet.";
const said = (purpose: LinePurpose) => ({ cut: "cut", score: "scored", engrave: "engraved" })[purpose];

/** How many closed cuts lie on an earlier one. */
export function equalOutlines(lines: readonly Pick<JobLine, "purpose" | "points" | "closed">[]): number {
  const twins = twinFinder<Ring>();
  let twice = 0;
  for (const { purpose, points, closed } of lines) {
    if (purpose === "cut" && closed && twins(points, points)) twice++;
  }
  return twice;
}

/** @returns tells the first outline that lies on the same place, and remembers this one for those that follow */
export function twinFinder<T>(): (ring: Ring, own: T) => T | undefined {
  const seen = new Map<string, { ring: Ring; own: T }[]>();
  return (ring, own) => {
    const box = regionBox([ring])!;
    const keys = [0, 0.5].map((shift) => [box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v + shift)).join(" "));
    const twin = keys.flatMap((key) => seen.get(key) ?? []).find((other) => sameOutline(other.ring, ring))?.own;
    // Of outlines that lie on one another the first is enough to know the others by.
    if (twin !== undefined) return twin;
    for (const key of new Set(keys)) {
      const known = seen.get(key);
      if (known) known.push({ ring, own });
      else seen.set(key, [{ ring, own }]);
    }
    return undefined;
  };
}

export function sameOutline(a: Ring, b: Ring): boolean {
  const [one, two] = [regionBox([a])!, regionBox([b])!];
  if (Math.hypot(one.minX - two.minX, one.minY - two.minY, one.maxX - two.maxX, one.maxY - two.maxY) > 2 * SAME) return false;
  return coincide(a, b, true, SAME);
}

function outsideBed(job: Job, { bed }: MachineProfile): string[] {
  const box = regionBox([...job.lines.map(({ points }) => points), ...job.areas.flat()]);
  if (!box) return [];
  const size = `${(box.maxX - box.minX).toFixed(1)} × ${(box.maxY - box.minY).toFixed(1)} mm`;
  const fits = box.maxX - box.minX <= bed.width + GRACE && box.maxY - box.minY <= bed.height + GRACE;
  const turned = box.maxX - box.minX <= bed.height + GRACE && box.maxY - box.minY <= bed.width + GRACE;
  if (!fits && turned) {
    job.warnings.push(`The drawing is ${size} and fits the bed only when it is turned by a quarter: it was turned.`);
    return [];
  }
  if (!fits) return [`The drawing is ${size}, larger than the bed of ${bed.width} × ${bed.height} mm.`];
  const inside = box.minX >= -GRACE && box.minY >= -GRACE && box.maxX <= bed.width + GRACE && box.maxY <= bed.height + GRACE;
  return inside ? [] : ["Part of the drawing lies outside of the bed: move it to the corner of the page."];
}
