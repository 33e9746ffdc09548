/**
 * The lettering there is, shipped and the maker's own, and its faces for preview in the browser's own text.
 */
import { useEffect } from "react";
import { create } from "zustand";
import { addFontFile, type FontEntry, fontUrl, listFonts, removeFontFile } from "./api";

interface FontList {
  fonts: FontEntry[];
  load(): Promise<void>;
}

const useList = create<FontList>()((set) => ({
  fonts: [],
  load: async () => set({ fonts: await listFonts() }),
}));

const faces = new Map<string, Promise<unknown>>();

/** Name under which a font is known to style sheets. */
export const faceName = (id: string) => `lettering-${id}`;

// Another window may have added one or taken one off.
window.addEventListener("focus", () => {
  const { fonts, load } = useList.getState();
  if (fonts.length > 0) load().catch(() => {});
});

export function useFonts(): FontEntry[] {
  const { fonts, load } = useList();
  useEffect(() => {
    // What could not be fetched is asked for again by the next who needs it.
    if (fonts.length === 0) load().catch(() => {});
  }, [fonts, load]);
  return fonts;
}

/** Adds a font file of the maker's own. @returns its faces @throws ApiError */
export async function addOwnFont(file: File): Promise<FontEntry[]> {
  const added = await addFontFile(file);
  await useList.getState().load();
  return added;
}

/** Takes a font of the maker's own off the shelf; pieces that are set in it keep it. @throws ApiError */
export async function takeOffFont(id: string): Promise<void> {
  await removeFontFile(id);
  await useList.getState().load();
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
