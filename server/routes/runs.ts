import { randomUUID } from "node:crypto";
import { ClearError } from "@mend-joint/core/errors";
import { hasGrain, LIMITS, type Piece, parsePiece } from "@mend-joint/core/piece";
import {
  type Design,
  isStarter,
  type KeptDesign,
  linesOf,
  MOST_OFFCUTS,
  MOST_ROWS,
  offcutSchema,
  readList,
  runChoicesSchema,
  sheetChoicesSchema,
  sizeRuleSchema,
  stockOf,
  USUAL_CHOICES,
} from "@mend-joint/core/runs";
import { CATALOGUE } from "@mend-joint/library";
import { Hono } from "hono";
import { streamSSE } from "hono/streaming";
import { z } from "zod";
import type { Crew } from "../jobs/crew";
import type { Pool } from "../jobs/pool";
import { problem } from "../problems";
import type { Keeper } from "../store/database";
import { listFonts } from "../store/fonts";
import { createPiece, getPiece } from "../store/pieces";
import {
  changeRow,
  changeRun,
  createRun,
  deleteRun,
  getRun,
  keepRanking,
  listRuns,
  restoreRun,
  rowDocument,
  rowOfPiece,
  rowsSince,
  type StoredRun,
  shapesOf,
  tallyOf,
} from "../store/runs";
import type { Database } from "../store/stored";
import { foundRun, NO_RUN } from "./foundRun";
import { sheetRoutes } from "./sheets";
import { validateJson } from "./validate";

const NO_ROW = "The run has no such row.";
/** The number of a row in an address; 0, which no row has, where it cannot be one. */
function rowNumber(text: string): number {
  const number = Number(text);
  return Number.isInteger(number) && number <= MOST_ROWS ? Math.max(0, number) : 0;
}

const text = z.string().max(LIMITS.text);
const designBody = z.union([z.strictObject({ starter: z.string() }), z.strictObject({ piece: z.string() })]);
const columns = z.array(z.union([z.int().min(0).max(9), z.enum(["count", "note", "unused"])])).max(200);
const newRun = z.strictObject({
  name: z.string().trim().min(1).max(LIMITS.name),
  design: designBody,
  /** The list as it was pasted or read from a file. */
  list: z.string(),
  columns: columns.optional(),
  mend: z.boolean(),
  size: sizeRuleSchema,
});
const pickedBody = z.strictObject({
  name: z.string().trim().min(1).max(LIMITS.name),
  pieces: z.array(z.string().max(64)).min(1).max(500),
});
const runBody = z.strictObject({
  name: z.string().trim().min(1).max(LIMITS.name).optional(),
  paused: z.boolean().optional(),
  mend: z.boolean().optional(),
  size: sizeRuleSchema.optional(),
  font: z.string().min(1).max(80).nullable().optional(),
  /** What changes of the sheet; all else stays. */
  sheet: sheetChoicesSchema.partial().optional(),
  /** One more that is filled first, or one less. */
  offcut: z.union([z.strictObject({ take: offcutSchema }), z.strictObject({ leave: z.string().max(64) })]).optional(),
});
const rowBody = z.strictObject({
  /** Line by line; null for one that stays. */
  texts: z.array(text.nullable()).max(20).optional(),
  count: z.int().min(1).max(1000).optional(),
  note: z.string().max(500).optional(),
  leftOut: z.boolean().optional(),
  done: z.boolean().optional(),
  font: z.string().max(80).nullable().optional(),
  /** Gives up the row's own piece on the bench. */
  asListed: z.literal(true).optional(),
});
/** How often a page that follows a run is told, ms; and how long nothing may be said. */
const TELL_MS = 250;
const QUIET_MS = 15_000;

export function runRoutes(db: Database, { copy }: Keeper, crew: Crew, pool: Pool): Hono {
  const routes = new Hono();

  const told = async (run: StoredRun) => ({
    run: withoutPiece(run),
    tally: await tallyOf(db, run.id),
    design: await sourceOf(db, run),
  });
  const found = foundRun(db);

  routes.get("/", async (c) => {
    pool.warm();
    return c.json({ runs: await listRuns(db) });
  });

  routes.post("/", validateJson(newRun), async (c) => {
    const { name, design: wanted, list, columns, mend, size } = c.req.valid("json");
    const design = await takeDesign(db, wanted);
    if (!design) return problem(c, 404, "There is no such design; it may have been deleted.");
    const lines = Math.max(1, linesOf(design));
    const { rows, notes } = readList(list, lines, columns);
    const id = randomUUID();
    const choices = runChoicesSchema.parse({ mend, size, font: null, sheet: sheetFor(design) });
    await createRun(db, { id, name, design, choices, rows });
    await crew.begin(id);
    return c.json({ id, notes }, 201);
  });

  /** Pieces of the rack on sheets: each is a row of its own. */
  routes.post("/picked", validateJson(pickedBody), async (c) => {
    const { name, pieces: ids } = c.req.valid("json");
    const pieces: Piece[] = [];
    for (const id of ids) {
      const stored = await getPiece(db, id);
      if (!stored) return problem(c, 404, "One of these pieces is no longer on the rack.");
      pieces.push(parsePiece(stored.document));
    }
    const [{ stock }] = pieces as [Piece, ...Piece[]];
    const other = pieces.find((piece) => piece.stock.id !== stock.id);
    if (other) {
      return problem(
        c,
        422,
        `“${pieces[0]!.name}” is of ${stock.name} and “${other.name}” of ${other.stock.name}: one sheet is of one kind. Pick pieces of the same sheet.`,
      );
    }
    const id = randomUUID();
    const rows = pieces.map((piece, i) => ({
      ...{ number: i + 1, line: i + 1, texts: [piece.name], count: 1, note: "" },
      pieceId: ids[i]!,
    }));
    const choices = runChoicesSchema.parse({
      mend: false,
      size: { by: "design" },
      font: null,
      sheet: sheetFor({ picked: { stock } }),
    });
    await createRun(db, { id, name, design: { picked: { stock } }, choices, rows });
    await crew.begin(id);
    return c.json({ id }, 201);
  });

  routes.get("/of/:piece", async (c) => c.json({ row: await rowOfPiece(db, c.req.param("piece")) }));

  routes.get("/:id", (c) =>
    found(c, async (run) => {
      // Pieces that were changed on the bench are looked at again.
      if (!run.paused) await crew.begin(run.id, true);
      return c.json({ ...(await told(run)), rows: await rowsSince(db, run.id, 0) });
    }),
  );

  /** Rows as they change, and how far the run is, until the page leaves or the run is gone; a page would ask again for what ends unsaid. */
  routes.get("/:id/events", (c) =>
    streamSSE(c, async (stream) => {
      const id = c.req.param("id");
      let since = Number(c.req.query("since") ?? 0);
      let spoken = performance.now();
      while (!stream.aborted) {
        const run = await getRun(db, id);
        if (!run) return void (await stream.writeSSE({ event: "gone", data: "" }));
        if (run.change > since) {
          const rows = await rowsSince(db, id, since);
          since = run.change;
          spoken = performance.now();
          await stream.writeSSE({ event: "change", data: JSON.stringify({ ...(await told(run)), rows }) });
        } else if (performance.now() - spoken > QUIET_MS) {
          spoken = performance.now();
          await stream.writeSSE({ event: "still", data: "" });
        }
        await stream.sleep(TELL_MS);
      }
    }),
  );

  routes.patch("/:id", validateJson(runBody), (c) =>
    found(c, async ({ id }) => {
      const change = c.req.valid("json");
      const run = await changeRun(db, id, change);
      if (!run && change.offcut && "take" in change.offcut)
        return problem(c, 409, `A run fills at most ${MOST_OFFCUTS} offcuts. Take one off the list first.`);
      if (!run) return problem(c, 404, NO_RUN);
      if (!run.paused) await crew.begin(id);
      return c.json(await told(run));
    }),
  );

  /** All names are tried in every lettering there is. */
  routes.post("/:id/ranking", (c) =>
    found(c, async ({ id, design }) => {
      if ("picked" in design) return problem(c, 409, "Pieces of the rack keep their lettering. Change it on the bench.");
      const own = await listFonts(db);
      await crew.rank(id, [...CATALOGUE.map((font) => font.id), ...own.map((font) => font.id)]);
      return c.body(null, 204);
    }),
  );

  routes.delete("/:id/ranking", (c) =>
    found(c, async ({ id }) => {
      await keepRanking(db, id, null);
      return c.body(null, 204);
    }),
  );

  /** The design as it is on the rack now, or another one. */
  routes.put("/:id/design", validateJson(designBody), (c) =>
    found(c, async ({ id }) => {
      const design = await takeDesign(db, c.req.valid("json"));
      if (!design) return problem(c, 404, "There is no such design; it may have been deleted.");
      const run = await changeRun(db, id, { design });
      if (!run) return problem(c, 404, NO_RUN);
      if (!run.paused) await crew.begin(id);
      return c.json(await told(run));
    }),
  );

  routes.delete("/:id", async (c) => ((await deleteRun(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, NO_RUN)));
  routes.post("/:id/restore", async (c) =>
    (await restoreRun(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, NO_RUN),
  );

  routes.get("/:id/shapes", async (c) => {
    const numbers = (c.req.query("rows") ?? "").split(",").map(rowNumber).slice(0, 2000);
    return c.json({ shapes: await shapesOf(db, c.req.param("id"), numbers) });
  });

  routes.patch("/:id/rows/:number", validateJson(rowBody), (c) =>
    found(c, async ({ id, paused, design }) => {
      const { asListed, ...change } = c.req.valid("json");
      if ("picked" in design && (asListed || change.texts || change.font !== undefined)) {
        return problem(c, 409, "This row is a piece of the rack. Change it on the bench.");
      }
      const number = rowNumber(c.req.param("number"));
      const changed = await changeRow(db, id, number, asListed ? { ...change, pieceId: null } : change);
      if (!changed) return problem(c, 404, NO_ROW);
      if (!paused) await crew.begin(id);
      return c.body(null, 204);
    }),
  );

  /** The row as a piece of its own on the bench. */
  routes.post("/:id/rows/:number/open", (c) =>
    found(c, async ({ id }) => {
      const number = rowNumber(c.req.param("number"));
      const row = await rowDocument(db, id, number);
      if (!row) return problem(c, 404, NO_ROW);
      if (row.piece_id && !row.deleted) return c.json({ piece: row.piece_id });
      if (!row.document)
        return problem(c, 409, "This row has no piece yet. Wait until it has been examined, or change its name.");
      const piece = await createPiece(db, parsePiece({ ...(row.document as Piece), id: randomUUID() }));
      await copy({ ...piece, deleted: false });
      await changeRow(db, id, number, { pieceId: piece.id });
      await crew.begin(id);
      return c.json({ piece: piece.id }, 201);
    }),
  );

  routes.route("/", sheetRoutes(db, crew, pool));
  return routes;
}

/** @returns `null` where there is none */
async function takeDesign(db: Database, wanted: z.output<typeof designBody>): Promise<(KeptDesign & Design) | null> {
  if ("starter" in wanted) return isStarter(wanted.starter) ? wanted : null;
  const stored = await getPiece(db, wanted.piece);
  if (!stored) return null;
  const piece = parsePiece(stored.document);
  if (!piece.parts.some(({ kind }) => kind === "word"))
    throw new DesignError(`“${piece.name}” has no word that a name could stand in`);
  return { piece, from: { id: stored.id, version: stored.version } };
}

class DesignError extends ClearError {
  override name = "DesignError";
  readonly code = "list";
}

const sheetFor = (design: KeptDesign) => ({
  ...USUAL_CHOICES.sheet,
  // Where there is a grain it usually matters.
  turns: hasGrain(stockOf(design)) ? "halves" : "quarters",
});

/** Where the design comes from, and whether it has changed there since. */
async function sourceOf(db: Database, { design }: StoredRun) {
  const known = { stock: stockOf(design), picked: "picked" in design, piece: null, name: null, changed: false, gone: false };
  if ("picked" in design) return { ...known, lines: 1 };
  const lines = linesOf(design);
  if ("starter" in design) return { ...known, lines };
  const { piece, from } = design;
  const now = from && (await getPiece(db, from.id));
  return {
    ...known,
    lines,
    piece: from?.id ?? null,
    name: piece.name,
    changed: now ? now.version !== from.version : false,
    gone: from !== undefined && !now,
  };
}

/** The design's document is not needed on the page. */
const withoutPiece = ({ design: _, ...run }: StoredRun) => run;
