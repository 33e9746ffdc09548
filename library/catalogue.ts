/**
 * Lettering that ships with Mend Joint. To add one: install its package (a TTF or OTF file under the OFL) and add a line.
 */
export interface CatalogueEntry {
  id: string;
  name: string;
  style: "joining script" | "brush" | "heavy sans" | "slab" | "rounded" | "stencil" | "inline";
  /** Font file, as a path that Node.js resolves. */
  file: string;
  licence: "OFL-1.1";
}

const entry = (id: string, name: string, style: CatalogueEntry["style"], file: string): CatalogueEntry => ({
  id,
  name,
  style,
  file: `@expo-google-fonts/${file}.ttf`,
  licence: "OFL-1.1",
});

export const CATALOGUE: readonly CatalogueEntry[] = [
  entry("pacifico", "Pacifico", "joining script", "pacifico/400Regular/Pacifico_400Regular"),
  entry("dancing-script-bold", "Dancing Script Bold", "joining script", "dancing-script/700Bold/DancingScript_700Bold"),
  entry("lobster", "Lobster", "joining script", "lobster/400Regular/Lobster_400Regular"),
  entry("oleo-script-bold", "Oleo Script Bold", "joining script", "oleo-script/700Bold/OleoScript_700Bold"),
  entry("leckerli-one", "Leckerli One", "joining script", "leckerli-one/400Regular/LeckerliOne_400Regular"),
  entry("grand-hotel", "Grand Hotel", "joining script", "grand-hotel/400Regular/GrandHotel_400Regular"),
  entry("cookie", "Cookie", "joining script", "cookie/400Regular/Cookie_400Regular"),
  entry("courgette", "Courgette", "joining script", "courgette/400Regular/Courgette_400Regular"),
  entry("damion", "Damion", "joining script", "damion/400Regular/Damion_400Regular"),
  entry("niconne", "Niconne", "joining script", "niconne/400Regular/Niconne_400Regular"),
  entry("playball", "Playball", "joining script", "playball/400Regular/Playball_400Regular"),
  entry("sofia", "Sofia", "joining script", "sofia/400Regular/Sofia_400Regular"),
  entry("marck-script", "Marck Script", "joining script", "marck-script/400Regular/MarckScript_400Regular"),
  entry("parisienne", "Parisienne", "joining script", "parisienne/400Regular/Parisienne_400Regular"),
  entry("great-vibes", "Great Vibes", "joining script", "great-vibes/400Regular/GreatVibes_400Regular"),
  entry("sacramento", "Sacramento", "joining script", "sacramento/400Regular/Sacramento_400Regular"),
  entry("kaushan-script", "Kaushan Script", "brush", "kaushan-script/400Regular/KaushanScript_400Regular"),
  entry("mr-dafoe", "Mr Dafoe", "brush", "mr-dafoe/400Regular/MrDafoe_400Regular"),
  entry("knewave", "Knewave", "brush", "knewave/400Regular/Knewave_400Regular"),
  entry("caveat-brush", "Caveat Brush", "brush", "caveat-brush/400Regular/CaveatBrush_400Regular"),
  entry("archivo-black", "Archivo Black", "heavy sans", "archivo-black/400Regular/ArchivoBlack_400Regular"),
  entry("titan-one", "Titan One", "heavy sans", "titan-one/400Regular/TitanOne_400Regular"),
  entry("paytone-one", "Paytone One", "heavy sans", "paytone-one/400Regular/PaytoneOne_400Regular"),
  entry("anton", "Anton", "heavy sans", "anton/400Regular/Anton_400Regular"),
  entry("bowlby-one", "Bowlby One", "heavy sans", "bowlby-one/400Regular/BowlbyOne_400Regular"),
  entry("bungee", "Bungee", "heavy sans", "bungee/400Regular/Bungee_400Regular"),
  entry("chango", "Chango", "heavy sans", "chango/400Regular/Chango_400Regular"),
  entry("secular-one", "Secular One", "heavy sans", "secular-one/400Regular/SecularOne_400Regular"),
  entry("alfa-slab-one", "Alfa Slab One", "slab", "alfa-slab-one/400Regular/AlfaSlabOne_400Regular"),
  entry("bevan", "Bevan", "slab", "bevan/400Regular/Bevan_400Regular"),
  entry("suez-one", "Suez One", "slab", "suez-one/400Regular/SuezOne_400Regular"),
  entry("rakkas", "Rakkas", "slab", "rakkas/400Regular/Rakkas_400Regular"),
  entry("fredoka-bold", "Fredoka Bold", "rounded", "fredoka/700Bold/Fredoka_700Bold"),
  entry("baloo-2-extra-bold", "Baloo 2 ExtraBold", "rounded", "baloo-2/800ExtraBold/Baloo2_800ExtraBold"),
  entry("nunito-black", "Nunito Black", "rounded", "nunito/900Black/Nunito_900Black"),
  entry("rubik-black", "Rubik Black", "rounded", "rubik/900Black/Rubik_900Black"),
  entry("varela-round", "Varela Round", "rounded", "varela-round/400Regular/VarelaRound_400Regular"),
  entry("comfortaa-bold", "Comfortaa Bold", "rounded", "comfortaa/700Bold/Comfortaa_700Bold"),
  entry("saira-stencil-one", "Saira Stencil One", "stencil", "saira-stencil-one/400Regular/SairaStencilOne_400Regular"),
  entry("black-ops-one", "Black Ops One", "stencil", "black-ops-one/400Regular/BlackOpsOne_400Regular"),
  entry("monoton", "Monoton", "inline", "monoton/400Regular/Monoton_400Regular"),
  entry("londrina-shadow", "Londrina Shadow", "inline", "londrina-shadow/400Regular/LondrinaShadow_400Regular"),
];
