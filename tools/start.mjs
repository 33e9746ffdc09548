/** npm start: installs what is missing, builds the pages, serves the app with the demo pieces. */
import { build, installPackages, requireNode, run, stop } from "./common.mjs";

requireNode();
await installPackages();
console.log("Building the pages …");
if (!(await build())) stop("The pages could not be built; see the lines above.");
console.log("Starting the server …");
process.exitCode = await run(process.execPath, ["dist/server.js"]);
