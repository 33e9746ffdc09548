/**
 * What examining a piece tells.
 */
import type { Box, Point, Region } from "../geometry";
import type { Hold, Joint } from "../joints";
import type { Finding, Verdict } from "../judge";
import type { WordLayout } from "../lettering";
import type { Skeleton } from "../measure";
import type { LoadTester } from "../strength";
import type { MeasuredBase } from "./measured";
import type { Cutout, ExaminedLetter, Overlap } from "./outcome";
import type { ScoreLine } from "./scores";
import type { Ghost, Solid, WordBridge } from "./solids";

/** A loop, and how far the piece turns when it hangs by it, degrees, counter-clockwise; `null` without material. */
export interface Hanger {
  id: string;
  at: Point;
  turn: number | null;
}

/** Key of what an examination was measured from. Copies keep it; it does not travel between threads. */
export const MEASURED = Symbol("measured");

/** Key of what it bears, where that was asked for. It does not travel between threads either. */
export const TESTED = Symbol("tested");

export interface Examination {
  verdict: Verdict;
  findings: Finding[];
  /** How wide a joint must be drawn, mm: what the stock wants and what the cut takes. */
  leastWidth: number;
  /** What the cut takes of that, mm: a joint no wider is cut through. */
  lost: number;
  solids: Solid[];
  /** One for each of `solids`. */
  holds: Hold[];
  joints: Joint[];
  /** Letters in reading order, for the chain. */
  letters: ExaminedLetter[];
  words: WordLayout[];
  material: Region;
  /** What comes off the machine, piece by piece. */
  cutouts: Cutout[];
  box: Box | null;
  centre: Point | null;
  /** Area in mm². */
  area: number;
  /** How many separate pieces come off the machine. */
  pieces: number;
  /** Index of the solid that stands in for a holder, −1 when there is a holder. */
  standIn: number;
  overlaps: Overlap[];
  /** What is engraved or cut out: no material, but there to be seen and taken in the hand. */
  ghosts: Ghost[];
  /** Lines to be scored where letters meet. */
  scores: ScoreLine[];
  /** What holds the insides of cut-out letters. */
  bridges: WordBridge[];
  /** Loops, and how the piece hangs by each. */
  hangers: Hanger[];
  /** The line along the middle of the material with its widths, where it was asked for. */
  skeleton?: Skeleton;
  /** Narrowest place of all strokes, mm, where it was asked for; 0 without material. */
  thinnest?: number;
  /** What it was measured from: itself, or the whole that was measured before it. */
  readonly [MEASURED]?: MeasuredBase | undefined;
  readonly [TESTED]?: LoadTester;
}

export interface ExamineOptions {
  /** False leaves out what is merely worth knowing. */
  notes?: boolean;
  /** Whether what must bear the hand is tested where that is a rule of the piece; left out, with the notes. */
  hand?: boolean;
  /** Wants the skeleton too. */
  skeleton?: boolean;
  /** Wants the thinnest stroke too. */
  thinnest?: boolean;
  /**
   * An examination from before. What has not changed since is not welded and measured again; the outcome is the same. One that has come
   * from another thread has lost what it was measured from, and helps nothing.
   */
  base?: Examination;
  /** Told which stage begins. */
  onProgress?: ((stage: string) => void) | undefined;
  /** Told how long each stage took, in ms. */
  onStage?: (stage: string, ms: number) => void;
}
