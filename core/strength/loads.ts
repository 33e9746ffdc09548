/**
 * What every letter of a piece takes from a careless finger, and the piece from what happens to it in use.
 *
 * How hard a finger pushes, a stick is planted, a ring is tugged, how deep a fall jerks: assumptions, common practice, no published
 * source. The maker may have others of their own.
 */
import { boxDistance, boxOfPoint, farthestCorner, type Point, regionBox, regionCentroid } from "../geometry";
import type { Hand } from "../piece";
import type { Frame, Push, Strain, Strained } from "./frame";
import { type Held, type Loaded, middleOf } from "./held";

/** N */
export type Forces = Record<"finger" | "planting" | "tugging", number>;

/** What a careless finger puts on a letter, a stick is pushed in with, a ring is pulled with, N. */
export const USUAL_FORCES: Forces = { finger: 5, planting: 20, tugging: 20 };

export const forcesOf = (hand: Hand | undefined): Forces => ({
  finger: hand?.finger ?? USUAL_FORCES.finger,
  planting: hand?.planting ?? USUAL_FORCES.planting,
  tugging: hand?.tugging ?? USUAL_FORCES.tugging,
});

/** Pushed in and pulled so far from straight, degrees. */
const TILT = 10;
/** Jerked by its loop, and dropped flat, a piece is so many times as heavy. */
const JERK = 10;
const FALL = 50;
/** A film that is peeled off pulls so hard, N for each mm of the stroke under it; nobody pulls off strips wider than that, mm. */
const PEEL = 0.3;
const STRIP = 20;

/** How much of a force something takes, and where it breaks. */
export interface Load {
  /** What it gets, N. */
  force: number;
  /** N, at which something breaks; infinite where what holds it is right there. */
  takes: number;
  /** Where it is pushed. */
  at: Point;
  /** Where it breaks first. */
  breaks: Strain;
  /** How wide it would have to be there to bear what it gets, after the cut, mm. */
  wanted: number;
}

export interface LetterLoad extends Load {
  /** Of the letter. */
  id: string;
  /** The one in which it takes least. */
  direction: "sideways" | "up and down" | "out of the sheet";
}

/** A load of the whole piece. */
export interface UseLoad extends Load {
  kind: "at the far end" | "planting" | "tugging" | "hanging" | "dropping" | "peeling";
}

/** Of one newton each. */
export const DIRECTIONS: readonly { direction: LetterLoad["direction"]; force: Push["force"] }[] = [
  { direction: "sideways", force: [1, 0, 0] },
  { direction: "up and down", force: [0, 1, 0] },
  { direction: "out of the sheet", force: [0, 0, 1] },
];

interface Sheet {
  /** Bending strength, MPa. */
  strength: number;
}

/** @param strained by one newton */
function loadOf({ worst, widthFor }: Strained, force: number, at: Point, { strength }: Sheet): Load {
  const takes = worst.stress > 0 ? strength / worst.stress : Infinity;
  return { force, takes, at, breaks: worst, wanted: takes >= force ? worst.width : widthFor(strength / force) };
}

/** One newton on a letter: in which direction, what it strains, and where it presses on which width of stroke. */
interface OneNewton {
  direction: LetterLoad["direction"];
  strained: Strained;
  under: Point & { width: number };
}

/** What the loads of letters go by. */
export interface OnLetters extends Pick<InUse, "forces"> {
  held: Pick<Held, "places">;
  /** Told of every push, before it is judged. */
  onPush?: (push: OneNewton) => void;
}

/** @returns the weakest letter first; letters that hang on nothing are left out */
export function loadsOn(
  frame: Frame,
  { held: { places }, forces: { finger }, onPush }: OnLetters,
  { solids, letters, holds }: Pick<Loaded, "solids" | "letters" | "holds">,
  sheet: Sheet,
): LetterLoad[] {
  const middle = middleOf(places);
  const loads = letters.flatMap(({ id, solids: own }): LetterLoad[] => {
    const held = own.filter((i) => !holds[i]!.falls);
    const at = farthestCorner(
      held.flatMap((i) => solids[i]!.region),
      middle,
    );
    if (!at || !frame.hangs(at)) return [];
    const under = frame.underFinger(at);
    return DIRECTIONS.map(({ direction, force }): LetterLoad => {
      const strained = frame.strain({ x: at.x, y: at.y, force, grip: under });
      onPush?.({ direction, strained, under });
      return { id, direction, ...loadOf(strained, finger, { x: at.x, y: at.y }, sheet) };
    })
      .filter(({ takes }) => Number.isFinite(takes))
      .sort((a, b) => a.takes - b.takes)
      .slice(0, 1);
  });
  return loads.sort((a, b) => a.takes - b.takes);
}

/** Own weight, N, and places that it is spread over evenly. */
export interface Mass {
  weight: number;
  places: readonly Point[];
}

/** What the loads of the whole piece go by. */
interface InUse {
  held: Pick<Held, "by" | "places">;
  forces: Forces;
  /** Of a piece on a loop, the same held by the loop's rim alone, as by a ring through its hole; left out, all of the loop is. */
  byRim?: Frame | undefined;
  /** Left out where nobody asks for what its own weight does. */
  mass?: Mass | undefined;
}

/**
 * What happens to the whole piece: a stick is pushed in by its lettering, a ring is tugged by its far end, a jerk goes through what hangs,
 * anything is touched at its far end.
 *
 * @returns the far end first
 */
export function loadsInUse(
  frame: Frame,
  { held: { by, places }, forces, mass, byRim }: InUse,
  { cutouts, letters, solids }: Pick<Loaded, "cutouts" | "letters" | "solids">,
  sheet: Sheet,
): UseLoad[] {
  const middle = middleOf(places);
  const lettering = regionBox(letters.flatMap(({ solids: own }) => own.flatMap((i) => solids[i]!.region)));
  const material = cutouts.flatMap(({ region, falls }) => (falls ? [] : region));
  const far = farthestCorner(material, middle, (corner) => !places.some((box) => boxDistance(box, boxOfPoint(corner)) === 0));
  if (!far || !frame.hangs(far)) return [];
  const tip = { x: far.x, y: far.y };
  const pushed = (kind: UseLoad["kind"], force: number, at: Point, directions: readonly Push["force"][], grip?: Point): UseLoad =>
    directions
      .map((direction) => ({
        kind,
        ...loadOf(frame.strain({ ...at, force: direction, ...(grip && { grip }) }), force, at, sheet),
      }))
      .reduce((least, each) => (each.takes < least.takes ? each : least));
  const anyDirection = DIRECTIONS.map(({ force }) => force);
  const loads = [pushed("at the far end", forces.finger, tip, anyDirection, frame.underFinger(tip))];
  if (by === "stick" && lettering) {
    const at = { x: (lettering.minX + lettering.maxX) / 2, y: (lettering.minY + lettering.maxY) / 2 };
    // A hand grips the lettering as a whole: what counts is what goes down into the stick.
    const top = Math.max(...places.map(({ maxY }) => maxY));
    const grip = { x: middle.x, y: (top + lettering.minY) / 2 };
    loads.push(pushed("planting", forces.planting, at, tilted(at, middle), grip));
  }
  if (by === "loop") {
    const askew = pushed("tugging", forces.tugging, tip, tilted(middle, tip));
    const centre = regionCentroid(material);
    if (!centre) return [...loads, askew];
    // Straight down, as it hangs: a ring turns with what pulls at it.
    const [down] = tilted(middle, centre, 0);
    const straight = loadOf((byRim ?? frame).strain({ ...centre, force: down!, grip: tip }), forces.tugging, tip, sheet);
    loads.push(straight.takes < askew.takes ? { kind: "tugging", ...straight } : askew);
    if (mass) {
      const hanging = (byRim ?? frame).carry(down!, mass.places);
      loads.push({ kind: "hanging", ...loadOf(hanging, JERK * mass.weight, centre, sheet) });
    }
  }
  return loads;
}

/** Fallen flat, a piece lands on where it is heaviest, and its own weight goes on. @param frame held there */
export function dropLoad(frame: Frame, at: Point, { weight, places }: Mass, sheet: Sheet): UseLoad {
  return { kind: "dropping", ...loadOf(frame.carry([0, 0, 1], places), FALL * weight, at, sheet) };
}

/** The film is pulled off by the ends of letters. @param strained by one newton out of the sheet @param under the stroke there */
export function peelLoad(strained: Strained, under: OneNewton["under"], sheet: Sheet): UseLoad {
  const at = { x: under.x, y: under.y };
  return { kind: "peeling", ...loadOf(strained, PEEL * Math.min(STRIP, under.width), at, sheet) };
}

/** One newton from one place towards another, tilted both ways in the plane and out of it. */
function tilted(from: Point, to: Point, degrees = TILT): Push["force"][] {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [
    [c * ux - s * uy, c * uy + s * ux, 0],
    [c * ux + s * uy, c * uy - s * ux, 0],
    [c * ux, c * uy, s],
  ];
}
