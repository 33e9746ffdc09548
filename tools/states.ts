/**
 * What one state of the code makes of the same things: demo pieces, random pieces, and drawings of random heaps. Written to standard
 * output as JSON, for compare.ts, which puts this file into the other state as it is: it may use only what both have.
 */
import { createHash } from "node:crypto";
import { checkDrawing, type Examination, examine } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import { makeFile, readDrawing } from "@mend-joint/core/formats";
import { type Piece, STOCKS } from "@mend-joint/core/piece";
import { sheetOf } from "@mend-joint/core/report";
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { randomHeap, randomPiece } from "../core/tests/randomPieces";

/** How a thing is judged, and what its files are. */
export interface State {
  verdict: string;
  findings: string[];
  holds: number[];
  /** Fingerprint of each file. */
  files: Record<string, string>;
}

/** Files may say when they were made: here that is always the same moment. */
globalThis.Date = class extends Date {
  constructor(...time: [] | [number | string]) {
    super(...((time.length > 0 ? time : [0]) as [number]));
  }
} as DateConstructor;

const [pieces = 300, drawings = 60] = process.argv.slice(2).map(Number);
const library = shippedLibrary();
const profile = { ...PROFILES[0]!, bed: { width: 5000, height: 5000 } };

const judged = ({ verdict, findings, holds }: Examination): Omit<State, "files"> => ({
  verdict,
  findings: findings.map(({ kind, means, parts }) => `${means} ${kind} ${parts.join(", ")}`),
  holds: holds.map(({ width }) => width),
});

async function stateOfPiece(piece: Piece): Promise<State> {
  const examination = examine(piece, library);
  const sheet = sheetOf(piece, examination);
  const files: State["files"] = {};
  for (const format of sheet.material.length > 0 ? (["svg", "dxf", "pdf"] as const) : []) {
    const { bytes } = await makeFile(piece, sheet, format, { profile });
    files[format] = createHash("sha256").update(bytes).digest("hex");
  }
  return { ...judged(examination), files };
}

async function stateOfDrawing(seed: number): Promise<State> {
  const rings = randomHeap(seed).map((ring) => `<path d="M${ring.join(" ")}Z"/>`);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="90mm" viewBox="-10 -10 90 90"><g fill="none" stroke="#f00" stroke-width="0.1">${rings.join("")}</g></svg>`;
  const drawing = await readDrawing(new TextEncoder().encode(svg));
  return { ...judged(checkDrawing(drawing, { stock: STOCKS[0]!, profile }).examination), files: {} };
}

async function stateOf(work: () => Promise<State>): Promise<State> {
  try {
    return await work();
  } catch (error) {
    return { verdict: `refused: ${(error as Error).message}`, findings: [], holds: [], files: {} };
  }
}

const states: Record<string, State> = {};
for (const piece of demoPieces()) states[piece.id] = await stateOf(() => stateOfPiece(piece));
for (let seed = 1; seed <= pieces; seed++) states[`piece ${seed}`] = await stateOf(() => stateOfPiece(randomPiece(seed)));
for (let seed = 1; seed <= drawings; seed++) states[`drawing ${seed}`] = await stateOf(() => stateOfDrawing(seed));
process.stdout.write(JSON.stringify(states));
