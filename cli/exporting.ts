/**
 * export FILE --format svg|dxf|pdf|pattern|png: the files that a machine, the saw, or a listing wants of a piece.
 *
 * The file goes to standard output, or where --out says. Exit code 0 when it was written, 1 when something falls and
 * nothing was written, 2 unusable input.
 */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { parseArgs } from "node:util";
import { examine } from "@mend-joint/core";
import { type MachineProfile, PROFILES, profileById, profileSchema } from "@mend-joint/core/cut";
import { type FileFormat, type FileOptions, makeFile, PAPERS, type Paper } from "@mend-joint/core/formats";
import { describeIssues, hasGrain, type Piece, parseLength, parsePiece, startHoleFor } from "@mend-joint/core/piece";
import { labelsOf, sheetOf } from "@mend-joint/core/report";
import { describeFinding } from "@mend-joint/core/wording";
import { initWasm, Resvg } from "@resvg/resvg-wasm";
import { libraryWith, numberIn, readArguments, readBytes, tabsIn, UsageError, writeFile } from "./files";
import type { Terminal } from "./terminal";

const FORMATS = ["svg", "dxf", "pdf", "pattern", "png"] as const;
type Format = (typeof FORMATS)[number];

const USAGE = `Usage: export FILE --format ${FORMATS.join("|")} [--out FILE] [--profile ID|FILE] [--tabs N] [--polylines] [--source] [--paper ${Object.keys(PAPERS).join("|")}] [--landscape] [--no-hatch] [--drill MM] [--grain DEGREES] [--pixels N] [--font FONTFILE] [--anyway]`;

function parse(argv: string[]) {
  return parseArgs({
    args: argv,
    allowPositionals: true,
    allowNegative: true,
    options: {
      format: { type: "string" },
      out: { type: "string" },
      profile: { type: "string" },
      tabs: { type: "string" },
      polylines: { type: "boolean" },
      source: { type: "boolean" },
      paper: { type: "string" },
      landscape: { type: "boolean" },
      hatch: { type: "boolean" },
      drill: { type: "string" },
      grain: { type: "string" },
      pixels: { type: "string" },
      font: { type: "string", multiple: true },
      anyway: { type: "boolean" },
    },
  });
}

type Values = ReturnType<typeof parse>["values"];

function readProfile(name: string | undefined): MachineProfile {
  const known = profileById(name ?? PROFILES[0]!.id);
  if (known) return known;
  const list = PROFILES.map(({ id }) => id).join(", ");
  if (!/\.json$/i.test(name!)) throw new UsageError(`There is no profile "${name}". Known: ${list}; or the path of a JSON file`);
  const read = profileSchema.safeParse(parseJson(readBytes(name!).toString("utf8"), `${name} is not JSON`));
  if (!read.success) throw new UsageError(`${name} is not a machine profile: ${describeIssues(read.error)}`);
  return read.data;
}

function parseJson(text: string, otherwise: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${otherwise}: ${(error as Error).message}`);
  }
}

function optionsOf(values: Values, piece: Piece): FileOptions {
  const drill = values.drill === undefined ? startHoleFor(piece.stock) : parseLength(values.drill, "mm");
  if (drill === null || drill <= 0 || drill > 20) throw new UsageError(`--drill "${values.drill}" is not a diameter up to 20 mm`);
  if (values.paper !== undefined && !(values.paper in PAPERS))
    throw new UsageError(`There is no paper "${values.paper}". Known: ${Object.keys(PAPERS).join(", ")}`);
  const grain = numberIn(values, "grain", -180, 180);
  return {
    profile: readProfile(values.profile),
    tabs: tabsIn(values),
    curves: values.polylines ? "polylines" : "curves",
    source: values.source,
    pattern: {
      paper: values.paper as Paper | undefined,
      landscape: values.landscape,
      hatch: values.hatch ?? true,
      drill,
      grain: grain ?? (hasGrain(piece.stock) ? (piece.grain ?? 0) : undefined),
    },
    picture: { pixels: numberIn(values, "pixels", 16, 10_000) },
  };
}

/** Started once for the process. */
let renderer: Promise<void> | undefined;

/** A picture as PNG, on a transparent ground. */
export async function rasterise(svg: Uint8Array): Promise<Uint8Array> {
  renderer ??= initWasm(readFileSync(createRequire(import.meta.url).resolve("@resvg/resvg-wasm/index_bg.wasm")));
  await renderer;
  return new Resvg(Buffer.from(svg).toString("utf8")).render().asPng();
}

/** @returns the exit code @throws ClearError, UsageError */
export async function exportFile(argv: string[], terminal: Terminal): Promise<number> {
  const { values, positionals } = readArguments(parse, argv, USAGE);
  const [file, ...more] = positionals;
  const format = values.format as Format | undefined;
  if (!file || more.length > 0) throw new UsageError(USAGE);
  if (!format || !FORMATS.includes(format))
    throw new UsageError(`--format "${values.format ?? ""}" is none of ${FORMATS.join(", ")}`);
  const piece = parsePiece(parseJson(readBytes(file).toString("utf8"), `${file} is not a piece file`));
  const options = optionsOf(values, piece);
  const examination = examine(piece, await libraryWith(values.font ?? []), { notes: false });
  if (examination.material.length === 0) throw new UsageError("There is nothing to cut: the piece has no material");
  if (examination.verdict === "falls" && !values.anyway) {
    const first = examination.findings.find(({ means }) => means === "falls")!;
    const falls = describeFinding(first, labelsOf(examination), "mm");
    terminal.say(`Nothing was written, for something falls: ${falls} Say --anyway to cut it all the same.`);
    return 1;
  }
  const made = await makeFile(piece, sheetOf(piece, examination), (format === "png" ? "picture" : format) as FileFormat, options);
  for (const note of made.notes) terminal.say(note);
  const bytes = format === "png" ? await rasterise(made.bytes) : made.bytes;
  if (values.out === undefined) terminal.write(bytes);
  else writeFile(values.out, bytes);
  return 0;
}
