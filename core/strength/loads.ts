/**
 * What every letter of a piece takes from a careless finger, held as the piece is held in use.
 */
import { type Box, boxDistance, boxOfPoint, type Point, type Region, regionBox } from "../geometry";
import type { Piece, Stock } from "../piece";
import type { Material } from "./element";
import type { Bent, Frame, Push, Strain } from "./frame";
import { grainOf } from "./grain";

/** What a careless finger puts on a letter, N. (An assumption; common practice, no published source.) */
export const FINGER = 5;

/** Young's modulus in MPa and Poisson's number: of the size that makers' sheets and the Wood Handbook give; from memory. */
const ELASTIC: Record<Stock["material"], readonly [young: number, poisson: number]> = {
  birch: [9000, 0.3],
  poplar: [6500, 0.3],
  bamboo: [9000, 0.3],
  oak: [12300, 0.35],
  maple: [12600, 0.35],
  cherry: [10300, 0.35],
  walnut: [11000, 0.35],
  mdf: [3500, 0.25],
  "acrylic-clear": [3200, 0.37],
  "acrylic-frosted": [3200, 0.37],
  "acrylic-white": [3200, 0.37],
  "acrylic-black": [3200, 0.37],
  "acrylic-gold": [3200, 0.37],
  "acrylic-silver": [3200, 0.37],
  leather: [100, 0.4],
  card: [3000, 0.3],
  "acrylic-teal": [3200, 0.37],
  "acrylic-red": [3200, 0.37],
};

/** @param grain direction of the fibres where it has any, degrees from the horizontal */
export function materialOf(
  stock: Pick<Stock, "material" | "thickness" | "young" | "grain" | "strength" | "strengthAcross">,
  grain = 0,
): Material {
  const [usual, poisson] = ELASTIC[stock.material];
  return { young: stock.young ?? usual, poisson, thickness: stock.thickness, grain: grainOf(stock, grain) };
}

/** What of an examined piece the load test goes by. */
export interface Loaded {
  /** All material, and piece by piece what comes off the machine. */
  material: Region;
  cutouts: readonly { region: Region; falls: boolean }[];
  solids: readonly { id: string; holder: boolean; region: Region }[];
  /** One for each of `solids`. */
  holds: readonly { falls: boolean }[];
  /** Each with its solids, as indices. */
  letters: readonly { id: string; solids: readonly number[] }[];
  /** Index of the solid that stands in for a holder, −1 when there is one. */
  standIn: number;
}

export interface LetterLoad {
  /** Of the letter. */
  id: string;
  /** The force at its far end at which something breaks, N: the least of those along, across and out of the sheet. */
  takes: number;
  direction: "sideways" | "up and down" | "out of the sheet";
  /** Where it is pushed. */
  at: Point;
  /** Where it breaks first. */
  breaks: Strain;
}

/** Of a stick or a spike, so much is in the cake or the soil. (Common practice, no published source.) */
const BURIED = 2 / 3;
/** Of a bar that stands or is glued on, so much is held. */
const STANDING = 1 / 3;

/** What a piece is held by in use. */
export type HeldBy = "stick" | "stake" | "loop" | "bar" | "backing" | "holder" | "letters";

export interface Held {
  by: HeldBy;
  /** mm */
  boxes: Box[];
}

/** Where a piece is held in use: at its sticks and spikes, its loops, else at what holds the letters. */
export const heldAt = (piece: Pick<Piece, "parts">, loaded: Loaded): Box[] => heldBy(piece, loaded).boxes;

export function heldBy({ parts }: Pick<Piece, "parts">, { solids, standIn }: Pick<Loaded, "solids" | "standIn">): Held {
  const boxOf = (id: string) => regionBox(solids.find((solid) => solid.id === id)?.region ?? []);
  const lowest = (box: Box, share: number): Box => ({ ...box, maxY: box.minY + share * (box.maxY - box.minY) });
  const boxes = (kind: string, of: (box: Box) => Box) =>
    parts.flatMap((part) => {
      const box = part.kind === kind ? boxOf(part.id) : null;
      return box ? [of(box)] : [];
    });
  const ways: Record<HeldBy, Box[]> = {
    stick: boxes("stick", (box) => lowest(box, BURIED)),
    // A flat stake has its point on the left.
    stake: parts.flatMap((part) => {
      const box = part.kind === "stake" ? boxOf(part.id) : null;
      return box && part.kind === "stake" ? [{ ...box, maxX: box.minX + BURIED * part.point }] : [];
    }),
    loop: boxes("loop", (box) => box),
    bar: boxes("bar", (box) => lowest(box, STANDING)),
    backing: boxes("backing", (box) => lowest(box, STANDING)),
    holder: solids.flatMap(({ holder, region }) => {
      const box = holder ? regionBox(region) : null;
      return box ? [lowest(box, STANDING)] : [];
    }),
    letters: standIn >= 0 ? [regionBox(solids[standIn]!.region)!] : [],
  };
  const [by, found] = (Object.entries(ways) as [HeldBy, Box[]][]).find(([, some]) => some.length > 0) ?? ["letters", []];
  return { by, boxes: found };
}

/** A load of the whole piece in use. */
export interface UseLoad {
  kind: "planting" | "tugging" | "at the far end";
  /** What it gets, N. (An assumption; common practice, no published source.) */
  force: number;
  /** N, at which something breaks: the least of all tilts; infinite where what holds it is right there. */
  takes: number;
  at: Point;
  breaks: Strain;
}

/** Pushed into cake or soil, and pulled by its ring: so hard, N, and so far from straight, degrees. */
const PLANTED = 20;
const TUGGED = 20;
const TILT = 10;

/**
 * What happens to the whole piece: a stick is pushed in by its lettering, a ring is tugged by its far end, anything is touched there.
 *
 * @returns the far end first
 */
export function loadsInUse(
  frame: Frame,
  { by, boxes }: Held,
  { cutouts, letters, solids }: Pick<Loaded, "cutouts" | "letters" | "solids">,
  { strength }: { strength: number },
): UseLoad[] {
  const middle = middleOf(boxes);
  const lettering = regionBox(letters.flatMap(({ solids: own }) => own.flatMap((i) => solids[i]!.region)));
  const material = cutouts.flatMap(({ region, falls }) => (falls ? [] : region));
  const tip = farthest(material, middle, boxes);
  if (!tip || !frame.hangs(tip)) return [];
  const worst = (kind: UseLoad["kind"], force: number, at: Point, forces: readonly Push["force"][], grip?: Point): UseLoad[] => {
    const [least] = forces
      .map((each) => frame.bend({ ...at, force: each, ...(grip && { grip }) }).worst)
      .sort((a, b) => b.stress - a.stress);
    return least ? [{ kind, force, takes: least.stress > 0 ? strength / least.stress : Infinity, at, breaks: least }] : [];
  };
  const loads = worst(
    "at the far end",
    FINGER,
    tip,
    DIRECTIONS.map(({ force }) => force),
    frame.underFinger(tip),
  );
  if (by === "stick" && lettering) {
    const at = { x: (lettering.minX + lettering.maxX) / 2, y: (lettering.minY + lettering.maxY) / 2 };
    // A hand grips the lettering as a whole: what counts is what goes down into the stick.
    const top = Math.max(...boxes.map(({ maxY }) => maxY));
    loads.push(...worst("planting", PLANTED, at, tilted(at, middle), { x: middle.x, y: (top + lettering.minY) / 2 }));
  }
  if (by === "loop") loads.push(...worst("tugging", TUGGED, tip, tilted(middle, tip)));
  return loads;
}

/** One newton from one place towards another, tilted both ways in the plane and out of it. */
function tilted(from: Point, to: Point): Push["force"][] {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const [c, s] = [Math.cos((TILT * Math.PI) / 180), Math.sin((TILT * Math.PI) / 180)];
  return [
    [c * ux - s * uy, c * uy + s * ux, 0],
    [c * ux + s * uy, c * uy - s * ux, 0],
    [c * ux, c * uy, s],
  ];
}

function middleOf(boxes: readonly Box[]): Point {
  const middle = { x: 0, y: 0 };
  for (const { minX, maxX, minY, maxY } of boxes) {
    middle.x += (minX + maxX) / 2 / boxes.length;
    middle.y += (minY + maxY) / 2 / boxes.length;
  }
  return middle;
}

/**
 * @param strength MPa
 * @param onPush told of every push of one newton, before it is judged
 * @returns the weakest letter first; letters that hang on nothing are left out
 */
export function loadsOn(
  frame: Frame,
  { solids, letters, holds }: Pick<Loaded, "solids" | "letters" | "holds">,
  supports: readonly Box[],
  { strength }: { strength: number },
  onPush: (bent: Bent) => void = () => {},
): LetterLoad[] {
  const middle = middleOf(supports);
  const loads = letters.flatMap(({ id, solids: own }): LetterLoad[] => {
    const held = own.filter((i) => !holds[i]!.falls);
    const at = farthest(
      held.flatMap((i) => solids[i]!.region),
      middle,
    );
    if (!at || !frame.hangs(at)) return [];
    return DIRECTIONS.flatMap(({ direction, force }): LetterLoad[] => {
      const bent = frame.bend({ ...at, force, grip: frame.underFinger(at) });
      onPush(bent);
      const { worst } = bent;
      return worst.stress > 0 ? [{ id, takes: strength / worst.stress, direction, at, breaks: worst }] : [];
    })
      .sort((a, b) => a.takes - b.takes)
      .slice(0, 1);
  });
  return loads.sort((a, b) => a.takes - b.takes);
}

/** Of one newton each. */
export const DIRECTIONS: readonly { direction: LetterLoad["direction"]; force: Push["force"] }[] = [
  { direction: "sideways", force: [1, 0, 0] },
  { direction: "up and down", force: [0, 1, 0] },
  { direction: "out of the sheet", force: [0, 0, 1] },
];

/** @param except boxes whose places do not count */
function farthest(rings: readonly Float64Array[], { x, y }: Point, except: readonly Box[] = []): Point | null {
  let [best, far]: [Point | null, number] = [null, -1];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const away = Math.hypot(ring[i]! - x, ring[i + 1]! - y);
      if (away > far && !except.some((box) => boxDistance(box, boxOfPoint({ x: ring[i]!, y: ring[i + 1]! })) === 0))
        [best, far] = [{ x: ring[i]!, y: ring[i + 1]! }, away];
    }
  }
  return best;
}
