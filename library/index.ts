/**
 * The fonts that ship with Mend Joint, as files of registry packages. For Node.js: server, command line, tests.
 */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { type Library, withMemory } from "@mend-joint/core";
import { type Font, loadFont } from "@mend-joint/core/lettering";
import { CATALOGUE, type CatalogueEntry } from "./catalogue";
import type { OwnFont } from "./fontFile";

export { type OwnFont, readFontFile } from "./fontFile";
export { readDrawingSafely, readFontSafely } from "./readSafely";
export { CATALOGUE, type CatalogueEntry };

const resolve = createRequire(import.meta.url).resolve;

/** Path of a shipped font file. @throws when the id is not in the catalogue */
export function fontPath(id: string): string {
  const entry = CATALOGUE.find((font) => font.id === id);
  if (!entry) throw new Error(`There is no lettering "${id}"`);
  return resolve(entry.file);
}

export function fontBytes(id: string): Uint8Array {
  return new Uint8Array(readFileSync(fontPath(id)));
}

/** A library that loads shipped fonts when they are first asked for, and remembers. @param own further fonts */
export function shippedLibrary(own: readonly OwnFont[] = []): Library {
  const loaded = new Map<string, Font>(own.map(({ id, name, bytes }) => [id, loadFont(id, name, bytes)]));
  return withMemory({
    font: (id) => {
      let font = loaded.get(id);
      const entry = CATALOGUE.find((each) => each.id === id);
      if (!font && !entry) return undefined;
      if (!font) {
        font = loadFont(id, entry!.name, fontBytes(id));
        loaded.set(id, font);
      }
      return font;
    },
  });
}
export { answerInProcess, standingProcess } from "./inProcess";
