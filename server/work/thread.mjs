/** Starts a working thread, which knows TypeScript only after it has been told. */
import { register } from "tsx/esm/api";

register();
const { work } = await import("./tasks.ts");
export default work;
