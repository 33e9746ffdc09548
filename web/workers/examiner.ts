/**
 * The screen's end of the examining worker: only the newest question counts.
 */
import type { BringInOptions, CheckedDrawing, Examination } from "@mend-joint/core";
import type { MachineProfile } from "@mend-joint/core/cut";
import type { FileFormat, MadeFile } from "@mend-joint/core/formats";
import type { Point, Region } from "@mend-joint/core/geometry";
import type { Begun, Mend, MendedAll, RingSize, SizeWanted, TiedUp } from "@mend-joint/core/mend";
import type { KeptOutline, Ornament, Piece, Stock, SymbolName, Word } from "@mend-joint/core/piece";
import type { Offcut } from "@mend-joint/core/runs";
import type { LetteringFacts } from "@mend-joint/core/shelf";
import type { Fingered, LetterLoad, LoadTest } from "@mend-joint/core/strength";
import type { Picture } from "@mend-joint/core/trace";
import { proxy, type Remote, wrap } from "comlink";
import { earlyWorker, startExaminer } from "../early";
import { examinedAhead } from "../state/ahead";
import type { Chosen, Found, TraceWish } from "./bringing";
import type { CutChoices, CutSheet, Trial } from "./cutting";
import type { ExaminerApi } from "./examiner.worker";
import type { ExamineWish, LetteringChoices } from "./examining";

/** What is told when a worker ends by itself. The next question starts another one. */
class WorkerLost extends Error {
  override name = "WorkerLost";
  constructor() {
    super("The measuring broke off. It was started again, and your piece is as it was: try once more.");
  }
}

interface Running {
  remote: Remote<ExaminerApi>;
  worker: Worker;
  /** Never resolves; rejects when the worker ends by itself. */
  lost: Promise<never>;
  /** It has answered something: its code is compiled, and what it is asked next takes a fraction of the time. */
  isWarm: boolean;
}

/** A worker that is started when it is first asked, and again when it has ended. */
interface Host {
  ask<T>(question: (remote: Remote<ExaminerApi>) => Promise<T>): Promise<T>;
  isWarm(): boolean;
  /** Ends it; what it was asked is never answered. */
  stop(): void;
}

/** @param first the worker to begin with, where there is one */
function host(
  onStart: (remote: Remote<ExaminerApi>) => void = () => {},
  first: () => Worker | undefined = () => undefined,
): Host {
  let running: Running | undefined;
  const start = (): Running => {
    const worker = first() ?? startExaminer();
    const lost = new Promise<never>((_, reject) => {
      const end = () => {
        worker.terminate();
        if (running?.worker === worker) running = undefined;
        reject(new WorkerLost());
      };
      worker.addEventListener("error", end);
      worker.addEventListener("messageerror", end);
    });
    lost.catch(() => {});
    const remote = wrap<ExaminerApi>(worker);
    onStart(remote);
    return { remote, worker, lost, isWarm: false };
  };
  return {
    ask: async (question) => {
      running ??= start();
      const asked = running;
      const answer = await Promise.race([question(asked.remote), asked.lost]);
      asked.isWarm = true;
      return answer;
    },
    isWarm: () => running?.isWarm ?? false,
    stop: () => {
      running?.worker.terminate();
      running = undefined;
    },
  };
}

/** Where beginnings are made, two workers were started early; a bench has only one, for what lies on it. */
function secondEarly(): Worker | undefined {
  return location.pathname === "/new" ? earlyWorker() : undefined;
}

/** Longer than this (ms) and the maker is told what is going on. */
const SLOW = 1000;

/** Told which stage the examining worker is at. */
let onProgress: (stage: string) => void = () => {};
/** Gives up what is being examined. */
let giveUp: (reason: Error) => void = () => {};

const examiner = host((remote) => void remote.onProgress(proxy((stage: string) => onProgress(stage))), earlyWorker);
/** Mends take longer than examining; a worker of their own keeps them out of the way of the hand. */
const mender = host(undefined, secondEarly);
/** A worker of its own measures the lettering shelf, so that nothing else waits for it. */
const shelver = host();
/** A worker of its own checks files of others, and plays them as a cutter would. */
const checker = host();
/** A worker of its own reads drawings and pictures that are brought in. */
const bringer = host();

/** Ends an examination that takes too long. */
export function stopExamining(): void {
  examiner.stop();
  giveUp(new Error("it was stopped."));
}

export function mendsFor(piece: Piece, finding: number): Promise<Mend[]> {
  return mender.ask((remote) => remote.mends(piece, finding));
}

/** What the piece takes. @param moving something of it is in the hand */
export const loadTest = (piece: Piece, moving = false): Promise<LoadTest> => mender.ask((remote) => remote.loads(piece, moving));

/** A finger on a place of it; in the direction in which it bears least, unless one is said. */
export const loadFinger = (piece: Piece, at: Point, direction?: LetterLoad["direction"]): Promise<Fingered> =>
  mender.ask((remote) => remote.finger(piece, at, direction));

/** @param most largest share of the piece that may change; left out, what nobody has to be asked for */
export function mendAll(piece: Piece, most?: number): Promise<MendedAll> {
  return mender.ask((remote) => remote.mendAll(piece, most));
}

/** @returns `null` where a piece cannot have that size */
export function scaleTo(piece: Piece, wanted: SizeWanted): Promise<Piece | null> {
  return mender.ask((remote) => remote.scaleTo(piece, wanted));
}

export function letteringFacts(word: Word, font: string, piece: Pick<Piece, "stock" | "cut">): Promise<LetteringFacts | null> {
  return shelver.ask((remote) => remote.lettering(word, font, { stock: piece.stock, cut: piece.cut }));
}

export function letterforms(word: Word, key: string): Promise<{ form: string | undefined; region: Region }[]> {
  return shelver.ask((remote) => remote.forms(word, key));
}

let drawn: Promise<Record<SymbolName, Region>> | undefined;

/** The ornaments, for choosers. */
export function ornaments(): Promise<Record<SymbolName, Region>> {
  drawn ??= rest().then(() => shelver.ask((remote) => remote.ornaments()));
  drawn.catch(() => {
    drawn = undefined;
  });
  return drawn;
}

/** Directions in which a bridge of a cut-out letter would reach material, degrees, the best first. */
export function bridgePlacesOf(piece: Piece, bridge: { wordId: string; key: string; hole: number }): Promise<number[]> {
  return mender.ask((remote) => remote.bridgePlaces(piece, bridge));
}

/** The least height at which each silhouette survives, mm: ours by name, the maker's own by id. */
export function smallestHeights(
  wanted: number,
  own: readonly Pick<KeptOutline, "id" | "outline">[],
): Promise<Record<string, number>> {
  // The shapes themselves come first: they take a moment, these take seconds.
  return ornaments().then(() => shelver.ask((remote) => remote.smallestHeights(wanted, own)));
}

/** The examination that is under way. */
let examining: Promise<unknown> = Promise.resolve();

/** Until the piece that is opened just now has been examined: what only decorates the page is not to hold that up. */
async function rest(): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve));
  await examining.catch(() => {});
}

/** Features of a font that change a word, and the axes it varies on. */
export function letteringChoices(word: Word): Promise<LetteringChoices> {
  return shelver.ask((remote) => remote.choices(word));
}

/** Puts in the ties that make one piece of what lies apart. */
export function tieUp(piece: Piece, width: number, count: 1 | 2): Promise<TiedUp> {
  return mender.ask((remote) => remote.tieUp(piece, width, count));
}

/** While no piece is on the bench, its workers share the beginnings: they know the fonts and are quick when one is chosen. */
const beginners = [examiner, mender] as const;
export type Beginner = 0 | 1;
/** Each makes one beginning at a time. */
export const BEGINNERS: readonly Beginner[] = [0, 1];

/** A starter with the maker's words in it, and what comes of it. */
export function beginWith(starter: string, texts: readonly string[], asTyped: boolean, by: Beginner = 0): Promise<Begun> {
  return beginners[by].ask((remote) => remote.begin(starter, texts, asTyped));
}

/** A piece of the maker's own as a beginning. */
export function beginWithOwn(own: Piece, texts: readonly string[], by: Beginner = 0): Promise<Begun> {
  return beginners[by].ask((remote) => remote.beginOwn(own, texts));
}

/** Where an ornament joins the most of what is loose or weak; `null` where it helps nowhere. */
export function bestBridgePlace(piece: Piece, ornamentId: string): Promise<Ornament["at"] | null> {
  return mender.ask((remote) => remote.bridgePlace(piece, ornamentId));
}

/** Where an ornament stands in the place of a letter's counter, and how high; `null` where the letter has none. */
export function counterFor(
  piece: Piece,
  letter: { wordId: string; key: string },
  name: SymbolName,
): Promise<Pick<Ornament, "at" | "height"> | null> {
  return mender.ask((remote) => remote.counterFor(piece, letter, name));
}

/** The word in the middle of the space it stands in, stretched until it bites above and below; `null` where nothing bounds that. */
export function wordIntoGap(piece: Piece, wordId: string, bite: number): Promise<Piece | null> {
  return mender.ask((remote) => remote.intoGap(piece, wordId, bite));
}

/** Each letter of the word stretched by itself until it bites above and below; `null` where nothing bounds any of them. */
export function lettersToGap(piece: Piece, wordId: string, bite: number): Promise<Piece | null> {
  return mender.ask((remote) => remote.lettersIntoGap(piece, wordId, bite));
}

/** A ring of letters with other diameters; `null` where the line does not run round a middle. */
export function ringOfSize(piece: Piece, wordId: string, wanted: RingSize): Promise<Piece | null> {
  return mender.ask((remote) => remote.resizeRing(piece, wordId, wanted));
}

/** Where a stick holds best, mm right of the middle; `null` where there is no place for it. */
export function bestStickPlace(piece: Piece, stickId: string): Promise<number | null> {
  return mender.ask((remote) => remote.stickPlace(piece, stickId));
}

/** Where a loop has to be so that the piece hangs straight, degrees; `null` where there is nothing to hang. */
export function uprightPiece(piece: Piece, loopId: string): Promise<number | null> {
  return mender.ask((remote) => remote.upright(piece, loopId));
}

/** A finished piece as an outline for other pieces; `null` where there is nothing of it, or more than can be kept. */
export const outlineOf = (piece: Piece): Promise<Pick<KeptOutline, "outline" | "height"> | null> =>
  mender.ask((remote) => remote.outlineOf(piece));

/** Outlines of a drawing that is brought in. */
export const openDrawing = (file: Uint8Array, lines: BringInOptions): Promise<Found> =>
  bringer.ask((remote) => remote.openDrawing(file, lines));
export const outlinesWith = (lines: BringInOptions): Promise<Found> => bringer.ask((remote) => remote.outlinesWith(lines));
/** Reads a picture; `traceAgain` says what its outlines are. @param background a place that is background, pixels */
export const openPicture = (picture: Picture, background: Point | undefined): Promise<void> =>
  bringer.ask((remote) => remote.openPicture(picture, background));
export const previewTrace = (wish: TraceWish): Promise<Found> => bringer.ask((remote) => remote.previewTrace(wish));
export const traceAgain = (wish: TraceWish): Promise<Found> => bringer.ask((remote) => remote.traceAgain(wish));
/** What the chosen outlines would be as a part, so wide. */
export const chooseOutlines = (chosen: readonly number[], width: number, { stock, cut }: Piece): Promise<Chosen> =>
  bringer.ask((remote) => remote.choose(chosen, width, { stock, cut }));
/** Ends whatever is being read; its answer never comes. */
export const stopBringing = (): void => bringer.stop();

/** All that the way to the cutter shows of a piece; by the worker that has examined it. */
export const cutSheet = (piece: Piece, choices: CutChoices): Promise<CutSheet> =>
  examiner.ask((remote) => remote.cutSheet(piece, choices));
export const cutFile = (piece: Piece, format: FileFormat, choices: CutChoices): Promise<MadeFile> =>
  examiner.ask((remote) => remote.cutFile(piece, format, choices));
/** Several files in one. */
export const zipInWorker = (files: readonly Pick<MadeFile, "name" | "bytes">[]): Promise<Uint8Array> =>
  examiner.ask((remote) => remote.zipInWorker(files));
export const allFiles = (piece: Piece, formats: readonly FileFormat[], choices: CutChoices): Promise<MadeFile[]> =>
  examiner.ask((remote) => remote.allFiles(piece, formats, choices));
/** What the cutter makes of a file. */
export const trialOf = (file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<Trial> =>
  checker.ask((remote) => remote.trial(file, profile, stock) as Promise<Trial>);
/** What is there of a sheet, by a drawing of it. */
export const offcutIn = (file: Uint8Array): Promise<{ outline: Offcut["outline"]; width: number; height: number }> =>
  checker.ask((remote) => remote.offcutIn(file));
/** @param onProgress told which stage it is at, and nothing more once the answer is there */
export async function checkFile(
  file: Uint8Array,
  stock: Stock,
  profile: MachineProfile,
  onProgress: (stage: string) => void,
): Promise<CheckedDrawing> {
  // Stages come on a channel of their own and may be later than the answer.
  let answered = false;
  return checker.ask(async (remote) => {
    await remote.onProgress(proxy((stage: string) => !answered && onProgress(stage)));
    return remote.checkFile(file, stock, profile).finally(() => {
      answered = true;
    });
  });
}
/** The file with what could be put right. */
export const repairFile = (checked: CheckedDrawing, name: string, stock: Stock, profile: MachineProfile): Promise<MadeFile> =>
  checker.ask((remote) => remote.repairFile({ repaired: checked.repaired }, name, stock, profile));

/** Ends a check that takes too long; its answer never comes. */
export const stopChecking = (): void => checker.stop();

/** Ends whatever mending is under way; its answers never come. */
export const stopMending = (): void => mender.stop();

/** Examines one piece; for the rack, where every answer is wanted. */
export const examineOnce = (piece: Piece): Promise<Examination> => examiner.ask((remote) => remote.examine(piece, {}));

/** Examines what a piece would be, out of the way of the one in the hand. */
export const tryOut = (piece: Piece): Promise<Examination> => mender.ask((remote) => remote.examine(piece, {}));

const NEVER = new Promise<never>(() => {});

/** What is there, or nothing ever. */
const sooner = <T>(found: Promise<T | null>): Promise<T> =>
  new Promise((resolve) => {
    found.then(
      (value) => value !== null && resolve(value),
      () => {},
    );
  });

/** A piece, how it is to be examined, and what is known of it already: the worker is asked all the same, so that it is warm. */
type Question = [piece: Piece, wish: ExamineWish, known?: Examination | undefined];

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
  let waiting: Question | null = null;

  const run = async (...[piece, wish, known]: Question) => {
    busy = true;
    const begun = performance.now();
    // Stages come on a channel of their own and may be later than the answer.
    onProgress = (stage) => busy && performance.now() - begun > SLOW && onSlow(stage);
    const timer = setTimeout(() => onSlow(""), SLOW);
    try {
      const stopped = new Promise<never>((_, reject) => {
        giveUp = reject;
      });
      const isWarm = examiner.isWarm();
      const question = () => examiner.ask((remote) => remote.examine(piece, wish));
      // Lost once, it is asked again; lost twice, it is said.
      const answer = question().catch((error: Error) => (error instanceof WorkerLost ? question() : Promise.reject(error)));
      examining = answer;
      // The server is quicker than a worker that is cold. It is asked for a verdict alone: not for the line along the strokes, nor for a
      // piece that is moved.
      const asksServer = !known && !isWarm && !wish.skeleton && !wish.moving;
      const ahead = known ?? (asksServer ? sooner(examinedAhead(piece)) : NEVER);
      onAnswer(await Promise.race([answer, stopped, ahead]), piece);
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

  return (...question: Question) => {
    if (busy) waiting = question;
    else void run(...question);
  };
}
