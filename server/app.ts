/**
 * The web application's server side: the API, and the built pages.
 */
import { existsSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { fileURLToPath } from "node:url";
import { serveStatic } from "@hono/node-server/serve-static";
import { MOST_BYTES } from "@mend-joint/core/formats";
import { MAX_FONT_BYTES } from "@mend-joint/core/lettering";
import { Hono, type MiddlewareHandler } from "hono";
import { bodyLimit } from "hono/body-limit";
import { compress } from "hono/compress";
import { secureHeaders } from "hono/secure-headers";
import { sameOriginOnly } from "./guard";
import type { Ahead } from "./jobs/ahead";
import type { Crew } from "./jobs/crew";
import type { Pool } from "./jobs/pool";
import type { FaultyMachine } from "./machines/machine";
import { handleError, problem } from "./problems";
import { couponRoutes } from "./routes/coupons";
import { examinationRoutes } from "./routes/examinations";
import { fontRoutes } from "./routes/fonts";
import { machineRoutes } from "./routes/machine";
import { offcutRoutes } from "./routes/offcuts";
import { outlineRoutes } from "./routes/outlines";
import { pictureRoutes } from "./routes/pictures";
import { pieceRoutes } from "./routes/pieces";
import { profileRoutes } from "./routes/profiles";
import { runRoutes } from "./routes/runs";
import { stockRoutes } from "./routes/stocks";
import type { Keeper } from "./store/database";
import type { OwnTable } from "./store/own";
import { listPieces } from "./store/pieces";
import type { Database } from "./store/stored";

/** A piece document of 60 full words stays well below this; a piece may have drawings in it. */
const MAX_BODY = 6_000_000;

/** Where files are taken in. */
const LARGE: Record<string, number> = { "/api/fonts": MAX_FONT_BYTES, "/api/machine/jobs": MOST_BYTES + MAX_BODY };

const NOWHERE: Keeper = { settled: async () => {}, copy: async () => {}, copyShelf: async () => {} };

/** What is changed at these addresses besides pieces and runs. */
const KEPT_AT: Record<string, OwnTable> = {
  "/api/profiles/*": "machine_profile",
  "/api/outlines/*": "outline",
  "/api/offcuts/*": "offcut",
  "/api/runs/:id/sheets/:number/offcut": "offcut",
  "/api/stocks/*": "stock",
  "/api/coupons/*": "coupon",
};

export interface AppOptions {
  db: Database;
  /** Left out for databases in memory. */
  store?: Keeper;
  machine: FaultyMachine;
  /** Who works on lists; left out, there are no runs. */
  work?: { crew: Crew; pool: Pool };
  /** Who examines for pages that have just been opened; left out, they wait for their own engine. */
  ahead?: Ahead;
  /** Host name the server listens on. */
  host: string;
  /** Folder of the built pages; left out, only the API answers. */
  pages?: string;
}

export const BUILT_PAGES = fileURLToPath(new URL("../web/dist", import.meta.url));

/** Pages evaluate nothing. */
const pageHeaders = secureHeaders({
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", "data:", "blob:"],
    fontSrc: ["'self'", "data:"],
    workerSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
});

/**
 * The examining worker has no document to be harmed. It runs WebAssembly, and the polygon library puts its calls together with
 * `new Function`.
 */
const WORKER_SCRIPT = /^\/assets\/[\w.-]+\.worker-[\w-]+\.js$/;
const workerHeaders = secureHeaders({
  contentSecurityPolicy: { defaultSrc: ["'self'"], scriptSrc: ["'self'", "'wasm-unsafe-eval'", "'unsafe-eval'"] },
});

const limited = (maxSize: number) =>
  bodyLimit({ maxSize, onError: (c) => problem(c, 413, `What is sent here may have ${maxSize / 1e6} MB at most.`) });

/** Work that is done before a change is answered, unless the change was refused. */
function afterChanges(work: () => Promise<void>): MiddlewareHandler {
  return async (c, next) => {
    await next();
    if (c.req.method !== "GET" && c.res.status < 400) await work();
  };
}

export function createApp({ db, store = NOWHERE, machine, work, ahead, host, pages }: AppOptions): Hono {
  const app = new Hono();
  app.onError(handleError);
  app.use("*", (c, next) => (WORKER_SCRIPT.test(c.req.path) ? workerHeaders : pageHeaders)(c, next));
  app.use(sameOriginOnly(host));
  app.use("/api/*", (c, next) => limited(LARGE[c.req.path] ?? MAX_BODY)(c, next));

  // Fonts are kept by the browser; what is asked for often is text.
  app.use("/api/*", compress({ contentTypeFilter: /json/ }));
  // What is answered is on the disk.
  app.use("/api/*", afterChanges(store.settled));
  for (const [at, table] of Object.entries(KEPT_AT))
    app.use(
      at,
      afterChanges(() => store.copyShelf(table)),
    );

  app.get("/api/health", async (c) => c.json({ status: "ok", pieces: (await listPieces(db)).length }));
  app.route("/api/pieces", pieceRoutes(db, store));
  app.route("/api/fonts", fontRoutes(db));
  app.route("/api/profiles", profileRoutes(db));
  app.route("/api/outlines", outlineRoutes(db));
  app.route("/api/offcuts", offcutRoutes(db));
  app.route("/api/stocks", stockRoutes(db));
  app.route("/api/coupons", couponRoutes(db, store));
  app.route("/api/pictures", pictureRoutes(db));
  app.route("/api/machine", machineRoutes(machine));
  if (work) app.route("/api/runs", runRoutes(db, store, work.crew, work.pool));
  if (ahead) app.route("/api", examinationRoutes(ahead));
  app.all("/api/*", (c) => problem(c, 404, "The API has nothing at this address."));

  if (pages && existsSync(join(pages, "index.html"))) {
    app.use("/assets/*", async (c, next) => {
      await next();
      if (c.res.status === 200) c.header("cache-control", "public, max-age=31536000, immutable");
    });
    app.use(serveStatic({ root: relative(process.cwd(), pages) || ".", precompressed: true }));
    app.get("/assets/*", (c) => c.notFound());
    // Addresses like /bench/… belong to the pages themselves.
    app.get("*", (c) => c.html(readFileSync(join(pages, "index.html"), "utf8"), 200, { "cache-control": "no-cache" }));
  }
  app.notFound((c) => problem(c, 404, "There is nothing at this address."));
  return app;
}
