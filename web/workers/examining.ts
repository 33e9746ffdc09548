/**
 * Examining with the fonts of the server.
 */
import { type Examination, examine, type Library, otherBridgePlaces, withMemory } from "@mend-joint/core";
import { createExaminer } from "@mend-joint/core/examiner";
import type { Point, Region } from "@mend-joint/core/geometry";
import { type Font, type FontAxis, formsOfLetter, loadFont } from "@mend-joint/core/lettering";
import {
  type Begun,
  begin,
  bridgePlace,
  counterPlace,
  intoGap,
  lettersIntoGap,
  type Mend,
  type MendedAll,
  type RingSize,
  type SizeWanted,
  scaleTo,
  sizeRing,
  stickPlace,
  type TiedUp,
  tieUp,
  uprightAngle,
} from "@mend-joint/core/mend";
import { ornament } from "@mend-joint/core/ornaments";
import {
  fillIn,
  type KeptOutline,
  type Ornament,
  type Piece,
  parsePiece,
  SYMBOL_NAMES,
  type SymbolName,
  starterById,
  type Word,
} from "@mend-joint/core/piece";
import type { LetteringFacts } from "@mend-joint/core/shelf";
import type { Fingered, LetterLoad, LoadTest } from "@mend-joint/core/strength";
import { dropFontFile, fontFile, fontName } from "./fontFiles";

const fonts = new Map<string, Font>();
const loading = new Map<string, Promise<void>>();

async function ensureFont(id: string): Promise<void> {
  if (fonts.has(id)) return;
  let wait = loading.get(id);
  if (!wait) {
    wait = fetchFont(id).finally(() => loading.delete(id));
    loading.set(id, wait);
  }
  await wait;
}

async function fetchFont(id: string): Promise<void> {
  const [file, name] = await Promise.all([fontFile(id), fontName(id)]);
  if (!file) return;
  fonts.set(id, loadFont(id, name, file));
  dropFontFile(id);
}

export const library: Library = withMemory({ font: (id) => fonts.get(id) });

export const ensureFonts = (piece: Piece) =>
  Promise.all(piece.parts.map((part) => (part.kind === "word" ? ensureFont(part.font) : undefined)));

/** How a piece is to be examined. */
export interface ExamineWish {
  skeleton?: boolean;
  /** Something of it is in the hand: only what has changed since it lay still is examined. */
  moving?: boolean;
}

/** The memory of this worker. */
export const examiner = createExaminer(library);

export async function examinePiece(
  piece: Piece,
  { skeleton = false, moving = false }: ExamineWish,
  onProgress: (stage: string) => void,
): Promise<Examination> {
  await ensureFonts(piece);
  return moving ? examiner.moving(piece, { skeleton, onProgress }) : examiner.update(piece, { skeleton, onProgress });
}

/** A piece as the server keeps it, before it is asked for: in the form in which it will be, so that it is not examined twice. */
export async function examineSoon(document: unknown): Promise<void> {
  await examinePiece(parsePiece(document), {}, () => {});
}

/** @param index of the finding in an examination of this piece */
export async function mendsFor(piece: Piece, index: number): Promise<Mend[]> {
  await ensureFonts(piece);
  return examiner.mends(piece, index);
}

/** @param most largest share of the piece that may change; left out, what nobody has to be asked for */
export async function mendPiece(piece: Piece, most?: number): Promise<MendedAll> {
  await ensureFonts(piece);
  return examiner.mendAll(piece, { most });
}

/** @returns `null` where a piece cannot have that size */
export async function scalePieceTo(piece: Piece, wanted: SizeWanted): Promise<Piece | null> {
  await ensureFonts(piece);
  return scaleTo(piece, wanted, library);
}

/** How a word would survive in a lettering. */
export async function letteringFacts(
  word: Word,
  font: string,
  piece: Pick<Piece, "stock" | "cut">,
): Promise<LetteringFacts | null> {
  await ensureFont(font);
  return examiner.lettering(word, font, piece);
}

/** A letter in each form that its font has for it. */
export async function letterforms(word: Word, key: string): Promise<{ form: string | undefined; region: Region }[]> {
  await ensureFont(word.font);
  const font = fonts.get(word.font)?.vary(word.axes);
  return font ? formsOfLetter(word, key, font) : [];
}

/** What the piece takes. @param moving something of it is in the hand @throws StrengthError */
export async function loadTest(piece: Piece, moving: boolean): Promise<LoadTest> {
  await ensureFonts(piece);
  return examiner.loads(piece, { moving }).test;
}

/** A finger anywhere on it. @throws StrengthError where what is pushed hangs on nothing */
export async function loadFinger(piece: Piece, at: Point, direction?: LetterLoad["direction"]): Promise<Fingered> {
  await ensureFonts(piece);
  return examiner.loads(piece).finger(at, direction);
}

export async function tiePiece(piece: Piece, width: number, count: 1 | 2): Promise<TiedUp> {
  await ensureFonts(piece);
  return tieUp(piece, library, { width, count });
}

/** A starter with the maker's words in it, and what comes of it. */
export async function beginWith(starter: string, texts: readonly string[], asTyped: boolean): Promise<Begun> {
  await ensureFonts(starterById(starter).make(texts));
  return begin(starter, texts, library, asTyped);
}

/** A piece of the maker's own as a beginning. */
export async function beginOwn(own: Piece, texts: readonly string[]): Promise<Begun> {
  const piece = fillIn(own, texts);
  await ensureFonts(piece);
  return { piece, examination: examine(piece, library, { notes: false }) };
}

export async function bridgeOrnament(piece: Piece, ornamentId: string): Promise<Ornament["at"] | null> {
  await ensureFonts(piece);
  return bridgePlace(piece, ornamentId, library);
}

/** Where an ornament stands in the place of a letter's counter; `null` where the letter has none. */
export async function counterFor(
  piece: Piece,
  letter: { wordId: string; key: string },
  name: SymbolName,
): Promise<Pick<Ornament, "at" | "height"> | null> {
  await ensureFonts(piece);
  return counterPlace(piece, letter, name, library);
}

export async function wordIntoGap(piece: Piece, wordId: string, bite: number): Promise<Piece | null> {
  await ensureFonts(piece);
  return intoGap(piece, wordId, bite, library);
}

export async function lettersToGap(piece: Piece, wordId: string, bite: number): Promise<Piece | null> {
  await ensureFonts(piece);
  return lettersIntoGap(piece, wordId, bite, library);
}

export async function resizeRing(piece: Piece, wordId: string, wanted: RingSize): Promise<Piece | null> {
  await ensureFonts(piece);
  return sizeRing(piece, wordId, wanted, library);
}

export async function placeStick(piece: Piece, stickId: string): Promise<number | null> {
  await ensureFonts(piece);
  return stickPlace(piece, stickId, library);
}

export async function uprightLoop(piece: Piece, loopId: string): Promise<number | null> {
  await ensureFonts(piece);
  return uprightAngle(piece, loopId, library);
}

/** What a font leaves to choose for a word. */
export interface LetteringChoices {
  axes: readonly FontAxis[];
  /** OpenType features that change this word, and whether the font has them on by itself. */
  features: { tag: string; usual: boolean }[];
}

export async function letteringChoices(word: Word): Promise<LetteringChoices> {
  await ensureFont(word.font);
  const font = fonts.get(word.font)?.vary(word.axes);
  return font ? { axes: font.axes, features: font.featuresFor(word.text) } : { axes: [], features: [] };
}

/** Directions in which a bridge of a cut-out letter would reach material, degrees, the best first. */
export async function bridgePlacesIn(piece: Piece, bridge: { wordId: string; key: string; hole: number }): Promise<number[]> {
  await ensureFonts(piece);
  return otherBridgePlaces(piece, bridge, library);
}

/** The least height at which silhouettes survive, mm, for ours by name and for the maker's own by id. */
export function smallestHeights(wanted: number, own: readonly Pick<KeptOutline, "id" | "outline">[]): Record<string, number> {
  return Object.fromEntries([
    ...SYMBOL_NAMES.map((name) => [name, examiner.smallestHeight(name, wanted)] as const),
    ...own.map(({ id, outline }) => [id, examiner.smallestHeight({ outline }, wanted)] as const),
  ]);
}

export function allOrnaments(): Record<SymbolName, Region> {
  return Object.fromEntries(SYMBOL_NAMES.map((name) => [name, ornament(name)])) as Record<SymbolName, Region>;
}
