/**
 * Welding and measuring in one, since the one may have to be done again for the other.
 */
import { OutlineError } from "../errors";
import { grownByHair, normalise, snapToGrid } from "../geometry";
import { tryMeasure, type WidthField } from "../measure";
import { type Weld, type WeldBase, type WeldPart, weld, weldAgain, weldChange } from "../weld";

export interface Measured {
  welded: Weld;
  field: WidthField;
}

/** What was measured as a whole, for what comes after it. */
export interface MeasuredBase extends WeldBase {
  field: WidthField;
}

/** Runs and times a part of the work. */
export type Stage = <T>(name: string, work: () => T) => T;

/**
 * Where parts share long sides, rounding in the weld can leave an outline that crosses itself by a hair: it is united once more,
 * and if that is not enough, welded on a grid of 1 µm. Nothing else is done to it: what was apart stays apart. Only where outlines lie on
 * each other to within less than the grid, and the union tells them neither apart nor together, are they grown by 0.2 µm.
 */
export function measureWelded(parts: readonly WeldPart[], stage: Stage = (_, work) => work()): Measured {
  const attempts: ((last: Weld | undefined) => Weld)[] = [
    () => weld(parts),
    (last) => weldAgain(last!, parts),
    () => weld(parts.map(({ id, region }) => ({ id, region: normalise(snapToGrid(region)) }))),
    () => weld(parts.map(({ id, region }) => ({ id, region: grownByHair(region) }))),
  ];
  let welded: Weld | undefined;
  for (const attempt of attempts) {
    const made: Weld = stage("weld", () => attempt(welded));
    welded = made;
    const field = stage("measure", () => tryWidths(made));
    if (field) return { welded: made, field };
  }
  throw new OutlineError();
}

/**
 * The same where little has changed since parts were measured before.
 *
 * @returns `null` where too much has, or where the change cannot be measured by itself
 */
export function measureChange(base: MeasuredBase, parts: readonly WeldPart[], stage: Stage): Measured | null {
  const welded = stage("weld", () => weldChange(base, parts));
  if (!welded) return null;
  const field = stage("measure", () => tryWidths(welded, base.field));
  if (field) return { welded, field };
  const again = stage("weld", () => weldAgain(welded, parts));
  const second = stage("measure", () => tryWidths(again, base.field));
  return second && { welded: again, field: second };
}

const tryWidths = ({ region, owners }: Weld, base?: WidthField) => tryMeasure(region, owners, { base });
