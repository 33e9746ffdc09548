import {
  type Coupon,
  figuresOf,
  type NewFigure,
  nothingRead,
  planCoupon,
  type Readings,
  type SurvivalCurve,
  withNewFigures,
} from "@mend-joint/core/coupon";
import { formatLength, hasGrain, type ShelfSheet } from "@mend-joint/core/piece";
import { ArrowLeft } from "lucide-react";
import { lazy, Suspense, useDeferredValue, useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { toast } from "sonner";
import { useBench } from "../state/bench";
import { dropCoupon, makeCoupon, saveCoupon, tryCoupon, useCoupons } from "../state/coupons";
import { saveSheet, useSheets, useStockShelf } from "../state/stocks";
import { CouponFindings } from "../stock/CouponFindings";
import { CouponReadings, withHole, withNeck } from "../stock/CouponReadings";
import { CouponStage } from "../stock/CouponStage";
import { Button, ButtonLink } from "../ui/Button";
import { ThreeColumns } from "../ui/ThreeColumns";
import { today } from "../ui/today";

const failed = (error: Error) => void toast.error(error.message);

const SurvivalChart = lazy(() => import("../stock/SurvivalChart"));

/** What the trial cutter went by, where it filled in all that was read. */
function truthOf(coupons: readonly Coupon[]): SurvivalCurve | null {
  const read = coupons.filter(({ read: on }) => on !== null);
  return read.every(({ readings }) => readings.trial !== null) ? (read[0]?.readings.trial ?? null) : null;
}

/** Test pieces of a sheet: made, cut, read off, and what they say about it. */
export function CouponScreen() {
  const { sheet: id } = useParams();
  const sheet = useSheets().find((each) => each.id === id);
  const fetched = useStockShelf((state) => state.fetched);
  if (!sheet)
    return (
      <p className="p-8 text-quiet">
        {fetched ? "There is no such sheet on your shelf." : "Looking for the sheet …"}{" "}
        <Link to="/stock" className="underline">
          Your sheets
        </Link>
      </p>
    );
  return <Coupons key={sheet.id} sheet={sheet} />;
}

function Coupons({ sheet }: { sheet: ShelfSheet }) {
  const { coupons, fault } = useCoupons(sheet.id);
  const [chosen, setChosen] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const coupon = coupons?.find((each) => each.id === chosen) ?? coupons?.at(-1) ?? null;
  // What was pressed shows at once, what follows from it a moment later.
  const settled = useDeferredValue(coupons);
  const figures = useMemo(() => figuresOf(settled ?? [], sheet.stock), [settled, sheet.stock]);
  const attempt = async (work: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      failed(error as Error);
    }
    setBusy(false);
  };
  const make = () => attempt(async () => setChosen((await makeCoupon(sheet.id)).id));
  const read = (readings: Readings) => coupon && void saveCoupon({ ...coupon, readings, read: today() }).catch(failed);
  const trial = async (before: Coupon) => {
    await tryCoupon(before);
    if (before.read === null) return;
    toast("The trial cutter's readings stand in place of those before.", {
      action: { label: "Put back", onClick: () => void saveCoupon(before).catch(failed) },
    });
  };
  const drop = (gone: Coupon) => {
    void dropCoupon(gone).then(
      () =>
        toast(`${gone.name} is gone, with what was read off it. Its piece is still on the rack.`, {
          action: { label: "Put back", onClick: () => void saveCoupon(gone).catch(failed) },
        }),
      failed,
    );
  };
  const take = (changed: readonly NewFigure[]) => {
    const before = sheet;
    const pieces = (coupons ?? []).filter(({ read: on }) => on !== null).length;
    const told = `measured by you on ${today()} with ${pieces === 1 ? "a test piece" : `${pieces} test pieces`}`;
    void saveSheet(withNewFigures(sheet, changed, told)).then(
      () =>
        toast(`${sheet.stock.name} has the new figures.`, {
          action: { label: "Undo", onClick: () => void saveSheet(before).catch(failed) },
        }),
      failed,
    );
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex flex-wrap items-center justify-between gap-3 border-b border-rule px-5 py-3">
        <div className="flex items-center gap-4">
          <Link
            to={`/stock/${encodeURIComponent(sheet.id)}`}
            aria-label="Back to your sheets"
            className="grid size-9 place-items-center rounded-full hover:bg-ink/8"
          >
            <ArrowLeft size={17} aria-hidden="true" />
          </Link>
          <div>
            <h1 className="font-display text-[20px] leading-tight font-semibold">Test pieces of {sheet.stock.name}</h1>
            <p className="text-[13px] text-quiet">
              Cut one from an offcut, treat it as your pieces get treated, and say what held.
            </p>
          </div>
        </div>
        <div className="flex flex-wrap gap-2">
          {coupon && (
            <>
              <Button disabled={busy} onClick={() => void attempt(() => trial(coupon))}>
                Let the trial cutter try it
              </Button>
              <ButtonLink to={`/bench/${coupon.piece}/cut`}>To the cutter</ButtonLink>
            </>
          )}
          <Button look={coupon ? "plain" : "strong"} disabled={busy || coupons === null} onClick={() => void make()}>
            {coupon ? "Make the next one" : "Make a test piece"}
          </Button>
        </div>
      </header>
      {coupon ? (
        <ThreeColumns
          left={{
            label: "Readings",
            className: "px-4 py-4 md:overflow-y-auto",
            children: (
              <>
                <CouponList coupons={coupons!} chosen={coupon} onChoose={setChosen} onDrop={drop} />
                <h2 className="mt-5 mb-3 font-display text-[17px] font-semibold">Read off</h2>
                <CouponReadings key={coupon.id} coupon={coupon} onChange={read} />
              </>
            ),
          }}
          middle={{
            className: "relative bg-film p-4",
            children: (
              <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto_auto] gap-2">
                <CouponStage
                  coupon={coupon}
                  onNeck={(row, number) => read(withNeck(coupon.readings, row, number))}
                  onHole={(number) => read(withHole(coupon.readings, number))}
                />
                <p className="text-center text-[13px] text-quiet">
                  Press a neck or a hole: once it held, twice it broke, three times not tried.
                  {hasGrain(sheet.stock) && " The grain runs along the long side."}
                </p>
                {figures.necks.length > 0 && (
                  <Suspense fallback={<div className="h-[220px]" />}>
                    <SurvivalChart figures={figures} grain={hasGrain(sheet.stock)} truth={truthOf(coupons!)} />
                  </Suspense>
                )}
              </div>
            ),
          }}
          right={{
            label: "What it says",
            className: "px-4 py-4 md:overflow-y-auto",
            children: <CouponFindings sheet={sheet} coupons={coupons!} figures={figures} onTake={take} />,
          }}
        />
      ) : (
        <Beginning sheet={sheet} waiting={coupons === null} fault={fault} />
      )}
    </div>
  );
}

function CouponList({
  coupons,
  chosen,
  onChoose,
  onDrop,
}: {
  coupons: readonly Coupon[];
  chosen: Coupon;
  onChoose(id: string): void;
  onDrop(coupon: Coupon): void;
}) {
  return (
    <nav aria-label="Test pieces">
      <ul>
        {coupons.map((each) => (
          <li key={each.id}>
            <button
              type="button"
              aria-pressed={each.id === chosen.id}
              onClick={() => onChoose(each.id)}
              className="w-full rounded-lg px-2 py-1.5 text-left hover:bg-ink/5 aria-pressed:bg-film"
            >
              <span className="block truncate text-[14px] font-medium">{each.name}</span>
              <span className="block text-[12px] text-quiet">
                {each.read === null
                  ? `made on ${each.made}, not read yet`
                  : `read on ${each.read}${each.readings.trial ? ", by the trial cutter" : ""}`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Button look="quiet" className="mt-1 h-8 px-2 text-[13px]" onClick={() => onDrop(chosen)}>
        Take {chosen.name.replace(/,.*/, "").replace("Test", "test")} away
      </Button>
    </nav>
  );
}

const nothing = () => {};

/** Before the first one: what it is for, and what will be asked. */
function Beginning({ sheet, waiting, fault }: { sheet: ShelfSheet; waiting: boolean; fault: string | null }) {
  const units = useBench((state) => state.units);
  if (fault)
    return (
      <p role="alert" className="p-8 text-falls">
        {fault}
      </p>
    );
  if (waiting) return <p className="p-8 text-quiet">Looking for test pieces …</p>;
  const example: Coupon = {
    id: "example",
    name: "Test piece",
    sheet: sheet.id,
    stock: sheet.stock,
    plan: planCoupon(sheet.stock),
    piece: "none",
    made: today(),
    read: null,
    readings: nothingRead(),
  };
  const steps = [
    [
      "Cut it",
      `144 by 100 mm, from any offcut${hasGrain(sheet.stock) ? ", the long side along the grain" : ""}; on the line, as it is drawn.`,
    ],
    [
      "Treat it",
      "Peel the film, wash it, turn it in your hand as a careless customer would. Some necks will break; they are there to.",
    ],
    ["Measure", "Snap the eight strips off, push them to one side and measure the gap. Pull the two arms with a luggage scale."],
    [
      "Say what held",
      "The width from which 95 of 100 necks hold is worked out, with how sure that is, and can be put on the sheet.",
    ],
  ] as const;
  return (
    <main className="overflow-y-auto px-8 py-8">
      <div className="mx-auto grid max-w-[1120px] items-center gap-10 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <div className="pointer-events-none order-last " inert>
          <CouponStage coupon={example} onNeck={nothing} onHole={nothing} />
        </div>
        <div>
          <p className="font-display text-[24px] leading-snug">
            {sheet.stock.name} is reckoned with joints of {formatLength(sheet.stock.leastWidth, units)},{" "}
            {sheet.sources.leastWidth ?? "from memory"}. A test piece gives you a figure of your own.
          </p>
          <ol className="mt-6 flex flex-col gap-4">
            {steps.map(([title, text], i) => (
              <li key={title} className="flex gap-4">
                <span className="figure grid size-8 shrink-0 place-items-center rounded-full border border-quiet/40 text-[14px]">
                  {i + 1}
                </span>
                <span>
                  <b className="font-medium">{title}.</b> <span className="text-quiet">{text}</span>
                </span>
              </li>
            ))}
          </ol>
        </div>
      </div>
    </main>
  );
}
