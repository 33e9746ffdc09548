/**
 * Font files and their names from the server. Nothing heavy is in here: they can be on their way while the engine is still being started.
 */
import type { Piece } from "@mend-joint/core/piece";

const files = new Map<string, Promise<Uint8Array | null>>();

async function fetchFile(id: string): Promise<Uint8Array | null> {
  const response = await fetch(`/api/fonts/${encodeURIComponent(id)}/file`);
  // A font that is not there becomes a finding of the examination, not a fault of the worker.
  return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
}

/** @returns `null` where the server has no such font; it is asked again the next time, as after a fault */
export function fontFile(id: string): Promise<Uint8Array | null> {
  let file = files.get(id);
  if (!file) {
    file = fetchFile(id);
    files.set(id, file);
    file.then(
      (bytes) => bytes === null && files.delete(id),
      () => files.delete(id),
    );
  }
  return file;
}

/** Who has made a font of it wants the file no more. */
export const dropFontFile = (id: string): void => void files.delete(id);

let names: Promise<Map<string, string>> | undefined;

async function fetchNames(): Promise<Map<string, string>> {
  const { fonts: list } = (await (await fetch("/api/fonts")).json()) as { fonts: { id: string; name: string }[] };
  return new Map(list.map((font) => [font.id, font.name]));
}

export async function fontName(id: string): Promise<string> {
  names ??= fetchNames();
  const known = (await names).get(id);
  if (known !== undefined) return known;
  // A font that was added meanwhile is not on the list that was fetched before.
  names = fetchNames();
  return (await names).get(id) ?? id;
}

/** Sends for what a piece will want. What goes wrong is told when it is wanted. */
export function sendForFonts({ parts }: Piece): void {
  for (const part of parts) {
    if (part.kind !== "word") continue;
    fontFile(part.font).catch(() => {});
    fontName(part.font).catch(() => {});
  }
}
