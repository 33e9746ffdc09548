/** Starts the reading process, which knows TypeScript only after it has been told. */
import { register } from "tsx/esm/api";

register();
await import("./drawingReader.ts");
