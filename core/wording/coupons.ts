/**
 * What test pieces say about their sheet.
 */
import type { CouponFigures, LeastWidth, Measured, Row } from "../coupon";
import { formatLength, type Units } from "../piece";
import { capital, countWord } from "./names";

const ROW_NAMES: Record<Row, string> = {
  "long across": "long arms across",
  "short across": "short arms across",
  "long along": "long arms along",
  "short along": "short arms along",
};

/** @param grain false where both directions are alike */
export const rowName = (row: Row, grain: boolean): string =>
  grain ? ROW_NAMES[row] : row.startsWith("long") ? "long arms" : "short arms";

const lengths =
  (units: Units) =>
  (mm: number, digits = 2) =>
    formatLength(mm, units, units === "mm" ? digits : digits + 1);

export function kerfSentence(kerf: Measured | null, units: Units, thickness: number): string {
  const mm = lengths(units);
  if (!kerf) return "The gap beside the strips has not been read.";
  if (kerf.mean < 0.01)
    return "The cut takes nothing: the machine, or its program, makes up for it. Draw its cut outside the line, and keep the sheet's figure.";
  if (kerf.mean > thickness) return `A cut of ${mm(kerf.mean)} would be wider than the sheet is thick. Read the gap again.`;
  const spread = kerf.spread === null ? "from one reading" : `from ${countWord(kerf.count)} readings, ± ${mm(kerf.spread)}`;
  return `The cut is ${mm(kerf.mean)} wide, ${spread}.`;
}

export function leastSentence(least: LeastWidth, units: Units, grain: boolean): string {
  const mm = lengths(units);
  switch (least.kind) {
    case "nothing":
      return "No neck has been tried yet.";
    case "too few":
      return `${capital(countWord(least.count))} ${least.count === 1 ? "neck tells" : "necks tell"} nothing sure; ${least.wanted} are the least.`;
    case "all held":
      return `All necks held, down to ${mm(least.narrowest)}: it stays open where they break. Cut the next test piece, with narrower ones.`;
    case "all broke":
      return `All necks broke, up to ${mm(least.widest)}: it stays open where they hold. Cut the next test piece, with wider ones.`;
    case "contradictory":
      return "Wide necks broke as often as narrow ones. Look through what you put in; if it is right, cut another test piece.";
    case "found": {
      const [worst] = least.rows;
      const range = Number.isFinite(worst!.to)
        ? `between ${mm(worst!.from, 1)} and ${mm(worst!.to, 1)}`
        : `${mm(worst!.from, 1)} or more`;
      const found = `95 of 100 necks hold from ${mm(worst!.at)} on, as wide as they are after the cut (${rowName(worst!.row, grain)}, ${range}).`;
      return least.sure ? found : `${found} That is not sure yet: cut the next test piece, whose necks lie where it is open.`;
    }
  }
}

export function holeSentence(hole: CouponFigures["hole"], units: Units): string {
  if (!hole) return "No hole has come out clean yet.";
  const clean = `Holes come out clean from ${formatLength(hole.diameter, units, 2)} on.`;
  return hole.contradictory ? `${clean} A smaller one did too, but not the ones between.` : clean;
}

export function strengthSentence({ along, across }: CouponFigures["strength"], grain: boolean): string {
  const told = (measured: Measured) =>
    `${measured.mean.toFixed(0)} N/mm²${measured.spread === null ? "" : ` ± ${measured.spread.toFixed(0)}`}`;
  if (!along && !across) return "No arm has been pulled yet.";
  const arms = [along && `${told(along)} along`, across && `${told(across)} across`].filter((each) => each !== null);
  return `An arm broke at ${arms.join(", ")}${grain ? " the grain" : ""}.`;
}
