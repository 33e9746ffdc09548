import { Search } from "lucide-react";
import { useDeferredValue, useMemo, useState } from "react";
import { toast } from "sonner";
import { changeRun, type FollowedRun, shapeKey, takeDesign, useShapes } from "../state/runs";
import { Button } from "../ui/Button";
import { Toggle } from "../ui/Toggle";
import { VerdictMark } from "../ui/VerdictMark";
import { Progress } from "./Progress";
import { RowCard } from "./RowCard";
import { RowTable } from "./RowTable";
import { RunLetterings } from "./RunLetterings";
import { FILTERS, type Filter, ORDERS, type Order, shownRows } from "./rows";
import { SizeRuleField } from "./SizeRuleField";

/** Every name with its verdict; the one that is chosen beside it. */
export function RunNames({ followed, onSheets }: { followed: FollowedRun; onSheets(): void }) {
  const { run, tally, design, rows } = followed;
  const [filter, setFilter] = useState<Filter>("all");
  const [order, setOrder] = useState<Order>("worst");
  const [search, setSearch] = useState("");
  const [chosen, setChosen] = useState<number | null>(null);
  const { shapes, want } = useShapes(run.id);
  const sought = useDeferredValue(search);
  const shown = useMemo(() => shownRows(rows.values(), filter, order, sought), [rows, filter, order, sought]);
  const counts = useMemo(
    () => new Map(FILTERS.map(({ value, shows }) => [value, [...rows.values()].filter(shows).length])),
    [rows],
  );
  const sheet = design.stock;
  const row = (chosen === null ? undefined : rows.get(chosen)) ?? shown[0];
  return (
    <div className="flex min-h-0 min-w-0 flex-col overflow-y-auto md:grid md:grid-cols-[minmax(0,1fr)_300px] md:overflow-visible">
      <main className="grid h-[80dvh] min-w-0 shrink-0 grid-rows-[auto_minmax(0,1fr)] md:h-auto md:min-h-0">
        <div className="flex flex-col gap-2.5 px-5 pt-4 pb-2.5">
          <div className="flex flex-wrap items-start justify-between gap-4">
            <RunVerdict followed={followed} />
            <div className="flex items-center gap-3">
              {tally.due > 0 && (
                <div className="w-44">
                  <Progress tally={tally} paused={run.paused} />
                </div>
              )}
              <Button look="strong" disabled={tally.due > 0 || tally.holds === 0} onClick={onSheets}>
                To the sheets
              </Button>
            </div>
          </div>
          <div className="flex flex-wrap items-center gap-1.5">
            {FILTERS.map(({ value, text }) => {
              const count = counts.get(value) ?? 0;
              // Of picked pieces every one is its own.
              if (design.picked && value === "edited") return null;
              if (count === 0 && value !== "all" && value !== filter) return null;
              return (
                <button
                  key={value}
                  type="button"
                  aria-pressed={filter === value}
                  onClick={() => setFilter(value)}
                  className="rounded-full border border-quiet/40 px-3 py-1 text-[13px] hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-film"
                >
                  {text} <span className="figure text-[12px] opacity-80">{count.toLocaleString("en")}</span>
                </button>
              );
            })}
            <span className="flex-1" />
            <label className="flex items-center gap-1.5 border-b border-quiet/50 text-quiet focus-within:border-ink">
              <Search size={14} aria-hidden="true" />
              <span className="sr-only">Find a name or a note</span>
              <input
                value={search}
                placeholder="find"
                onChange={(event) => setSearch(event.target.value)}
                className="w-24 bg-transparent py-1 text-[13px] text-ink outline-none"
              />
            </label>
            <select
              aria-label="Order"
              value={order}
              onChange={(event) => setOrder(event.target.value as Order)}
              className="border-b border-quiet/50 bg-transparent py-1 text-[13px]"
            >
              {ORDERS.map(({ value, text }) => (
                <option key={value} value={value}>
                  {text}
                </option>
              ))}
            </select>
          </div>
        </div>
        {shown.length === 0 ? (
          <p className="px-5 text-quiet">No name is {filter === "all" ? "like that" : filter}.</p>
        ) : (
          <RowTable
            rows={shown}
            picked={design.picked}
            chosen={row?.number ?? null}
            sheet={sheet}
            shapes={shapes}
            want={want}
            onChoose={setChosen}
          />
        )}
      </main>
      <aside
        aria-label="The name in sight"
        className="shrink-0 border-t border-rule md:min-h-0 md:overflow-y-auto md:border-t-0 md:border-l"
      >
        {row && (
          <RowCard
            picked={design.picked}
            onChange={() => setChosen(row.number)}
            run={run.id}
            row={row}
            lines={Math.max(1, design.lines)}
            shape={shapes.get(shapeKey(row))}
            sheet={sheet}
          />
        )}
        <RunChoices followed={followed} />
      </aside>
    </div>
  );
}

/** "37 of 40 hold, 9 of them mended. 3 would fall apart." */
function RunVerdict({ followed: { tally } }: { followed: FollowedRun }) {
  const { rows, due, holds, weak, falls, notMade, mended } = tally;
  const verdict = falls > 0 || notMade > 0 ? "falls" : weak > 0 ? "weak" : "holds";
  const says = [
    ...(falls > 0 ? [`${falls} ${falls === 1 ? "falls" : "fall"} apart`] : []),
    ...(weak > 0 ? [`${weak} ${weak === 1 ? "is" : "are"} weak`] : []),
    ...(notMade > 0 ? [`${notMade} cannot be made`] : []),
  ];
  const examined = rows - due;
  return (
    <div className="flex min-w-0 items-start gap-3" data-testid="run-verdict">
      {examined > 0 && <VerdictMark verdict={verdict} size={26} />}
      <div>
        <p className="font-display text-[21px] leading-tight font-semibold">
          {examined === 0
            ? "The names are being examined …"
            : due === 0 && holds === rows
              ? `All ${rows.toLocaleString("en")} hold.`
              : `${holds.toLocaleString("en")} of ${(due > 0 ? examined : rows).toLocaleString("en")} hold.`}{" "}
          {says.length > 0 && `${says.join(", ")}.`}
        </p>
        <p className="text-[13px] text-quiet">
          {mended > 0
            ? `${mended} ${mended === 1 ? "was" : "were"} mended to hold.`
            : due > 0
              ? "The worst come first."
              : "None had to be mended."}
        </p>
      </div>
    </div>
  );
}

/** What goes for all rows: the design, the size, mending. */
function RunChoices({ followed: { run, design } }: { followed: FollowedRun }) {
  if (design.picked) return null;
  const attempt = (work: Promise<unknown>) => void work.catch((error: Error) => toast.error(error.message));
  return (
    <section aria-label="All names" className="flex flex-col gap-4 border-t border-rule px-5 py-4">
      <h2 className="font-display text-[17px] font-semibold">All names</h2>
      <RunLetterings run={run} />
      <SizeRuleField size={run.choices.size} onChange={(size) => attempt(changeRun(run.id, { size }))} />
      <Toggle
        label="Mend what falls or is weak"
        on={run.choices.mend}
        onChange={(mend) => attempt(changeRun(run.id, { mend }))}
      />
      {design.piece && (
        <div className="text-[13px] text-quiet">
          {design.gone ? (
            `The design “${design.name}” is no longer on the rack. The run keeps its own copy.`
          ) : design.changed ? (
            <>
              <p className="text-weak">“{design.name}” has changed on the bench since.</p>
              <Button className="mt-2" onClick={() => attempt(takeDesign(run.id, { piece: design.piece! }))}>
                Examine the names with it
              </Button>
            </>
          ) : (
            `Made of “${design.name}” as it is on the rack.`
          )}
        </div>
      )}
    </section>
  );
}
