/**
 * Welding and measuring in one, since the one may have to be done again for the other.
 */
import { coarser, normalise } from "../geometry";
import { MeasureError, measureWidths, type WidthField } from "../measure";
import { type Weld, type WeldPart, weld, weldAgain, weldShorn } from "../weld";

export interface Measured {
  welded: Weld;
  field: WidthField;
}

/** Widths of hairs that are shorn off in the end, mm. */
const HAIRS = [0.004, 0.012, 0.03, 0.1, 0.25];

/**
 * Where parts share long sides, rounding in the weld can leave an outline that crosses itself by a hair: it is united once more,
 * and if that is not enough, welded on a coarser grid, or shorn of its hairs.
 *
 * @param stage runs and times a part of the work
 */
export function measureWelded(
  parts: readonly WeldPart[],
  stage: <T>(name: string, work: () => T) => T = (_, work) => work(),
): Measured {
  const ways: ((last: Weld | undefined) => Weld)[] = [
    () => weld(parts),
    (last) => weldAgain(last!, parts),
    () => weld(parts.map(({ id, region }) => ({ id, region: normalise(coarser(region)) }))),
    ...HAIRS.map((hair) => (last: Weld | undefined) => weldShorn(last!, parts, hair)),
  ];
  let [welded, fault]: [Weld | undefined, unknown] = [undefined, undefined];
  for (const way of ways) {
    const made: Weld = stage("weld", () => way(welded));
    welded = made;
    try {
      return { welded: made, field: stage("measure", () => measureWidths(made.region, made.owners)) };
    } catch (error) {
      if (!(error instanceof MeasureError)) throw error;
      fault = error;
    }
  }
  throw fault;
}
