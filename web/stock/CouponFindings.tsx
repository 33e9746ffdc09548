import { type Coupon, type CouponFigures, type NewFigure, newFigures } from "@mend-joint/core/coupon";
import { formatLength, formatNumber, hasGrain, type ShelfSheet } from "@mend-joint/core/piece";
import { holeSentence, kerfSentence, leastSentence, rowName, strengthSentence } from "@mend-joint/core/wording";
import { useBench } from "../state/bench";
import { Button } from "../ui/Button";

const NAMES: Record<NewFigure["key"], string> = {
  leastWidth: "Least joint width",
  kerf: "Width of the cut",
  hole: "Smallest hole",
  strength: "Bending strength",
  strengthAcross: "Strength across the grain",
};

interface Props {
  sheet: ShelfSheet;
  coupons: readonly Coupon[];
  figures: CouponFigures;
  onTake(figures: readonly NewFigure[]): void;
}

/** What all test pieces of a sheet say together, and what of it the sheet can take over. */
export function CouponFindings({ sheet, coupons, figures, onTake }: Props) {
  const units = useBench((state) => state.units);
  const grain = hasGrain(sheet.stock);
  const { kerf, least, hole, strength } = figures;
  const changed = newFigures(sheet, figures);
  const read = coupons.filter(({ read: on }) => on !== null).length;
  const written = (key: NewFigure["key"], value: number) =>
    key === "strength" || key === "strengthAcross" ? `${value} N/mm²` : formatLength(value, units, units === "mm" ? 2 : 3);
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-display text-[17px] font-semibold">
        {read > 1 ? `What ${read} test pieces say together` : "What it says"}
      </h2>
      <section aria-label="What was found" aria-live="polite" className="flex flex-col gap-2 text-[14px] leading-snug">
        <p data-testid="least-found">{leastSentence(least, units, grain)}</p>
        {least.kind === "found" && least.rows.length > 1 && (
          <table className="w-full text-[13px] text-quiet">
            <thead className="sr-only">
              <tr>
                <th>Necks</th>
                <th>95 of 100 hold from</th>
                <th>surely between</th>
              </tr>
            </thead>
            <tbody>
              {least.rows.map(({ row, at, from, to }) => (
                <tr key={row}>
                  <td className="py-0.5">{rowName(row, grain)}</td>
                  <td className="figure text-right text-ink">{formatLength(at, units, 2)}</td>
                  <td className="figure text-right text-[12px]">
                    {formatNumber(from, units, 1)}–{Number.isFinite(to) ? formatNumber(to, units, 1) : "?"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <p data-testid="kerf-found">{kerfSentence(kerf, units, sheet.stock.thickness)}</p>
        <p>{holeSentence(hole, units)}</p>
        <p>{strengthSentence(strength, grain)}</p>
      </section>
      <section aria-label="The sheet" className="border-t border-rule pt-4">
        {changed.length > 0 ? (
          <>
            <dl className="mb-3 flex flex-col gap-1 text-[13px]">
              {changed.map(({ key, from, to }) => (
                <div key={key} className="flex justify-between gap-3">
                  <dt className="text-quiet">{NAMES[key]}</dt>
                  <dd className="figure">
                    {from !== null && <span className="text-quiet">{written(key, from)} → </span>}
                    {written(key, to)}
                  </dd>
                </div>
              ))}
            </dl>
            <Button look="strong" className="w-full" onClick={() => onTake(changed)}>
              Put {changed.length === 1 ? "it" : "these"} on the sheet
            </Button>
            <p className="mt-2 text-[12px] leading-snug text-quiet">
              Pieces keep their figures until you let them take the new ones.
            </p>
          </>
        ) : (
          <p className="text-[13px] text-quiet">
            {read > 0 ? "The sheet has these figures." : "What is found here can be put on the sheet."}
          </p>
        )}
      </section>
    </div>
  );
}
