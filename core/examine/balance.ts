/**
 * How a piece hangs by its loop, stands on its sticks, and whether it keeps within its limit.
 */
import { type Box, boxesMeet, intersection, type Region, regionBox } from "../geometry";
import type { Finding } from "../judge";
import type { Piece } from "../piece";
import { hangingTurn, overhang } from "../strength";
import type { Examination, Hanger } from "./examination";
import type { Memory } from "./memory";
import type { Built } from "./solids";
import { remark } from "./words";

/** Turned by less than this it hangs straight for the eye, degrees. */
const STRAIGHT = 1.5;

/** How a piece would hang by each of its loops. */
export function hangersOf({ hangers }: Built, { centre }: Pick<Examination, "centre">): Hanger[] {
  return hangers.map(({ id, at }) => ({ id, at, turn: centre ? hangingTurn(centre, at) : null }));
}

/** Notes on how a piece hangs, stands, and fits its limit; they do not turn the verdict. */
export function withBalance(piece: Piece, examination: Examination, memory: Memory): Examination {
  const { box, centre, hangers, solids } = examination;
  const notes: Finding[] = [];
  for (const { id, at, turn } of hangers) {
    // One of several loops does not hang the piece alone; on a key ring nobody minds.
    if (piece.purpose === "key ring" || hangers.length > 1 || turn === null || Math.abs(turn) < STRAIGHT) continue;
    notes.push(remark("hangs-askew", [id], at, "note", { turn }));
  }
  const standing = solids.filter(({ label }) => label.kind === "stick");
  const sticks = standing.flatMap(({ region }) => regionBox(region) ?? []);
  if (sticks.length > 0 && centre && box) {
    const out = overhang(centre, sticks);
    if (out > LEANS * (box.maxX - box.minX)) {
      const ids = standing.map(({ id }) => id);
      notes.push(remark("leans", ids, centre, "note", { out, side: centre.x < sticks[0]!.minX ? "left" : "right" }));
    }
  }
  notes.push(...thickSticks(piece, examination, memory));
  return notes.length === 0 ? examination : { ...examination, findings: [...examination.findings, ...notes] };
}

/** A stick that is thicker than everything around its upper end looks wrong, and shows beside the stroke that it stands under. */
function thickSticks(piece: Piece, { solids }: Examination, memory: Memory): Finding[] {
  return piece.parts.flatMap((part): Finding[] => {
    if (part.kind !== "stick") return [];
    const own = regionBox(solids.find(({ id }) => id === part.id)?.region ?? []);
    if (!own) return [];
    const at = { x: (own.minX + own.maxX) / 2, y: own.maxY };
    const half = NEIGHBOURHOOD * part.width;
    const around = boxRegion({ minX: at.x - half, maxX: at.x + half, minY: at.y - half, maxY: at.y + half });
    const met = solids.filter(({ id, region }) => id !== part.id && boxesMeet(regionBox(region), own));
    const stroke =
      memory.pole(
        intersection(
          met.flatMap(({ region }) => region),
          around,
        ),
      )?.width ?? 0;
    if (stroke === 0 || stroke > part.width - 0.05) return [];
    return [remark("thick-stick", [part.id], at, "note", { stick: part.width, stroke })];
  });
}

/** How far around its end strokes are looked at, in widths of the stick. */
const NEIGHBOURHOOD = 1.5;

const boxRegion = ({ minX, minY, maxX, maxY }: Box): Region => [
  Float64Array.from([minX, minY, maxX, minY, maxX, maxY, minX, maxY]),
];

/** How far the centre of mass may be beside the sticks, as a share of the width: cake and soil hold a little. */
const LEANS = 0.03;
