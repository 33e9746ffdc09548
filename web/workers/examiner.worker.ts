/**
 * Examines pieces away from the screen, so that typing and dragging never wait.
 */
import type { BringInOptions, CheckedDrawing, Examination } from "@mend-joint/core";
import type { MachineProfile } from "@mend-joint/core/cut";
import type { FileFormat, MadeFile } from "@mend-joint/core/formats";
import type { Point, Region } from "@mend-joint/core/geometry";
import type { Begun, Mend, MendedAll, RingSize, SizeWanted, TiedUp } from "@mend-joint/core/mend";
import type { KeptOutline, Ornament, Piece, Stock, SymbolName, Word } from "@mend-joint/core/piece";
import type { LetteringFacts } from "@mend-joint/core/shelf";
import type { Fingered, LetterLoad, LoadTest } from "@mend-joint/core/strength";
import type { Picture } from "@mend-joint/core/trace";
import { expose, transfer } from "comlink";
import type { Chosen, Found, TraceWish } from "./bringing";
import type { CutChoices, CutSheet, Trial } from "./cutting";
import type { ExamineWish, LetteringChoices } from "./examining";
import { sendForFonts } from "./fontFiles";

// Text shaping takes a moment to start. The worker must listen before that, or the first question would be lost.
const examining = import("./examining");
let started = false;
examining.then(
  () => {
    started = true;
  },
  () => {},
);
/** A piece that will be asked for soon is examined as soon as it can be; what goes wrong is told when it is asked for. */
addEventListener("message", ({ data: { soon } }: MessageEvent<{ soon?: Piece }>) => {
  if (!Array.isArray(soon?.parts)) return;
  if (!started) sendForFonts(soon);
  examining.then(({ examineSoon }) => examineSoon(soon)).catch(() => {});
});
const cutting = () => import("./cutting");
const bringing = () => import("./bringing");

let tell: (stage: string) => void = () => {};

const api = {
  /** Stages of what is being examined are told from now on. */
  onProgress: (listener: (stage: string) => void) => {
    tell = listener;
  },
  examine: async (piece: Piece, wish: ExamineWish): Promise<Examination> => {
    if (!started) sendForFonts(piece);
    return (await examining).examinePiece(piece, wish, tell);
  },
  mends: async (piece: Piece, finding: number): Promise<Mend[]> => (await examining).mendsFor(piece, finding),
  loads: async (piece: Piece, moving: boolean): Promise<LoadTest> => (await examining).loadTest(piece, moving),
  finger: async (piece: Piece, at: Point, direction?: LetterLoad["direction"]): Promise<Fingered> =>
    (await examining).loadFinger(piece, at, direction),
  lettering: async (word: Word, font: string, piece: Pick<Piece, "stock" | "cut">): Promise<LetteringFacts | null> =>
    (await examining).letteringFacts(word, font, piece),
  forms: async (word: Word, key: string): Promise<{ form: string | undefined; region: Region }[]> =>
    (await examining).letterforms(word, key),
  tieUp: async (piece: Piece, width: number, count: 1 | 2): Promise<TiedUp> => (await examining).tiePiece(piece, width, count),
  begin: async (starter: string, texts: readonly string[], asTyped: boolean): Promise<Begun> =>
    (await examining).beginWith(starter, texts, asTyped),
  beginOwn: async (own: Piece, texts: readonly string[]): Promise<Begun> => (await examining).beginOwn(own, texts),
  bridgePlace: async (piece: Piece, ornamentId: string): Promise<Ornament["at"] | null> =>
    (await examining).bridgeOrnament(piece, ornamentId),
  counterFor: async (
    piece: Piece,
    letter: { wordId: string; key: string },
    name: SymbolName,
  ): Promise<Pick<Ornament, "at" | "height"> | null> => (await examining).counterFor(piece, letter, name),
  stickPlace: async (piece: Piece, stickId: string): Promise<number | null> => (await examining).placeStick(piece, stickId),
  intoGap: async (piece: Piece, wordId: string, bite: number): Promise<Piece | null> =>
    (await examining).wordIntoGap(piece, wordId, bite),
  lettersIntoGap: async (piece: Piece, wordId: string, bite: number): Promise<Piece | null> =>
    (await examining).lettersToGap(piece, wordId, bite),
  resizeRing: async (piece: Piece, wordId: string, wanted: RingSize): Promise<Piece | null> =>
    (await examining).resizeRing(piece, wordId, wanted),
  upright: async (piece: Piece, loopId: string): Promise<number | null> => (await examining).uprightLoop(piece, loopId),
  ornaments: async (): Promise<Record<SymbolName, Region>> => (await examining).allOrnaments(),
  bridgePlaces: async (piece: Piece, bridge: { wordId: string; key: string; hole: number }): Promise<number[]> =>
    (await examining).bridgePlacesIn(piece, bridge),
  smallestHeights: async (wanted: number, own: readonly Pick<KeptOutline, "id" | "outline">[]): Promise<Record<string, number>> =>
    (await examining).smallestHeights(wanted, own),
  choices: async (word: Word): Promise<LetteringChoices> => (await examining).letteringChoices(word),
  outlineOf: async (piece: Piece): Promise<Pick<KeptOutline, "outline" | "height"> | null> => {
    const { material } = await (await examining).examinePiece(piece, {}, tell);
    return (await bringing()).outlineOf(material);
  },
  openDrawing: async (file: Uint8Array, lines: BringInOptions): Promise<Found> => (await bringing()).openDrawing(file, lines),
  outlinesWith: async (lines: BringInOptions): Promise<Found> => (await bringing()).outlinesWith(lines),
  openPicture: async (picture: Picture, background: Point | undefined): Promise<void> =>
    (await bringing()).openPicture(picture, background),
  previewTrace: async (wish: TraceWish): Promise<Found> => (await bringing()).previewTrace(wish),
  traceAgain: async (wish: TraceWish): Promise<Found> => (await bringing()).traceAgain(wish),
  choose: async (chosen: readonly number[], width: number, piece: Pick<Piece, "stock" | "cut">): Promise<Chosen> =>
    (await bringing()).choose(chosen, width, piece),
  cutSheet: async (piece: Piece, choices: CutChoices): Promise<CutSheet> => (await cutting()).cutSheet(piece, choices),
  cutFile: async (piece: Piece, format: FileFormat, choices: CutChoices): Promise<MadeFile> => {
    const file = await (await cutting()).cutFile(piece, format, choices);
    return transfer(file, [file.bytes.buffer]);
  },
  allFiles: async (piece: Piece, formats: readonly FileFormat[], choices: CutChoices): Promise<MadeFile[]> =>
    (await cutting()).allFiles(piece, formats, choices),
  zipInWorker: async (files: readonly Pick<MadeFile, "name" | "bytes">[]): Promise<Uint8Array> =>
    (await cutting()).zipInWorker(files),
  trial: async (file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<Trial> =>
    (await cutting()).trial(file, profile, stock),
  offcutIn: async (file: Uint8Array) => (await cutting()).offcutIn(file),
  checkFile: async (file: Uint8Array, stock: Stock, profile: MachineProfile): Promise<CheckedDrawing> =>
    (await cutting()).checkFile(file, stock, profile, tell),
  repairFile: async (
    checked: Pick<CheckedDrawing, "repaired">,
    name: string,
    stock: Stock,
    profile: MachineProfile,
  ): Promise<MadeFile> => (await cutting()).repairFile(checked, name, stock, profile),
  scaleTo: async (piece: Piece, wanted: SizeWanted): Promise<Piece | null> => (await examining).scalePieceTo(piece, wanted),
  mendAll: async (piece: Piece, most?: number): Promise<MendedAll> => (await examining).mendPiece(piece, most),
};

export type ExaminerApi = typeof api;
expose(api);
