/**
 * The shipped beginnings with the words of the example, which every page shows first: made when the programs are built.
 */
import { existsSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { type Begun, begin } from "@mend-joint/core/mend";
import { EXAMPLE_WORDS, STARTERS } from "@mend-joint/core/piece";
import { shippedLibrary } from "@mend-joint/library";
import { stringify } from "devalue";

/** By the ids of their starters, each written by devalue, which keeps typed arrays. */
export type Example = Record<string, string>;

export function makeExample(): Example {
  const library = shippedLibrary();
  // A copy has lost what it was measured from, as it would on its way from a worker.
  const made = (id: string): Begun => structuredClone(begin(id, EXAMPLE_WORDS, library));
  return Object.fromEntries(STARTERS.map(({ id }) => [id, stringify(made(id))]));
}

/** Where it lies when it has been made. */
export const exampleFile = (): string => fileURLToPath(new URL("../../dist/beginnings.json", import.meta.url));

/** @returns nothing where sources are run as they are, which may be newer than what was built of them: pages make their own then */
export function readExample(): Example {
  const file = exampleFile();
  return process.env.MEND_JOINT_BUILT && existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : {};
}
