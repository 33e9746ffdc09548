/** npm run shop: PostgreSQL, a server and two workers on this machine, as a shop with several machines would have them. */
import { join } from "node:path";
import concurrently from "concurrently";
import { build, installPackages, ROOT, requireNode, stop } from "./common.mjs";
import { startPostgres } from "./postgres.mjs";

requireNode();
await installPackages();
console.log("Building the pages …");
if (!(await build())) stop("The pages could not be built; see the lines above.");
const database = await startPostgres(join(ROOT, "data", "postgres")).catch((error) => stop(error.message));
const env = { MEND_JOINT_DATABASE: database.address };
console.log(`PostgreSQL is ready at ${database.address}`);
const { result } = concurrently(
  [
    { name: "server", command: "node dist/server.js", env },
    { name: "worker 1", command: "node dist/worker.js", env },
    { name: "worker 2", command: "node dist/worker.js", env },
  ],
  { cwd: ROOT, killOthersOn: ["failure"] },
);
await result.catch(() => {});
await database.stop();
