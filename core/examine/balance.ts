/**
 * How a piece hangs by its loop, stands on its sticks, and whether it keeps within its limit.
 */
import { type Point, regionBox } from "../geometry";
import { formatLength, type Piece, type Units } from "../piece";
import type { Examination } from "./index";
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
  if (piece.limit && box) {
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
    if (width > piece.limit.width + 0.01 || height > piece.limit.height + 0.01) {
      const size = (w: number, h: number) => `${formatLength(w, units)} × ${formatLength(h, units)}`;
      const message = `It is ${size(width, height)}, larger than the ${size(piece.limit.width, piece.limit.height)} it may be. Make the words smaller, or the limit larger.`;
      notes.push(remark("too-large", [], { x: box.maxX, y: box.maxY }, "note", message));
    }
  }
  return notes.length === 0 ? examination : { ...examination, findings: [...examination.findings, ...notes] };
}

/** How far the centre of mass may be beside the sticks, as a share of the width: cake and soil hold a little. */
const LEANS = 0.03;
