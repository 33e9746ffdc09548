/**
 * The screen's end of the examining worker: only the newest question counts.
 */
import type { CheckedDrawing, Examination } from "@mend-joint/core";
import type { MachineProfile } from "@mend-joint/core/cut";
import type { FileFormat, MadeFile } from "@mend-joint/core/formats";
import type { Region } from "@mend-joint/core/geometry";
import type { Mend, MendedAll, TiedUp } from "@mend-joint/core/mend";
import type { Ornament, Piece, Stock, SymbolName, Units, Word } from "@mend-joint/core/piece";
import type { LetteringFacts } from "@mend-joint/core/shelf";
import { proxy, type Remote, wrap } from "comlink";
import type { CutChoices, CutSheet, Trial } from "./cutting";
import type { ExaminerApi } from "./examiner.worker";
import type { ExamineWish, LetteringChoices } from "./examining";

function start(): { remote: Remote<ExaminerApi>; worker: Worker } {
  const worker = new Worker(new URL("./examiner.worker.ts", import.meta.url), { type: "module" });
  return { remote: wrap<ExaminerApi>(worker), worker };
}

/** Longer than this (ms) and the maker is told what is going on. */
const SLOW = 1000;

let examiner: ReturnType<typeof start> | undefined;
/** Mends take longer than examining; a worker of their own keeps them out of the way of the hand. */
let mender: ReturnType<typeof start> | undefined;

/** Told which stage the examining worker is at. */
let onProgress: (stage: string) => void = () => {};
/** Gives up what is being examined. */
let giveUp: (reason: Error) => void = () => {};

function worker(): Remote<ExaminerApi> {
  if (!examiner) {
    examiner = start();
    void examiner.remote.onProgress(proxy((stage: string) => onProgress(stage)));
  }
  return examiner.remote;
}

/** Ends an examination that takes too long. */
export function stopExamining(): void {
  examiner?.worker.terminate();
  examiner = undefined;
  giveUp(new Error("it was stopped."));
}

export function mendsFor(piece: Piece, finding: number, units: Units): Promise<Mend[]> {
  mender ??= start();
  return mender.remote.mends(piece, finding, units);
}

export function mendAll(piece: Piece, units: Units): Promise<MendedAll> {
  mender ??= start();
  return mender.remote.mendAll(piece, units);
}

/** A worker of its own measures the lettering shelf, so that nothing else waits for it. */
let shelver: ReturnType<typeof start> | undefined;

export function letteringFacts(word: Word, font: string, piece: Pick<Piece, "stock" | "cut">): Promise<LetteringFacts | null> {
  shelver ??= start();
  return shelver.remote.lettering(word, font, { stock: piece.stock, cut: piece.cut });
}

export function letterforms(word: Word, key: string): Promise<{ form: string | undefined; region: Region }[]> {
  shelver ??= start();
  return shelver.remote.forms(word, key);
}

let drawn: Promise<Record<SymbolName, Region>> | undefined;

/** The ornaments, for choosers. */
export function ornaments(): Promise<Record<SymbolName, Region>> {
  shelver ??= start();
  drawn ??= shelver.remote.ornaments();
  drawn.catch(() => {
    drawn = undefined;
  });
  return drawn;
}

/** Features of a font that change a word, and the axes it varies on. */
export function letteringChoices(word: Word): Promise<LetteringChoices> {
  shelver ??= start();
  return shelver.remote.choices(word);
}

/** Puts in the ties that make one piece of what lies apart. */
export function tiedUp(piece: Piece, width: number, count: 1 | 2): Promise<TiedUp> {
  mender ??= start();
  return mender.remote.tieUp(piece, width, count);
}

/** A starter with the maker's words in it, and what comes of it. */
export function beginWith(starter: string, texts: readonly string[]): Promise<{ piece: Piece; examination: Examination }> {
  shelver ??= start();
  return shelver.remote.begin(starter, texts);
}

/** A piece of the maker's own as a beginning. */
export function beginWithOwn(own: Piece, texts: readonly string[]): Promise<{ piece: Piece; examination: Examination }> {
  shelver ??= start();
  return shelver.remote.beginOwn(own, texts);
}

/** Where an ornament joins the most of what is loose or weak; `null` where it helps nowhere. */
export function bestBridgePlace(piece: Piece, ornamentId: string): Promise<Ornament["at"] | null> {
  mender ??= start();
  return mender.remote.bridgePlace(piece, ornamentId);
}

/** The word in the middle of the space it stands in, stretched until it bites above and below; `null` where nothing bounds that. */
export function wordIntoGap(piece: Piece, wordId: string, bite: number): Promise<Piece | null> {
  mender ??= start();
  return mender.remote.intoGap(piece, wordId, bite);
}

/** Where a stick holds best, mm right of the middle; `null` where there is no place for it. */
export function bestStickPlace(piece: Piece, stickId: string): Promise<number | null> {
  mender ??= start();
  return mender.remote.stickPlace(piece, stickId);
}

/** Where a loop has to be so that the piece hangs straight, degrees; `null` where there is nothing to hang. */
export function uprightPiece(piece: Piece, loopId: string): Promise<number | null> {
  mender ??= start();
  return mender.remote.upright(piece, loopId);
}

/** A worker of its own draws up cut files and checks those of others. */
let cutter: ReturnType<typeof start> | undefined;

function cutting(): Remote<ExaminerApi> {
  cutter ??= start();
  return cutter.remote;
}

/** All that the way to the cutter shows of a piece. */
export const cutSheet = (piece: Piece, units: Units, choices: CutChoices): Promise<CutSheet> =>
  cutting().cutSheet(piece, units, choices);
export const cutFile = (piece: Piece, format: FileFormat, choices: CutChoices): Promise<MadeFile> =>
  cutting().cutFile(piece, format, choices);
/** Several files of a piece in one. */
export const allFiles = (piece: Piece, formats: readonly FileFormat[], choices: CutChoices): Promise<Uint8Array> =>
  cutting().allFiles(piece, formats, choices);
/** What the cutter makes of a file. */
export const trialOf = (file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<Trial> =>
  cutting().trial(file, profile, stock);
/** @param onProgress told which stage it is at */
export async function checkFile(
  file: Uint8Array,
  stock: Stock,
  profile: MachineProfile,
  units: Units,
  onProgress: (stage: string) => void,
): Promise<CheckedDrawing> {
  await cutting().onProgress(proxy(onProgress));
  return cutting().checkFile(file, stock, profile, units);
}
/** The file with what could be put right. */
export const repairedFile = (checked: CheckedDrawing, name: string, stock: Stock, profile: MachineProfile): Promise<MadeFile> =>
  cutting().repairedFile({ repaired: checked.repaired }, name, stock, profile);

/** Ends a check that takes too long; its answer never comes. */
export function stopCutting(): void {
  cutter?.worker.terminate();
  cutter = undefined;
}

/** Ends whatever mending is under way; its answers never come. */
export function stopMending(): void {
  mender?.worker.terminate();
  mender = undefined;
}

/** Examines one piece; for the rack, where every answer is wanted. */
export const examineOnce = (piece: Piece, units: Units): Promise<Examination> => worker().examine(piece, units, {});

/**
 * A stream of questions about a piece in the hand. While one is being answered only the newest of those that follow is kept;
 * the ones between are never asked.
 */
export function createExaminer(
  onAnswer: (examination: Examination, piece: Piece) => void,
  onFault: (message: string) => void,
  onSlow: (stage: string | null) => void,
) {
  let busy = false;
  let waiting: [Piece, Units, ExamineWish] | null = null;

  const run = async (piece: Piece, units: Units, wish: ExamineWish) => {
    busy = true;
    const begun = performance.now();
    // Stages come on a channel of their own and may be later than the answer.
    onProgress = (stage) => busy && performance.now() - begun > SLOW && onSlow(stage);
    const timer = setTimeout(() => onSlow(""), SLOW);
    try {
      const stopped = new Promise<never>((_, reject) => {
        giveUp = reject;
      });
      onAnswer(await Promise.race([worker().examine(piece, units, wish), stopped]), piece);
    } catch (error) {
      onFault((error as Error).message);
    }
    busy = false;
    clearTimeout(timer);
    onSlow(null);
    const next = waiting;
    waiting = null;
    if (next) await run(...next);
  };

  const ask = (piece: Piece, units: Units, wish: ExamineWish) => {
    if (busy) waiting = [piece, units, wish];
    else void run(piece, units, wish);
  };
  return ask;
}
