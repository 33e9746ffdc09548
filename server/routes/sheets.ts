/**
 * The sheets of a run: laid, moved by hand, taken along, and what is left of them.
 */
import { randomUUID } from "node:crypto";
import { LINE_PURPOSES, type MachineProfile, PROFILES, profileById, TAB_LIMITS, tabsOf } from "@mend-joint/core/cut";
import { zipFiles } from "@mend-joint/core/formats";
import { transformRegion } from "@mend-joint/core/geometry";
import type { Units } from "@mend-joint/core/piece";
import {
  type Layout,
  layoutSchema,
  leftoverOf,
  matrixSchema,
  type Offcut,
  packRegion,
  stockOf,
  usedOn,
} from "@mend-joint/core/runs";
import { type Context, Hono } from "hono";
import { z } from "zod";
import type { Crew } from "../jobs/crew";
import type { Pool } from "../jobs/pool";
import { cutList, drawFinishedRows, moveToSheet, proveLayout, sheetFile, staleRows } from "../jobs/sheets";
import { problem } from "../problems";
import { ownOffcuts } from "../store/offcuts";
import { ownProfiles } from "../store/profiles";
import { endLaying, getRun, replaceLayout, type StoredRun, tallyOf } from "../store/runs";
import type { Database } from "../store/stored";
import { foundRun, NO_RUN } from "./foundRun";
import { validateJson, validateQuery } from "./validate";

const layBody = z.strictObject({ keep: z.boolean(), seconds: z.number().min(0).max(600) });
const placesBody = z.strictObject({
  moved: z
    .array(z.strictObject({ sheet: z.int().min(0), place: z.int().min(0), matrix: matrixSchema, pinned: z.boolean() }))
    .max(1000),
});
const otherSheetBody = z.strictObject({ sheet: z.int().min(0), place: z.int().min(0), to: z.int().min(0) });
const FORMATS = ["svg", "dxf", "pdf"] as const;
const formatOf = (text: string | undefined) => FORMATS.find((format) => format === text) ?? null;

/** Holding tabs on each outline and purposes that are left out; none where they are not asked for. */
const linesQuery = z.object({
  tabs: z.coerce.number().int().min(TAB_LIMITS.count.least).max(TAB_LIMITS.count.most).default(0),
  tabWidth: z.coerce.number().min(TAB_LIMITS.width.least).max(TAB_LIMITS.width.most).default(TAB_LIMITS.width.usual),
  without: z
    .string()
    .transform((text) => text.split(",").filter((each) => each !== ""))
    .pipe(z.array(z.enum(LINE_PURPOSES)))
    .default([]),
});

/** How often a change is tried while others change the same. */
const TRIES = 8;

export function sheetRoutes(db: Database, crew: Crew, pool: Pool): Hono {
  const routes = new Hono();

  const found = foundRun(db);

  routes.post("/:id/lay", validateJson(layBody), (c) =>
    found(c, async ({ id }) => {
      const { due } = await tallyOf(db, id);
      if (due > 0) return problem(c, 409, `${due} rows are still being examined. Lay them when all are.`);
      await crew.lay(id, c.req.valid("json"));
      return c.body(null, 204);
    }),
  );

  /** No better way is looked for. */
  routes.delete("/:id/lay", (c) =>
    found(c, async ({ id }) => {
      await endLaying(db, id);
      return c.body(null, 204);
    }),
  );

  /** Pieces that the maker has moved, turned or pinned. */
  routes.put("/:id/places", validateJson(placesBody), async (c) => {
    const { moved } = c.req.valid("json");
    // What changes meanwhile, such as another piece that is moved, is not overwritten: it is looked at again.
    for (let tries = 0; tries < TRIES; tries++) {
      const run = await getRun(db, c.req.param("id"));
      if (!run) return problem(c, 404, NO_RUN);
      const layout = layoutOf(run);
      if (!layout) return problem(c, 409, "Nothing is laid yet.");
      for (const { sheet, place, matrix, pinned } of moved) {
        const piece = layout.sheets[sheet]?.pieces[place];
        if (!piece) return problem(c, 404, `There is no place ${place + 1} on sheet ${sheet + 1}.`);
        piece.matrix = matrix;
        piece.pinned = pinned;
      }
      const proved = await proveLayout(db, pool, run, layout, new Set(moved.map(({ sheet }) => sheet)));
      if (await replaceLayout(db, run.id, proved, run.change)) return c.json(proved);
    }
    return problem(c, 409, "The sheets are being changed at this moment. Try again.");
  });

  /** A piece onto another sheet, to where it has room; one beyond the last begins a sheet. */
  routes.put("/:id/other-sheet", validateJson(otherSheetBody), async (c) => {
    const { sheet, place, to } = c.req.valid("json");
    for (let tries = 0; tries < TRIES; tries++) {
      const run = await getRun(db, c.req.param("id"));
      if (!run) return problem(c, 404, NO_RUN);
      const layout = layoutOf(run);
      if (!layout?.sheets[sheet]?.pieces[place] || to > layout.sheets.length || to === sheet)
        return problem(c, 404, `There is no such place, or no sheet ${to + 1}.`);
      const moved = await moveToSheet(db, pool, run, layout, { sheet, place, to });
      if (!moved) return problem(c, 409, `Sheet ${to + 1} has no room for it.`);
      if (await replaceLayout(db, run.id, moved, run.change)) return c.json(moved);
    }
    return problem(c, 409, "The sheets are being changed at this moment. Try again.");
  });

  /** What is left of a sheet when its pieces have been cut, kept among the offcuts; of one that was an offcut, in its place. */
  routes.post("/:id/sheets/:number/offcut", (c) =>
    found(c, async (run) => {
      const layout = layoutOf(run);
      const k = Number(c.req.param("number")) - 1;
      const sheet = layout?.sheets[k];
      if (!layout || !sheet) return problem(c, 404, "There is no such sheet.");
      const drawn = await drawFinishedRows(
        db,
        pool,
        run.id,
        sheet.pieces.map(({ row }) => row),
      );
      const pieces = sheet.pieces.map(({ row, matrix }) => transformRegion(drawn.get(row)?.region ?? [], matrix));
      const left = leftoverOf(pieces, layout.choices, usedOn(layout, k));
      if (!left) return problem(c, 409, "Nothing that is worth keeping is left of this sheet.");
      const before = layout.choices.offcuts.find(({ id }) => id === sheet.offcut);
      const name = before?.name ?? `${run.name.slice(0, 60)}, sheet ${k + 1}`;
      const offcut: Offcut = { id: before?.id ?? randomUUID(), name, stock: stockOf(run.design).id, outline: packRegion(left) };
      await ownOffcuts.save(db, offcut);
      return c.json(offcut, 201);
    }),
  );

  routes.get("/:id/sheets/:name", validateQuery(linesQuery), (c) =>
    found(c, async (run) => {
      const [, number, extension] = /^(\d+)\.(\w+)$/.exec(c.req.param("name")) ?? [];
      const format = formatOf(extension);
      const layout = layoutOf(run);
      if (!format || !layout?.sheets[Number(number) - 1]) return problem(c, 404, "There is no such sheet.");
      const wrong = await whyNot(run, layout);
      if (wrong) return problem(c, 409, wrong);
      const { tabs, tabWidth, without } = c.req.valid("query");
      const how = { format, profile: await profileIn(db, c), tabs: tabsOf(tabs, tabWidth), without };
      const file = await sheetFile(db, pool, run, { layout, k: Number(number) - 1, ...how });
      return c.body(new Uint8Array(file.bytes), 200, { "content-type": file.type, ...attached(file.name) });
    }),
  );

  routes.get("/:id/cut-list.csv", (c) =>
    found(c, async (run) => {
      const layout = layoutOf(run);
      if (!layout) return problem(c, 409, "Nothing is laid yet.");
      const { csv } = await cutList(db, run, layout, unitsOf(c));
      return c.body(csv, 200, { "content-type": "text/csv; charset=utf-8", ...attached("cut-list.csv") });
    }),
  );

  routes.get("/:id/sheets.zip", validateQuery(linesQuery), (c) =>
    found(c, async (run) => {
      const layout = layoutOf(run);
      const format = formatOf(c.req.query("format") ?? "svg");
      if (!layout || !format) return problem(c, 409, "Nothing is laid yet.");
      const wrong = await whyNot(run, layout);
      if (wrong) return problem(c, 409, wrong);
      const { tabs, tabWidth, without } = c.req.valid("query");
      const how = { format, profile: await profileIn(db, c), tabs: tabsOf(tabs, tabWidth), without };
      const files = await Promise.all(layout.sheets.map((_, k) => sheetFile(db, pool, run, { layout, k, ...how })));
      const { csv, pdf } = await cutList(db, run, layout, unitsOf(c));
      const bytes = zipFiles([
        ...files,
        { name: "cut-list.csv", bytes: new TextEncoder().encode(csv) },
        { name: "cut-list.pdf", bytes: await pdf() },
      ]);
      return c.body(new Uint8Array(bytes), 200, { "content-type": "application/zip", ...attached(`${run.name}.zip`) });
    }),
  );

  routes.get("/:id/cut-list.pdf", (c) =>
    found(c, async (run) => {
      const layout = layoutOf(run);
      if (!layout) return problem(c, 409, "Nothing is laid yet.");
      const { pdf } = await cutList(db, run, layout, unitsOf(c));
      return c.body(new Uint8Array(await pdf()), 200, { "content-type": "application/pdf", ...attached("cut-list.pdf") });
    }),
  );

  /** Why a sheet must not be cut as it is laid; `null` where nothing stands in the way. */
  async function whyNot(run: StoredRun, layout: Layout): Promise<string | null> {
    if (layout.faults.length > 0) {
      const [{ sheet }] = layout.faults as [Layout["faults"][number]];
      return `On sheet ${sheet + 1} pieces lie nearer than ${layout.choices.gap} mm, or beyond the margin. Move them apart, or lay the sheets again.`;
    }
    const { due } = await tallyOf(db, run.id);
    if (due > 0) {
      await crew.begin(run.id, true);
      return `${due} ${due === 1 ? "row is" : "rows are"} not examined as they are now. Wait until they are, and lay the sheets again if they changed.`;
    }
    const stale = await staleRows(db, run, layout);
    if (stale.length === 0) return null;
    return `${stale.length} ${stale.length === 1 ? "row has" : "rows have"} changed since the sheets were laid (row ${stale[0]}). Lay them again.`;
  }

  return routes;
}

const attached = (name: string) => ({
  "content-disposition": `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
});
/** The machine that the files are for; the first of ours where none is named. */
async function profileIn(db: Database, c: Context): Promise<MachineProfile> {
  return profileById(c.req.query("machine") ?? "", await ownProfiles.list(db)) ?? PROFILES[0]!;
}
const unitsOf = (c: Context): Units => (c.req.query("units") === "in" ? "in" : "mm");
const layoutOf = (run: StoredRun): Layout | null => layoutSchema.safeParse(run.layout).data ?? null;
