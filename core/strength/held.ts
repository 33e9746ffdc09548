/**
 * How a piece is held in use.
 */
import { type Box, type Point, type Region, regionBox } from "../geometry";
import { HELD_BY, type HeldBy, type Piece } from "../piece";
import type { Support } from "./frame";

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

/** Of a stick or a spike, so much is in the cake or the soil. (Common practice, no published source.) */
const BURIED = 2 / 3;
/** Of a bar that stands or is glued on, so much is held. */
const STANDING = 1 / 3;

/** A piece as far as how it is held goes. */
type Holding = Pick<Piece, "parts" | "hand">;

/** A ring bears on so much of a loop's rim to either side, in widths of the rim. */
const RIM = 0.3;

export interface Held {
  by: HeldBy;
  places: Support[];
  /** All that it could be held by. */
  possible: HeldBy[];
}

/** Where a piece is held in use: as the maker says, else at its sticks and spikes, its loops, else at what holds the letters. */
export function heldBy({ parts, hand }: Holding, loaded: Pick<Loaded, "solids" | "standIn">): Held {
  const places = placesOf(parts, loaded);
  const possible = HELD_BY.filter((by) => places[by].length > 0);
  const by = possible.find((by) => by === hand?.held) ?? possible[0] ?? "letters";
  return { by, places: places[by], possible };
}

/** The places alone. */
export const heldAt = (piece: Holding, loaded: Pick<Loaded, "solids" | "standIn">): Support[] => heldBy(piece, loaded).places;

function placesOf(parts: Piece["parts"], { solids, standIn }: Pick<Loaded, "solids" | "standIn">): Record<HeldBy, Support[]> {
  const within = (region: Region, some: (box: Box) => Box): Support[] => {
    const box = regionBox(region);
    return box ? [{ ...some(box), of: region }] : [];
  };
  const ofKind = <Kind extends Piece["parts"][number]["kind"]>(
    kind: Kind,
    some: (box: Box, part: Extract<Piece["parts"][number], { kind: Kind }>) => Box,
  ): Support[] =>
    parts.flatMap((part) => {
      if (part.kind !== kind) return [];
      const region = solids.find(({ id }) => id === part.id)?.region ?? [];
      return within(region, (box) => some(box, part as Extract<Piece["parts"][number], { kind: Kind }>));
    });
  const whole = (box: Box) => box;
  const lowest = (share: number) => (box: Box) => ({ ...box, maxY: box.minY + share * (box.maxY - box.minY) });
  return {
    stick: ofKind("stick", lowest(BURIED)),
    // A flat stake has its point on the left.
    stake: ofKind("stake", (box, { point }) => ({ ...box, maxX: box.minX + BURIED * point })),
    loop: ofKind("loop", whole),
    bar: ofKind("bar", lowest(STANDING)),
    backing: ofKind("backing", lowest(STANDING)),
    holder: solids.flatMap(({ holder, region }) => (holder ? within(region, lowest(STANDING)) : [])),
    letters: standIn >= 0 ? within(solids[standIn]!.region, whole) : [],
  };
}

/** Where a ring through a loop's hole bears: the rim on the far side of what hangs there. */
export function rimsOf({ parts }: Holding, { solids }: Pick<Loaded, "solids">, centre: Point): Support[] {
  return parts.flatMap((part): Support[] => {
    const region = part.kind === "loop" ? solids.find(({ id }) => id === part.id)?.region : undefined;
    const box = region && regionBox(region);
    if (!region || !box || part.kind !== "loop") return [];
    const at = middleOf([box]);
    const away = Math.hypot(at.x - centre.x, at.y - centre.y) || 1;
    const [wall, along] = [(part.outer - part.hole) / 2, (part.outer + part.hole) / 4 / away];
    const [x, y] = [at.x + along * (at.x - centre.x), at.y + along * (at.y - centre.y)];
    const side = RIM * wall;
    return [{ minX: x - side, maxX: x + side, minY: y - side, maxY: y + side, of: region }];
  });
}

export function middleOf(boxes: readonly Box[]): Point {
  const middle = { x: 0, y: 0 };
  for (const { minX, maxX, minY, maxY } of boxes) {
    middle.x += (minX + maxX) / 2 / boxes.length;
    middle.y += (minY + maxY) / 2 / boxes.length;
  }
  return middle;
}
