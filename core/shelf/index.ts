/**
 * The lettering shelf: how well a maker's own word would survive in a lettering, measured, not looked up.
 */
import { examineSolids, type Library, layOutWords, solidsOf } from "../examine";
import { type Box, backwards, type Region, ringArea } from "../geometry";
import type { Font } from "../lettering";
import { poleOf } from "../measure";
import { graphemesOf, PIECE_VERSION, type Piece, type Stock, type Word, widthToDraw } from "../piece";
import { chainOf } from "../report";

/** What a maker wants to know before choosing. Lengths in mm. */
export interface LetteringFacts {
  font: string;
  /** The word as it would be cut. */
  material: Region;
  box: Box | null;
  /** Characters that the font has not got. */
  missing: string[];
  /** Narrowest place of all strokes. */
  thinnest: number;
  /** Neighbours that join by themselves at the word's spacing, wide enough to be mended at least, of how many. */
  joined: number;
  neighbours: number;
  /** Separate pieces without a holder: dots, accents, letters that stand alone. */
  pieces: number;
  /** Dots and accents that touch nothing. */
  looseDots: number;
  /** Diameter of the largest disc in the smallest counter; `null` where there is none. */
  smallestCounter: number | null;
  /** How many letters of the word have another letterform in this font. */
  forms: number;
  /** How wide it would have to be, by the stock. */
  wanted: number;
  suits: Suitability;
}

export { heightFor, widestShare } from "./silhouettes";

export type Suitability = "well" | "with care" | "not";

/** Below this share of the least width there is little to be mended. */
const HOPELESS = 0.7;

/** Measures one word in one lettering, alone, as the piece has it. @returns `null` where the lettering is not here */
export function measureLettering(
  word: Word,
  font: string,
  piece: Pick<Piece, "stock" | "cut">,
  library: Library,
): LetteringFacts | null {
  const changed: Piece = {
    ...blank(piece.stock, piece.cut),
    parts: [{ ...word, font, changes: {}, axes: {}, features: {}, path: undefined }],
  };
  const { layouts } = layOutWords(changed, library);
  const [layout] = layouts;
  if (!layout) return null;
  const solids = solidsOf(changed, layouts);
  const wanted = widthToDraw(piece);
  const examination = examineSolids(solids, wanted, { words: layouts, notes: false, thinnest: true });
  const chain = chainOf(examination);
  const links = chain.flatMap(({ next }) => (next ? [next] : []));
  const counters = examination.material.filter((ring) => ringArea(ring) < 0).map((ring) => poleOf([backwards(ring)])?.width ?? 0);
  const facts = {
    font,
    material: examination.material,
    box: examination.box,
    missing: [...new Set(layout.missing.map(({ text }) => text))],
    thinnest: examination.thinnest ?? 0,
    joined: links.filter(({ width }) => width !== null && width >= HOPELESS * wanted).length,
    neighbours: links.length,
    pieces: examination.pieces,
    looseDots: chain.reduce((n, { dots }) => n + dots.filter(({ falls }) => falls).length, 0),
    smallestCounter: counters.length > 0 ? Math.min(...counters) : null,
    forms: lettersWithForms(word.text, library.font(font)!),
    wanted,
  };
  return { ...facts, suits: suitability(facts) };
}

function lettersWithForms(text: string, font: Font): number {
  let start = 0;
  return graphemesOf(text).reduce((n, letter) => {
    const forms = letter.trim() === "" ? [] : font.formsOf(text, start, start + letter.length);
    start += letter.length;
    return n + Number(forms.length > 0);
  }, 0);
}

function suitability({ missing, thinnest, wanted }: Omit<LetteringFacts, "suits">): Suitability {
  if (missing.length > 0 || thinnest < HOPELESS * wanted) return "not";
  return thinnest < wanted ? "with care" : "well";
}

/** The better a word would survive, the higher: thick strokes first, then joints of its own, then few loose dots. */
export function survival({ missing, thinnest, wanted, joined, neighbours, looseDots }: LetteringFacts): number {
  if (missing.length > 0) return -missing.length;
  const strokes = Math.min(1.25, thinnest / wanted);
  const joints = neighbours > 0 ? joined / neighbours : 1;
  return 2 * strokes + joints - 0.1 * Math.min(10, looseDots);
}

function blank(stock: Stock, cut: Piece["cut"]): Piece {
  return {
    format: "mend-joint-piece",
    version: PIECE_VERSION,
    id: "shelf",
    name: "shelf",
    purpose: "topper",
    stock,
    cut,
    parts: [],
    accepted: [],
  };
}
