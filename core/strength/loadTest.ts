/**
 * The load test of a piece as a screen shows it: every letter, every stroke, and a finger anywhere.
 */
import { type Point, type Region, regionArea, regionCentroid, simplify } from "../geometry";
import { measureWidths } from "../measure";
import { lostToCut, type Piece } from "../piece";
import { framesOf, type Strain, StrengthError } from "./frame";
import { type Held, heldBy, type Loaded, rimsOf } from "./held";
import {
  DIRECTIONS,
  dropLoad,
  forcesOf,
  type LetterLoad,
  loadsInUse,
  loadsOn,
  type OnLetters,
  peelLoad,
  type UseLoad,
} from "./loads";
import { materialOf } from "./material";
import { gramsOf, spreadOver, weightOf } from "./weight";

export interface LoadTest {
  held: Held;
  /** The force of a careless finger, N. */
  finger: number;
  /** Of what hangs together, grams, and the centre of its mass. */
  grams: number;
  centre: Point | null;
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
/** Where a piece lands it is held by so much of the disc there, to either side. */
const LANDS = 0.25;

/** What is asked, where not everything is. */
export interface Asked {
  /** Only these letters; left out, all. */
  letters?: readonly string[] | undefined;
  /** Whether it falls flat too; it takes a frame of its own. */
  dropping?: boolean;
}

/** @throws StrengthError where nothing is held, or figures are none */
export function createLoadTest(piece: Piece, loaded: Loaded, { letters: some, dropping = true }: Asked = {}): LoadTester {
  const { strength, tool } = piece.stock;
  if (!(strength > 0)) throw new StrengthError("The load test needs a strength above zero");
  const held = heldBy(piece, loaded);
  const forces = forcesOf(piece.hand);
  const { finger } = forces;
  const frames = framesOf(measureWidths(loaded.material).medial(), materialOf(piece.stock, piece.grain), lostToCut(piece));
  const frame = frames(held.places);
  const whole = loaded.cutouts.flatMap(({ region, falls }) => (falls ? [] : region));
  const grams = gramsOf(regionArea(whole), piece.stock);
  const mass = { weight: weightOf(grams), places: spreadOver(whole) };

  const shares = new Float64Array(frame.beams.length / 5);
  let peeling: UseLoad | undefined;
  const pushed = some ? { ...loaded, letters: loaded.letters.filter(({ id }) => some.includes(id)) } : loaded;
  const onPush: OnLetters["onPush"] = ({ direction, strained, under }) => {
    const { stresses } = strained;
    for (let n = 0; n < shares.length; n++) shares[n] = Math.max(shares[n]!, (stresses[n]! * finger) / strength);
    if (tool !== "laser" || direction !== "out of the sheet") return;
    const film = peelLoad(strained, under, { strength });
    if (!peeling || film.takes / film.force < peeling.takes / peeling.force) peeling = film;
  };
  const letters = loadsOn(frame, { held, forces, onPush }, pushed, { strength });
  const strokes = new Float64Array(shares.length * STROKE);
  for (let n = 0; n < shares.length; n++) {
    strokes.set(frame.beams.subarray(5 * n, 5 * n + 5), STROKE * n);
    strokes[STROKE * n + 5] = shares[n]!;
  }
  const centre = regionCentroid(whole);
  const rims = held.by === "loop" && centre ? rimsOf(piece, loaded, centre) : [];
  const byRim = rims.length > 0 ? frames(rims) : undefined;
  const uses = loadsInUse(frame, { held, forces, mass, byRim }, loaded, { strength });
  if (peeling) uses.push(peeling);
  if (dropping) {
    const { width: wide, ...lands } = frame.heaviest();
    const side = LANDS * wide;
    const underIt = { minX: lands.x - side, maxX: lands.x + side, minY: lands.y - side, maxY: lands.y + side };
    uses.push(dropLoad(frames([underIt]), lands, mass, { strength }));
  }
  let outline: Region | undefined;
  return {
    test: { held, finger, grams, centre, letters, uses, strokes },
    finger: (at, wanted) => {
      const trials = DIRECTIONS.filter(({ direction }) => wanted === undefined || direction === wanted).map(
        ({ direction, force }) => ({ direction, bent: frame.bend({ ...at, force, grip: frame.underFinger(at) }) }),
      );
      const { direction, bent } = trials.reduce((worst, each) =>
        each.bent.worst.stress > worst.bent.worst.stress ? each : worst,
      );
      // What has fallen does not bend with the rest.
      outline ??= simplify(whole, DRAWN);
      const moved = outline.flatMap((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) => bent.moved(ring[2 * i]!, ring[2 * i + 1]!)).flat(),
      );
      return {
        at,
        direction,
        takes: bent.worst.stress > 0 ? strength / bent.worst.stress : Infinity,
        breaks: bent.worst,
        gives: Math.hypot(...bent.displacement) * finger,
        outline,
        moved: Float64Array.from(moved, (mm) => mm * finger),
      };
    },
  };
}

/** Every letter takes a careless finger, and the piece what happens to it in use; where there are letters, theirs are the far ends. */
export const bearsAll = ({ letters, uses, finger }: Pick<LoadTest, "letters" | "uses" | "finger">): boolean =>
  letters.every(({ takes }) => takes >= finger) && usesThatCount({ letters, uses }).every(({ takes, force }) => takes >= force);

export const usesThatCount = ({ letters, uses }: Pick<LoadTest, "letters" | "uses">): UseLoad[] =>
  letters.length > 0 ? uses.filter(({ kind }) => kind !== "at the far end") : uses;
