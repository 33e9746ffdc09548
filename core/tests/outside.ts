/**
 * Random pieces and heaps against libraries that the product does not use (Shapely, ezdxf, poppler; see pieces.py).
 */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { shippedLibrary } from "@mend-joint/library";
import { PROFILES, planCut } from "../cut";
import { type Examination, examine, examineSolids, type Solid } from "../examine";
import { FileError, makeFile } from "../formats";
import { normalise, REACH, regionArea } from "../geometry";
import { poleOf } from "../measure";
import { widthToDraw } from "../piece";
import { sheetOf } from "../report";
import { randomHeap, randomPiece } from "./randomPieces";

export interface Disagreement {
  seed: number;
  kind: "piece" | "heap";
  faults: string[];
}

const library = shippedLibrary();
const profile = { ...PROFILES[0]!, bed: { width: 5000, height: 5000 } };
/** Holds are measured at no more parts than this: each takes a dozen erosions. */
const HOLDS = 2;

/** What a holding tab leaves, mm. */
const TAB = 0.4;

/** @param first seed; each case has one of its own @param onCase told after each */
export async function disagreements(
  first: number,
  count: number,
  { heaps = 0.25, onCase = () => {} }: { heaps?: number; onCase?: (found: Disagreement | null, done: number) => void } = {},
): Promise<Disagreement[]> {
  const folder = mkdtempSync(join(tmpdir(), "mend-joint-"));
  const script = spawn("/usr/bin/python3", [join(import.meta.dirname, "pieces.py")], { stdio: ["pipe", "pipe", "inherit"] });
  script.stdin.on("error", () => {});
  const lines = createInterface({ input: script.stdout })[Symbol.asyncIterator]();
  const ask = (question: object) => script.stdin.write(`${JSON.stringify(question)}\n`);
  const answer = async (): Promise<string[]> => {
    const line = await lines.next();
    if (line.done) throw new Error("the reference has ended");
    return JSON.parse(line.value).faults;
  };
  const failed = (error: unknown) => [`ours failed: ${(error as Error).message}`];
  const found: Disagreement[] = [];
  let done = 0;
  const tell = (seed: number, kind: Disagreement["kind"], faults: string[]) => {
    const disagreement = faults.length > 0 ? { seed, kind, faults } : null;
    if (disagreement) found.push(disagreement);
    onCase(disagreement, ++done);
  };
  try {
    // While the reference looks at one case, the next is made.
    let before: Promise<void> = Promise.resolve();
    for (let seed = first; seed < first + count; seed++) {
      const kind = seed % Math.round(1 / heaps) === 0 ? "heap" : "piece";
      const made: object | string[] = await (kind === "heap"
        ? Promise.resolve(seed).then(heapCase)
        : pieceCase(seed, folder)
      ).catch(failed);
      await before;
      if (Array.isArray(made)) tell(seed, kind, made);
      else {
        ask(made);
        before = answer().then(
          (faults) => tell(seed, kind, faults),
          (error) => tell(seed, kind, failed(error)),
        );
      }
    }
    await before;
  } finally {
    script.stdin.end();
    rmSync(folder, { recursive: true, force: true });
  }
  return found;
}

function heapCase(seed: number) {
  const solids = randomHeap(seed)
    .map((ring, i): Solid => {
      const id = `s${i}`;
      return { id, partId: id, label: { kind: "shape", text: id, ordinal: "" }, holder: i === 0, region: normalise([ring]) };
    })
    .filter(({ region }) => regionArea(region) > 0.05);
  return { id: seed, ...describe(examineSolids(solids, 1.5, { notes: false }), 1.5) };
}

async function pieceCase(seed: number, folder: string) {
  const piece = randomPiece(seed);
  const examination = examine(piece, library, { notes: false });
  const sheet = sheetOf(piece, examination);
  const question = { id: seed, ...describe(examination, widthToDraw(piece)) };
  if (sheet.material.length === 0) return question;
  const plan = planCut(piece, sheet, { profile });
  // Larger than a file can be: refused with a sentence, and nothing to read again.
  if (Math.max(plan.width, plan.height) > REACH) {
    await makeFile(piece, sheet, "svg", { profile }).then(
      () => {
        throw new Error(`a file of ${plan.width} × ${plan.height} mm was written`);
      },
      (error: unknown) => {
        if (!(error instanceof FileError && error.message.includes("on a side"))) throw error;
      },
    );
    return question;
  }
  const files: Record<string, string> = {};
  for (const format of ["svg", "dxf", "pdf"] as const) {
    files[format] = join(folder, `${seed}.${format}`);
    writeFileSync(files[format], (await makeFile(piece, sheet, format, { profile })).bytes);
  }
  const tabbed = { path: join(folder, `${seed}-tabs.svg`), kerf: piece.stock.kerf, width: TAB };
  const tabs = { count: 1 + (seed % 3), width: TAB };
  writeFileSync(tabbed.path, (await makeFile(piece, sheet, "svg", { profile, tabs })).bytes);
  return { ...question, files, tabbed, cut: plan.cut.map((ring) => [...ring]), width: plan.width, height: plan.height };
}

function describe({ solids, holds, pieces, verdict, area, standIn }: Examination, wanted: number) {
  const poles = solids.map(({ region, pole }) => (pole === undefined ? poleOf(region) : pole));
  const holders = [...solids.keys()].filter((i) => (standIn >= 0 ? i === standIn : solids[i]!.holder) && poles[i]);
  const asked = [...solids.keys()].filter((i) => poles[i] && !holders.includes(i)).slice(0, HOLDS);
  const point = (i: number) => [poles[i]!.x, poles[i]!.y];
  return {
    parts: solids.map(({ region }) => ({ rings: region.map((ring) => [...ring]) })),
    holds: asked.map((i) => ({ id: solids[i]!.id, width: holds[i]!.width, pole: point(i), anchors: holders.map(point) })),
    pieces,
    verdict,
    area,
    wanted,
    colour: profile.lines.cut.colour,
    layer: profile.lines.cut.layer,
  };
}
