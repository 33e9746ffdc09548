/**
 * The load test from a terminal: what letters take, and pushes of anybody's own.
 */
import type { Examination } from "@mend-joint/core";
import type { Box } from "@mend-joint/core/geometry";
import { measureWidths } from "@mend-joint/core/measure";
import type { Piece, Stock } from "@mend-joint/core/piece";
import { labelsOf } from "@mend-joint/core/report";
import {
  createLoadTest,
  forcesOf,
  frameOf,
  heldAt,
  heldBy,
  loadsInUse,
  loadsOn,
  type Material,
  materialOf,
  type Push,
  StrengthError,
  type Support,
  type UseLoad,
} from "@mend-joint/core/strength";
import { inUseSentence, titleOf } from "@mend-joint/core/wording";
import { UsageError } from "./files";

/** What is asked of the load test; places in the file's own directions. */
export interface LoadRequest {
  loads: boolean;
  supports: Box[];
  pushes: Push[];
  young?: number | undefined;
  poisson?: number | undefined;
  thickness?: number | undefined;
}

export const isAsked = ({ loads, pushes }: LoadRequest): boolean => loads || pushes.length > 0;

/** @throws UsageError for what is not so many numbers with commas between them */
export function numbersIn(option: string, text: string, count: number): number[] {
  const numbers = text.split(",").map((part) => (part.trim() === "" ? Number.NaN : Number(part)));
  if (numbers.length !== count || !numbers.every((value) => Number.isFinite(value) && Math.abs(value) <= 1e6)) {
    throw new UsageError(`--${option} "${text}" is not ${count} numbers with commas between them`);
  }
  return numbers;
}

export function supportIn(text: string): Box {
  const [x0, y0, x1, y1] = numbersIn("support", text, 4) as [number, number, number, number];
  return { minX: Math.min(x0, x1), minY: Math.min(y0, y1), maxX: Math.max(x0, x1), maxY: Math.max(y0, y1) };
}

export function pushIn(text: string): Push {
  const [x, y, fx, fy, fz] = numbersIn("push", text, 5) as [number, number, number, number, number];
  return { x, y, force: [fx, fy, fz] };
}

/** A figure after a minus sign is no option: its option takes it. */
export function withFigures(argv: readonly string[]): string[] {
  const joined: string[] = [];
  for (const part of argv) {
    const before = joined.at(-1);
    if (/^-[\d.]/.test(part) && before !== undefined && /^--(support|push|poisson)$/.test(before))
      joined[joined.length - 1] = `${before}=${part}`;
    else joined.push(part);
  }
  return joined;
}

interface Tested {
  examination: Examination;
  stock: Stock;
  /** What the cut takes of every width, mm. */
  lost: number;
  flipY: boolean;
  /** Where it is a piece file. */
  piece?: Piece | undefined;
}

interface Reported {
  pushes?: { at: [number, number]; displacement: number[]; worst: { at: [number, number]; width: number; stress: number } }[];
  loads?: {
    letter: string;
    takes: number;
    gets: number;
    direction: string;
    at: [number, number];
    breaks: { at: [number, number]; width: number };
  }[];
  /** What it weighs. */
  grams?: number;
  /** What happens to the whole piece; `null` for any force. */
  uses?: {
    use: UseLoad["kind"];
    takes: number | null;
    gets: number;
    at: [number, number];
    breaks: { at: [number, number]; width: number };
  }[];
}

/** @returns what the JSON has of it, and lines for people @throws StrengthError, UsageError */
export function testLoads(
  { examination, stock, lost, flipY, piece }: Tested,
  request: LoadRequest,
): { json: Reported; lines: string[] } {
  const up = flipY ? -1 : 1;
  const usual = materialOf(stock, piece?.grain);
  const material: Material = {
    young: request.young ?? usual.young,
    poisson: request.poisson ?? usual.poisson,
    thickness: request.thickness ?? usual.thickness,
  };
  const given = request.supports.map((box) => (flipY ? { ...box, minY: -box.maxY, maxY: -box.minY } : box));
  // An outline does not say how it is held, unless one of its shapes is the holder.
  const supports: Support[] =
    given.length > 0 ? given : piece || examination.standIn < 0 ? heldAt(piece ?? NO_PARTS, examination) : [];
  if (supports.length === 0) throw new UsageError("Say where it is held: --support X0,Y0,X1,Y1");
  const figure = (value: number) => (Math.abs(value) < NOTHING ? 0 : Number(value.toPrecision(6)));
  const point = ({ x, y }: { x: number; y: number }): [number, number] => [figure(x), figure(up * y) || 0];
  /** In another material, or held as the caller says: then nobody knows what it is used for. */
  const heldAsSaid = () => {
    const { strength } = stock;
    const frame = frameOf(measureWidths(examination.material).medial(), { ...material, grain: usual.grain }, supports, lost);
    const by = given.length === 0 && piece ? heldBy(piece, examination).by : "letters";
    const asked = { held: { by, places: supports }, forces: forcesOf(piece?.hand) };
    const letters = loadsOn(frame, asked, examination, { strength });
    return { letters, uses: loadsInUse(frame, asked, examination, { strength }) };
  };
  const json: Reported = {};
  const lines: string[] = [];
  if (request.pushes.length > 0) {
    const frame = frameOf(measureWidths(examination.material).medial(), material, supports, lost);
    const answers = frame.push(
      request.pushes.map(({ x, y, force: [fx, fy, fz] }) => ({ x, y: up * y, force: [fx, up * fy, fz] as const })),
    );
    json.pushes = answers.map(({ displacement: [dx, dy, dz], worst }, i) => {
      const { x, y } = request.pushes[i]!;
      return {
        at: [x, y],
        displacement: [figure(dx), figure(up * dy), figure(dz)],
        worst: { at: point(worst), width: figure(worst.width), stress: figure(worst.stress) },
      };
    });
    for (const { at, displacement, worst } of json.pushes) {
      const moves = Math.hypot(...displacement);
      lines.push(
        `Pushed at ${at.join(", ")} it gives way ${moves.toPrecision(3)} mm; ${worst.stress.toPrecision(3)} MPa at ${worst.at.join(", ")}, where it is ${worst.width.toPrecision(3)} mm wide.`,
      );
    }
  }
  if (request.loads) {
    const labels = labelsOf(examination);
    const { strength } = stock;
    if (!(strength > 0)) throw new StrengthError("The load test needs a strength above zero");
    const own = request.young ?? request.poisson ?? request.thickness;
    const whole = piece && given.length === 0 && own === undefined ? createLoadTest(piece, examination).test : null;
    const { letters: loads, uses } = whole ?? heldAsSaid();
    if (whole) json.grams = figure(whole.grams);
    json.uses = uses.map(({ kind, force, takes, at, breaks }) => ({
      use: kind,
      takes: Number.isFinite(takes) ? figure(takes) : null,
      gets: force,
      at: point(at),
      breaks: { at: point(breaks), width: figure(breaks.width) },
    }));
    json.loads = loads.map(({ id, takes, force, direction, at, breaks }) => ({
      letter: id,
      takes: figure(takes),
      gets: force,
      direction,
      at: point(at),
      breaks: { at: point(breaks), width: figure(breaks.width) },
    }));
    for (const { id, takes, force, direction } of loads) {
      const label = labels.get(id);
      const name = label ? titleOf(label) : id;
      lines.push(
        takes < force
          ? `${name} gives way at ${takes.toFixed(1)} N ${direction}; a careless finger is ${force} N.`
          : `${name} takes ${takes.toFixed(1)} N ${direction}.`,
      );
    }
    // Where there are letters, theirs are the far ends.
    for (const use of uses) {
      if (use.kind !== "at the far end" || loads.length === 0) lines.push(inUseSentence(use, piece?.purpose ?? "topper"));
    }
  }
  return { json, lines };
}

const NO_PARTS = { parts: [] };
/** What is left of nothing by rounding. */
const NOTHING = 1e-12;
