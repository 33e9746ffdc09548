/**
 * The best place for a stick: solid over its whole width, as near below the centre of mass as can be.
 */
import { examine, type Library } from "../examine";
import { type Region, regionContains } from "../geometry";
import { undersideAt } from "../holders";
import type { Piece, Stick } from "../piece";

/** mm */
const STEP = 0.5;
/** Places across the stick at which there must be material. */
const ACROSS = [-0.5, -0.25, 0, 0.25, 0.5];
/** Fewer solid places than this are no place for a stick. */
const ENOUGH = 3;
/** The underside may rise by so much of the bite over the stick's width. */
const LEVEL = 0.8;

/** Only what lies so low counts as an underside, as a share of the height: a stick does not reach up between two letters. */
const LOW = 0.2;

/** @returns shift from the middle of the lettering, mm; `null` where no place is solid enough */
export function stickPlace(piece: Piece, stickId: string, library: Library): number | null {
  const stick = piece.parts.find((part): part is Stick => part.kind === "stick" && part.id === stickId);
  if (!stick) return null;
  const { material, centre, box, words } = examine({ ...piece, parts: piece.parts.filter(({ id }) => id !== stickId) }, library, {
    notes: false,
  });
  if (!centre || !box) return null;
  const boxes = words.flatMap((word) => word.box ?? []);
  const [left, right] = [Math.min(...boxes.map(({ minX }) => minX)), Math.max(...boxes.map(({ maxX }) => maxX))];
  const middle = boxes.length > 0 ? (left + right) / 2 : (box.minX + box.maxX) / 2;
  const lowest = box.minY + LOW * (box.maxY - box.minY);
  let best: { x: number; solid: number } | null = null;
  for (let away = 0; away <= box.maxX - box.minX; away += STEP) {
    for (const x of [centre.x - away, centre.x + away]) {
      const solid = solidAt(material, x, stick, lowest);
      if (solid > (best?.solid ?? ENOUGH - 1)) best = { x, solid };
    }
    // Nothing farther away can be better than solid all across.
    if (best?.solid === ACROSS.length) break;
  }
  return best && Math.round((best.x - middle) * 100) / 100;
}

/** At how many places across the stick there is material over its whole bite: no counter under it, no corner in the open. */
function solidAt(material: Region, x: number, { width, bite }: Stick, lowest: number): number {
  const middle = undersideAt([material], x);
  if (middle === null || middle > lowest) return 0;
  return ACROSS.filter((share) => {
    const here = x + share * width * 0.98;
    const underside = undersideAt([material], here);
    if (underside === null || underside - middle > LEVEL * bite) return false;
    return [0.5, 0.98].every((depth) => regionContains(material, here, Math.max(underside + 0.02, middle + depth * bite)));
  }).length;
}
