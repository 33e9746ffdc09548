/**
 * Lettering that ships with Mend Joint. To add one: install its package (a TTF or OTF file under the OFL) and add a line.
 */
export interface CatalogueEntry {
  id: string;
  name: string;
  style: "joining script" | "heavy sans" | "slab";
  /** Font file, as a path that Node.js resolves. */
  file: string;
  licence: "OFL-1.1";
}

export const CATALOGUE: readonly CatalogueEntry[] = [
  {
    id: "pacifico",
    name: "Pacifico",
    style: "joining script",
    file: "@expo-google-fonts/pacifico/400Regular/Pacifico_400Regular.ttf",
    licence: "OFL-1.1",
  },
  {
    id: "dancing-script-bold",
    name: "Dancing Script Bold",
    style: "joining script",
    file: "@expo-google-fonts/dancing-script/700Bold/DancingScript_700Bold.ttf",
    licence: "OFL-1.1",
  },
  {
    id: "archivo-black",
    name: "Archivo Black",
    style: "heavy sans",
    file: "@expo-google-fonts/archivo-black/400Regular/ArchivoBlack_400Regular.ttf",
    licence: "OFL-1.1",
  },
  {
    id: "alfa-slab-one",
    name: "Alfa Slab One",
    style: "slab",
    file: "@expo-google-fonts/alfa-slab-one/400Regular/AlfaSlabOne_400Regular.ttf",
    licence: "OFL-1.1",
  },
];
