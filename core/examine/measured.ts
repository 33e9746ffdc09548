/**
 * Welding and measuring in one, since the one may have to be done again for the other.
 */
import { normalise, type Ring } from "../geometry";
import { MeasureError, measureWidths, type WidthField } from "../measure";
import { type Weld, type WeldPart, weld, weldAgain } from "../weld";

export interface Measured {
  welded: Weld;
  field: WidthField;
}

/**
 * Where parts share long sides, rounding in the weld can leave an outline that crosses itself by a hair: it is united once more,
 * and if that is not enough, welded on a coarser grid.
 *
 * @param stage runs and times a part of the work
 */
export function measureWelded(
  parts: readonly WeldPart[],
  stage: <T>(name: string, work: () => T) => T = (_, work) => work(),
): Measured {
  const ways = [
    () => weld(parts),
    () => weldAgain(weld(parts), parts),
    () => weld(parts.map(({ id, region }) => ({ id, region: normalise(region.map(coarser)) }))),
  ];
  let fault: unknown;
  for (const way of ways) {
    const welded = stage("weld", way);
    try {
      return { welded, field: stage("measure", () => measureWidths(welded.region, welded.owners)) };
    } catch (error) {
      if (!(error instanceof MeasureError)) throw error;
      fault = error;
    }
  }
  throw fault;
}

/** Points on a grid of 1 µm. */
const coarser = (ring: Ring): Ring => ring.map((value) => Math.round(value * 1000) / 1000);
