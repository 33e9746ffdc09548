/**
 * How a piece hangs by its loop, stands on its sticks, and whether it keeps within its limit.
 */
import { type Box, boxesMeet, intersection, type Point, type Region, regionBox } from "../geometry";
import type { Finding } from "../judge";
import { poleOf } from "../measure";
import { formatLength, type Piece, type Units } from "../piece";
import type { Examination } from "./examine";
import type { Built } from "./solids";
import { remark } from "./words";

/** A loop, and how far the piece turns when it hangs by it, degrees, counter-clockwise; `null` without material. */
export interface Hanger {
  id: string;
  at: Point;
  turn: number | null;
}

/** Turned by less than this it hangs straight for the eye, degrees. */
const STRAIGHT = 1.5;

/**
 * A body hangs so that its centre of mass is straight below the place it hangs by (statics; equilibrium of a body on a pin).
 */
export function hangersOf({ hangers }: Built, { centre }: Pick<Examination, "centre">): Hanger[] {
  return hangers.map(({ id, at }) => {
    if (!centre) return { id, at, turn: null };
    const turn = (Math.atan2(-(centre.x - at.x), -(centre.y - at.y)) * 180) / Math.PI;
    return { id, at, turn };
  });
}

/** Notes on how a piece hangs, stands, and fits its limit; they do not turn the verdict. */
export function withBalance(piece: Piece, examination: Examination, units: Units = "mm"): Examination {
  const { box, centre, hangers, solids } = examination;
  const notes = [];
  for (const { id, at, turn } of hangers) {
    // One of several loops does not hang the piece alone; on a key ring nobody minds.
    if (piece.purpose === "key ring" || hangers.length > 1 || turn === null || Math.abs(turn) < STRAIGHT) continue;
    const side = turn > 0 ? "right" : "left";
    const message = `It will hang ${Math.abs(turn).toFixed(0)}° turned, its lower end to the ${side}: the centre of mass is not below the loop. Move the loop.`;
    notes.push(remark("hangs-askew", [id], at, "note", message));
  }
  const standing = solids.filter(({ label }) => label.kind === "stick");
  const sticks = standing.flatMap(({ region }) => regionBox(region) ?? []);
  if (sticks.length > 0 && centre && box) {
    const [left, right] = [Math.min(...sticks.map(({ minX }) => minX)), Math.max(...sticks.map(({ maxX }) => maxX))];
    const out = Math.max(left - centre.x, centre.x - right);
    if (out > LEANS * (box.maxX - box.minX)) {
      const message = `It will lean: the centre of mass is ${formatLength(out, units)} ${centre.x < left ? "left" : "right"} of the stick. Move the stick below it, or add a second one.`;
      notes.push(
        remark(
          "leans",
          standing.map(({ id }) => id),
          centre,
          "note",
          message,
        ),
      );
    }
  }
  notes.push(...thickSticks(piece, examination, units));
  return notes.length === 0 ? examination : { ...examination, findings: [...examination.findings, ...notes] };
}

/** A stick that is thicker than everything around its upper end looks wrong, and shows beside the stroke that it stands under. */
function thickSticks(piece: Piece, { solids }: Examination, units: Units): Finding[] {
  return piece.parts.flatMap((part): Finding[] => {
    if (part.kind !== "stick") return [];
    const own = regionBox(solids.find(({ id }) => id === part.id)?.region ?? []);
    if (!own) return [];
    const at = { x: (own.minX + own.maxX) / 2, y: own.maxY };
    const reach = NEIGHBOURHOOD * part.width;
    const around = boxRegion({ minX: at.x - reach, maxX: at.x + reach, minY: at.y - reach, maxY: at.y + reach });
    const met = solids.filter(({ id, region }) => id !== part.id && boxesMeet(regionBox(region), own));
    const stroke =
      poleOf(
        intersection(
          met.flatMap(({ region }) => region),
          around,
        ),
      )?.width ?? 0;
    if (stroke === 0 || stroke > part.width - 0.05) return [];
    const message = `The stick is ${formatLength(part.width, units)} wide, thicker than the strokes around it: ${formatLength(stroke, units)} at the most. Make it narrower, or put it below a wider place.`;
    return [remark("thick-stick", [part.id], at, "note", message)];
  });
}

/** How far around its end strokes are looked at, in widths of the stick. */
const NEIGHBOURHOOD = 1.5;

const boxRegion = ({ minX, minY, maxX, maxY }: Box): Region => [
  Float64Array.from([minX, minY, maxX, minY, maxX, maxY, minX, maxY]),
];

/** How far the centre of mass may be beside the sticks, as a share of the width: cake and soil hold a little. */
const LEANS = 0.03;
