/**
 * Examines pieces away from the screen, so that typing and dragging never wait.
 */
import type { Examination } from "@mend-joint/core";
import type { Region } from "@mend-joint/core/geometry";
import type { Mend, MendedAll, TiedUp } from "@mend-joint/core/mend";
import type { Ornament, Piece, SymbolName, Units, Word } from "@mend-joint/core/piece";
import type { LetteringFacts } from "@mend-joint/core/shelf";
import { expose } from "comlink";
import type { LetteringChoices } from "./examining";

// Text shaping takes a moment to start. The worker must listen before that, or the first question would be lost.
const examining = import("./examining");

let tell: (stage: string) => void = () => {};

const api = {
  /** Stages of what is being examined are told from now on. */
  onProgress: (listener: (stage: string) => void) => {
    tell = listener;
  },
  examine: async (piece: Piece, units: Units, skeleton: boolean): Promise<Examination> =>
    (await examining).examinePiece(piece, units, skeleton, tell),
  mends: async (piece: Piece, finding: number, units: Units): Promise<Mend[]> =>
    (await examining).mendsFor(piece, finding, units),
  lettering: async (word: Word, font: string, piece: Pick<Piece, "stock" | "cut">): Promise<LetteringFacts | null> =>
    (await examining).letteringFacts(word, font, piece),
  forms: async (word: Word, key: string): Promise<{ form: string | undefined; region: Region }[]> =>
    (await examining).letterforms(word, key),
  tieUp: async (piece: Piece, width: number, count: 1 | 2): Promise<TiedUp> => (await examining).tiePiece(piece, width, count),
  begin: async (starter: string, texts: readonly string[]): Promise<{ piece: Piece; examination: Examination }> =>
    (await examining).begin(starter, texts),
  beginOwn: async (own: Piece, texts: readonly string[]): Promise<{ piece: Piece; examination: Examination }> =>
    (await examining).beginOwn(own, texts),
  bridgePlace: async (piece: Piece, ornamentId: string): Promise<Ornament["at"] | null> =>
    (await examining).bridgeOrnament(piece, ornamentId),
  stickPlace: async (piece: Piece, stickId: string): Promise<number | null> => (await examining).placeStick(piece, stickId),
  intoGap: async (piece: Piece, wordId: string, bite: number): Promise<Piece | null> =>
    (await examining).wordIntoGap(piece, wordId, bite),
  upright: async (piece: Piece, loopId: string): Promise<number | null> => (await examining).uprightLoop(piece, loopId),
  ornaments: async (): Promise<Record<SymbolName, Region>> => (await examining).allOrnaments(),
  choices: async (word: Word): Promise<LetteringChoices> => (await examining).letteringChoices(word),
  mendAll: async (piece: Piece, units: Units): Promise<MendedAll> => (await examining).mendPiece(piece, units),
};

export type ExaminerApi = typeof api;
expose(api);
