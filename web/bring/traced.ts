/**
 * What a drawing remembers of how it was traced: its picture, kept smaller on the server, and what was chosen.
 */
import type { Point } from "@mend-joint/core/geometry";
import type { Tracing } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { keepPicture } from "../state/api";
import { keptShare, smallerPicture } from "./picture";
import type { Opened, TraceChoices } from "./useFound";

export const choicesOf = ({ threshold, speck, hole, detail, turn }: Tracing): TraceChoices => ({
  threshold: threshold ?? null,
  speck,
  hole,
  detail,
  turn,
});

/** @param kept id of the picture where it is kept already, as it is then read again; else it will be kept smaller */
export function tracingOf(
  { threshold, ...choices }: TraceChoices,
  { picture, pixel }: Opened,
  background: Point | null,
  kept?: string,
): Tracing {
  const share = kept === undefined ? keptShare(picture) : 1;
  return {
    picture: kept ?? crypto.randomUUID(),
    pixel: pixel * share,
    ...choices,
    ...(threshold !== null && { threshold }),
    ...(background && { background: { x: Math.max(0, background.x / share), y: Math.max(0, background.y / share) } }),
  };
}

/** Keeps the picture, smaller; the drawing lies on the piece already and can do without. */
export async function keepTraced(file: File, { picture }: Tracing): Promise<void> {
  try {
    await keepPicture(picture, await smallerPicture(file));
  } catch (error) {
    toast.error(
      `The outline is on your piece; its picture could not be kept, to be traced again later. ${(error as Error).message}`,
    );
  }
}
