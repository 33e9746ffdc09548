/**
 * The shipped lettering, and its faces for preview in the browser's own text.
 */
import { useEffect, useState } from "react";
import { type FontEntry, fontUrl, listFonts } from "./api";

let list: Promise<FontEntry[]> | undefined;
const faces = new Map<string, Promise<unknown>>();

/** Name under which a font is known to style sheets. */
export const faceName = (id: string) => `lettering-${id}`;

export function useFonts(): FontEntry[] {
  const [fonts, setFonts] = useState<FontEntry[]>([]);
  useEffect(() => {
    list ??= listFonts();
    list.then(
      (found) => {
        setFonts(found);
      },
      () => {
        list = undefined;
      },
    );
  }, []);
  return fonts;
}

/** Makes a font known to the browser's own text. */
export function loadFace(id: string): void {
  if (faces.has(id)) return;
  const face = new FontFace(faceName(id), `url(${fontUrl(id)})`);
  document.fonts.add(face);
  faces.set(
    id,
    face.load().catch(() => faces.delete(id)),
  );
}
