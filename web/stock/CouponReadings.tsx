import {
  type Coupon,
  gapFromKerf,
  NECKS,
  parseForce,
  type Readings,
  ROWS,
  type Row,
  readingsSchema,
} from "@mend-joint/core/coupon";
import { editableNumber, formatLength, hasGrain, parseLength } from "@mend-joint/core/piece";
import { capital, rowName } from "@mend-joint/core/wording";
import { useBench } from "../state/bench";
import { Pick } from "../ui/Pick";
import { ReadingField } from "./ReadingField";

interface Props {
  coupon: Coupon;
  onChange(readings: Readings): void;
}

/** What is read off by eye or with a tool. Single necks are pressed on the piece. */
export function CouponReadings({ coupon: { plan, stock, readings }, onChange }: Props) {
  const units = useBench((state) => state.units);
  // Whatever the maker changes is the maker's own reading.
  const set = (some: Partial<Readings>) => onChange({ ...readings, ...some, trial: null });
  /** What cannot be, in a sentence. */
  const wrong = <K extends keyof Readings>(key: K, value: Readings[K]): string | null => {
    const checked = readingsSchema.shape[key].safeParse(value);
    return checked.success ? null : `It ${checked.error.issues[0]!.message}.`;
  };
  const pullField = (direction: "along" | "across", place: string) => (
    <ReadingField
      label={`Arm at the ${place} edge broke at`}
      hint={`hooked and pulled away from the piece${hasGrain(stock) ? `, ${direction} the grain` : ""}`}
      value={readings.pulls[direction]}
      write={(force) => `${Number(force.toFixed(1))} N`}
      read={(text) => {
        const force = parseForce(text);
        return force === null ? null : (wrong("pulls", { ...readings.pulls, [direction]: force }) ?? force);
      }}
      example="12 N or 1.2 kg"
      onChange={(force) => set({ pulls: { ...readings.pulls, [direction]: force } })}
    />
  );
  return (
    <div className="flex flex-col gap-4">
      <ReadingField
        label="Gap beside the strips"
        hint={`snap the strips off, push all to one side, measure what is left; ${formatLength(gapFromKerf(stock.kerf), units, 1)} would be a cut of ${formatLength(stock.kerf, units, 2)}`}
        value={readings.gap}
        write={(mm) => `${editableNumber(mm, units)} ${units}`}
        read={(text) => {
          const mm = parseLength(text, units);
          return mm === null ? null : (wrong("gap", mm) ?? mm);
        }}
        example="12.4 mm"
        onChange={(gap) => set({ gap })}
      />
      {ROWS.map((row) => (
        <RowPick
          key={row}
          label={`${capital(rowName(row, hasGrain(stock)))}${hasGrain(stock) ? "" : row.endsWith("across") ? ", upper rows" : ", left rows"}: held from`}
          sizes={plan.necks}
          outcomes={readings.necks[row]}
          none="none held"
          onChange={(outcomes) => set({ necks: { ...readings.necks, [row]: outcomes } })}
        />
      ))}
      <RowPick
        label="Holes: clean from"
        sizes={plan.holes}
        outcomes={readings.holes}
        none="none came out clean"
        onChange={(holes) => set({ holes })}
      />
      {pullField("along", "lower")}
      {pullField("across", "right")}
    </div>
  );
}

const MIXED = "mixed";
const OPEN = "open";

/** The whole row in one go; what is otherwise is pressed on the piece. */
function RowPick({
  label,
  sizes,
  outcomes,
  none,
  onChange,
}: {
  label: string;
  sizes: readonly number[];
  outcomes: readonly (boolean | null)[];
  none: string;
  onChange(outcomes: (boolean | null)[]): void;
}) {
  const units = useBench((state) => state.units);
  const first = outcomes.indexOf(true);
  const from = first === -1 ? NECKS : first;
  const plain = outcomes.every((outcome, i) => outcome === i >= from);
  const value = outcomes.every((outcome) => outcome === null) ? OPEN : plain ? String(from) : MIXED;
  return (
    <Pick
      label={label}
      value={value}
      options={[
        { value: OPEN, text: "not tried" },
        ...sizes.map((mm, i) => ({ value: String(i), text: `${i + 1}, ${formatLength(mm, units, 2)}` })),
        { value: String(NECKS), text: none },
        ...(value === MIXED ? [{ value: MIXED, text: "as pressed on the piece" }] : []),
      ]}
      onChange={(next) => {
        if (next === MIXED) return;
        onChange(sizes.map((_, i) => (next === OPEN ? null : i >= Number(next))));
      }}
    />
  );
}

/** One press more: it held, it broke, not tried. */
export const nextOutcome = (outcome: boolean | null): boolean | null => (outcome === null ? true : outcome ? false : null);

export const withNeck = (readings: Readings, row: Row, number: number): Readings => ({
  ...readings,
  trial: null,
  necks: { ...readings.necks, [row]: readings.necks[row].map((each, i) => (i === number ? nextOutcome(each) : each)) },
});

export const withHole = (readings: Readings, number: number): Readings => ({
  ...readings,
  trial: null,
  holes: readings.holes.map((each, i) => (i === number ? nextOutcome(each) : each)),
});
