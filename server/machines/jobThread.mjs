/** Starts the reading thread: threads know TypeScript only after they have been told. */
import { register } from "tsx/esm/api";

register();
await import("./jobThread.ts");
