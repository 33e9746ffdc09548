/**
 * The load test of a piece as a screen shows it: every letter, every stroke, and a finger anywhere.
 */
import { type Point, type Region, simplify } from "../geometry";
import { measureWidths } from "../measure";
import { lostToCut, type Piece } from "../piece";
import { frameOf, type Strain, StrengthError } from "./frame";
import { DIRECTIONS, FINGER, type Held, heldBy, type LetterLoad, type Loaded, loadsInUse, loadsOn, materialOf, type UseLoad } from "./loads";

export interface LoadTest {
  held: Held;
  /** The force of a careless finger, N. */
  finger: number;
  /** The weakest first. */
  letters: LetterLoad[];
  /** What the whole piece takes at its far end, and in use. */
  uses: UseLoad[];
  /**
   * Every stroke, beam by beam: x and y of either end and the width, mm, and the greatest stress in it when any letter is pushed in any
   * direction, as a share of what the sheet bears: it breaks from 1 on.
   */
  strokes: Float64Array;
}

/** A finger on one place. */
export interface Fingered {
  at: Point;
  direction: LetterLoad["direction"];
  /** N, at which something breaks. */
  takes: number;
  breaks: Strain;
  /** How far the place gives way under a careless finger, mm. */
  gives: number;
  /** The outline at rest, and for each of its vertices, ring after ring, how far it moves under a careless finger: x, y and z, mm. */
  outline: Region;
  moved: Float64Array;
}

export interface LoadTester {
  test: LoadTest;
  /**
   * @param direction left out, the one in which least is borne
   * @throws StrengthError where what is pushed hangs on nothing that is held
   */
  finger(at: Point, direction?: LetterLoad["direction"]): Fingered;
}

/** The outline that is shown bent is drawn with chords this near, mm. */
const DRAWN = 0.05;
const STROKE = 6;

/** @throws StrengthError where nothing is held, or figures are none */
export function createLoadTest(piece: Piece, loaded: Loaded): LoadTester {
  const { strength } = piece.stock;
  if (!(strength > 0)) throw new StrengthError("The load test needs a strength above zero");
  const held = heldBy(piece, loaded);
  const frame = frameOf(
    measureWidths(loaded.material).medial(),
    materialOf(piece.stock, piece.grain),
    held.boxes,
    lostToCut(piece),
  );
  const shares = new Float64Array(frame.beams.length / 5);
  const letters = loadsOn(frame, loaded, held.boxes, { strength }, ({ stresses }) => {
    for (let n = 0; n < shares.length; n++) shares[n] = Math.max(shares[n]!, (stresses[n]! * FINGER) / strength);
  });
  const strokes = new Float64Array(shares.length * STROKE);
  for (let n = 0; n < shares.length; n++) {
    strokes.set(frame.beams.subarray(5 * n, 5 * n + 5), STROKE * n);
    strokes[STROKE * n + 5] = shares[n]!;
  }
  let outline: Region | undefined;
  return {
    test: { held, finger: FINGER, letters, uses: loadsInUse(frame, held, loaded, { strength }), strokes },
    finger: (at, wanted) => {
      const pushed = DIRECTIONS.filter(({ direction }) => wanted === undefined || direction === wanted).map(
        ({ direction, force }) => ({ direction, bent: frame.bend({ ...at, force, grip: frame.underFinger(at) }) }),
      );
      const { direction, bent } = pushed.reduce((worst, each) =>
        each.bent.worst.stress > worst.bent.worst.stress ? each : worst,
      );
      // What has fallen does not bend with the rest.
      outline ??= simplify(
        loaded.cutouts.flatMap(({ region, falls }) => (falls ? [] : region)),
        DRAWN,
      );
      const moved = outline.flatMap((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) => bent.moved(ring[2 * i]!, ring[2 * i + 1]!)).flat(),
      );
      return {
        at,
        direction,
        takes: bent.worst.stress > 0 ? strength / bent.worst.stress : Infinity,
        breaks: bent.worst,
        gives: Math.hypot(...bent.displacement) * FINGER,
        outline,
        moved: Float64Array.from(moved, (mm) => mm * FINGER),
      };
    },
  };
}

/** Every letter takes a careless finger, and the piece what happens to it in use; where there are letters, theirs are the far ends. */
export const bearsAll = ({ letters, uses, finger }: Pick<LoadTest, "letters" | "uses" | "finger">): boolean =>
  letters.every(({ takes }) => takes >= finger) &&
  uses.every(({ kind, takes, force }) => takes >= force || (kind === "at the far end" && letters.length > 0));
