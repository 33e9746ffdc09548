/** A drawing as a part, for tests: a ring 80 across with a hole of 40. */
import type { DrawingPart } from "../piece";
import { partSchema } from "../piece";

export const RING_DATA = "M40 0A40 40 0 1 1 -40 0A40 40 0 1 1 40 0ZM20 0A20 20 0 1 0 -20 0A20 20 0 1 0 20 0Z";

export function scaledPart(change: Partial<DrawingPart> = {}): DrawingPart {
  const drawn = { kind: "drawing", id: "drawing", name: "capstan", outline: RING_DATA, height: 80, at: { x: 0, y: 0 } };
  // Faults are for the piece to find.
  return { ...(partSchema.parse(drawn) as DrawingPart), ...change };
}
