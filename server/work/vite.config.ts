/** One file of all that threads load, so that they are there in a moment. */
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: here("."),
  build: {
    ssr: here("./tasks.ts"),
    outDir: here("../dist"),
    emptyOutDir: true,
    target: "node20",
    rollupOptions: { output: { entryFileNames: "tasks.js" } },
  },
});
