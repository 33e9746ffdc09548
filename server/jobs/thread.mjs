/** Starts a thread that works. */
import { load } from "../../library/load.mjs";

const { work } = await load("tasks", new URL("./tasks.ts", import.meta.url));
export default work;
