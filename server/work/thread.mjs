/**
 * Starts a working thread: from one file that was built of all (MEND_JOINT_TASKS), in a moment; or else from the sources, which it knows
 * only after it has been told about TypeScript.
 */
import { pathToFileURL } from "node:url";

async function tasks() {
  const built = process.env.MEND_JOINT_TASKS;
  if (built) return import(pathToFileURL(built).href);
  const { register } = await import("tsx/esm/api");
  register();
  return import("./tasks.ts");
}

const { work } = await tasks();
export default work;
