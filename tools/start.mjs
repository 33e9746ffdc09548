/** npm start: installs what is missing, builds the pages, serves the app with the demo pieces. */
import { installPackages, requireNode, run, stop } from "./common.mjs";

requireNode();
await installPackages();
console.log("Building the pages …");
if ((await run("npx", ["vite", "build", "web", "--logLevel", "warn"])) !== 0)
  stop("The pages could not be built; see the lines above.");
console.log("Starting the server …");
process.exitCode = await run(process.execPath, ["--import", "tsx", "server/index.ts"]);
