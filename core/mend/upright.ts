/**
 * A loop put where the piece hangs straight by it.
 */
import { examine, type Library } from "../examine";
import { regionBox } from "../geometry";
import type { Loop, Piece } from "../piece";

/** The loop's own weight moves the centre of mass a little: so many times it is put right. */
const ROUNDS = 8;
/** Degrees. */
const STRAIGHT = 0.05;

/** @returns the angle of the loop at which the centre of mass is straight below its hole; `null` where there is nothing to hang */
export function uprightAngle(piece: Piece, loopId: string, library: Library): number | null {
  const loop = piece.parts.find((part): part is Loop => part.kind === "loop" && part.id === loopId);
  if (!loop) return null;
  let best: { angle: number; turn: number } | null = null;
  // On the upper side, its place sideways follows from the angle.
  let { angle } = loop.angle > 0 && loop.angle < 180 ? loop : { angle: 90 };
  for (let round = 0; round < ROUNDS; round++) {
    const parts = piece.parts.map((part) => (part.id === loopId ? { ...loop, angle } : part));
    const { hangers, centre, solids } = examine({ ...piece, parts }, library, { notes: false });
    const hanger = hangers.find(({ id }) => id === loopId);
    if (!hanger || hanger.turn === null || !centre) return null;
    if (!best || Math.abs(hanger.turn) < Math.abs(best.turn)) best = { angle, turn: hanger.turn };
    if (Math.abs(hanger.turn) < STRAIGHT) break;
    const others = regionBox(solids.filter(({ id }) => id !== loopId).flatMap(({ region }) => region));
    if (!others) return null;
    const { minX, maxX } = others;
    const half = Math.max(1, (maxX - minX) / 2);
    const across = Math.min(1, Math.max(-1, (centre.x - (minX + maxX) / 2) / half));
    angle = Math.round((Math.atan2(1, across) * 180 * 1000) / Math.PI) / 1000;
  }
  return best && Math.round(best.angle * 100) / 100;
}
