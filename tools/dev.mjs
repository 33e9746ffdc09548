/** npm run dev: server and pages with hot reload, for those who carry on the work. */
import { installPackages, requireNode, run } from "./common.mjs";

requireNode();
await installPackages();
process.exitCode = await run("npx", [
  "concurrently",
  "--kill-others",
  "--names",
  "server,pages",
  "tsx watch --clear-screen=false server/index.ts",
  "vite web",
]);
