/** All that Node.js runs, each program as one file in `dist`, with what several share beside them: they begin in a moment. */
import { relative } from "node:path";
import { fileURLToPath } from "node:url";
import { defineConfig, type Plugin } from "vite";

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const OUT = here("../dist");

/** What lies beside a source (migrations, starters of processes, the pages) is found there by what is built of it. */
const besideItsSource: Plugin = {
  name: "beside-its-source",
  enforce: "pre",
  transform: (code, id) =>
    code.includes("import.meta.url") && !id.includes("node_modules")
      ? code.replaceAll("import.meta.url", `new URL(${JSON.stringify(relative(OUT, id))}, import.meta.url).href`)
      : null,
};

export default defineConfig(({ mode }) => ({
  root: here(".."),
  plugins: [besideItsSource],
  build: {
    ssr: true,
    outDir: OUT,
    emptyOutDir: true,
    target: "node20",
    rolldownOptions: {
      input: {
        server: here("../server/index.ts"),
        worker: here("../server/worker.ts"),
        tasks: here("../server/jobs/tasks.ts"),
        jobReader: here("../server/machines/jobReader.ts"),
        fontReader: here("../library/fontReader.ts"),
        drawingReader: here("../library/drawingReader.ts"),
        check: here("../cli/check.ts"),
        export: here("../cli/export.ts"),
        run: here("../cli/run.ts"),
        trace: here("../cli/trace.ts"),
        ...(mode === "bench" ? { bench: here("../benchmarks/index.ts") } : {}),
      },
      output: {
        chunkFileNames: "shared-[hash].js",
        // What a built program starts is built as well.
        banner: ({ isEntry }) => (isEntry ? 'process.env.MEND_JOINT_BUILT ??= new URL(".", import.meta.url).href;' : ""),
      },
    },
  },
}));
