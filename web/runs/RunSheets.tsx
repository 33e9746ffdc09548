import { LINE_PURPOSES, PROFILES, tabsOf } from "@mend-joint/core/cut";
import { REACH, regionArea } from "@mend-joint/core/geometry";
import { formatLength, formatNumber, type ShelfSheet, type Units } from "@mend-joint/core/piece";
import {
  costOf,
  isLaid,
  keptSheetChoices,
  type Laying,
  type Layout,
  type Offcut,
  outlineOf,
  type RunRow,
  type SheetChoices,
  type SheetCost,
} from "@mend-joint/core/runs";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import { duration } from "../cut/duration";
import { PURPOSES } from "../cut/PurposeRow";
import { TabFields } from "../cut/TabFields";
import { sendToCutter } from "../state/api";
import { useBench } from "../state/bench";
import { fetchProfiles, profileOf, useCutting } from "../state/cutting";
import { keepLeftover, listOffcuts } from "../state/offcuts";
import { changeRun, type FollowedRun, fetchFile, laySheets, type RunChange, stopLaying, useShapes } from "../state/runs";
import { useSheets } from "../state/stocks";
import { Button } from "../ui/Button";
import { Choices } from "../ui/Choice";
import { download } from "../ui/download";
import { LengthField } from "../ui/LengthField";
import { Pick } from "../ui/Pick";
import { ThreeColumns } from "../ui/ThreeColumns";
import { Toggle } from "../ui/Toggle";
import { Offcuts } from "./Offcuts";
import { kindOf, nameOf } from "./rows";
import { SheetStage } from "./SheetStage";

/** Orders are searched so long at first, and when the maker asks for more, s. */
const FIRST = 3;
const MORE = 20;

export function RunSheets({ followed, onTrial }: { followed: FollowedRun; onTrial(): void }) {
  const { run, tally, design, rows } = followed;
  const { layout, laying, choices } = run;
  const [chosen, setChosen] = useState(0);
  const [offcuts, setOffcuts] = useState<Offcut[]>([]);
  const { shapes, want } = useShapes(run.id);
  useEffect(() => {
    fetchProfiles().catch((error: Error) => toast(error.message));
    listOffcuts().then(setOffcuts, (error: Error) => toast(error.message));
  }, []);
  const change = (some: RunChange) => void changeRun(run.id, some).catch((error: Error) => toast.error(error.message));
  const keep = (sheet: number) =>
    void keepLeftover(run.id, sheet).then(
      (offcut) => {
        setOffcuts((before) => [...before.filter(({ id }) => id !== offcut.id), offcut]);
        toast(`What is left of sheet ${sheet + 1} is among the offcuts of ${design.stock.name}.`);
      },
      (error: Error) => toast.error(error.message),
    );
  const shelved = useSheets().find(({ id }) => id === design.stock.id);
  const laid = useMemo(() => rowsOn(layout, rows), [layout, rows]);
  useEffect(() => want(laid), [laid, want]);
  const stale = layout ? staleness(layout, choices.sheet, rows, design.stock.id) : null;
  const lay = (keep: boolean, seconds: number) =>
    void laySheets(run.id, keep, seconds).catch((error: Error) => toast.error(error.message));
  return (
    <ThreeColumns
      left={{
        label: "The sheets",
        className: "flex flex-col gap-3.5 px-5 py-4 md:overflow-y-auto",
        children: (
          <>
            <h2 className="font-display text-[17px] font-semibold">The sheet</h2>
            <SheetFields choices={choices.sheet} shelved={shelved} onChange={(sheet) => change({ sheet })} />
            <Offcuts
              stock={design.stock}
              choices={choices.sheet}
              kept={offcuts}
              onKept={setOffcuts}
              onFill={(offcut) => change({ offcut: { take: offcut } })}
              onLeave={(id) => change({ offcut: { leave: id } })}
            />
            <div className="-mx-5 mt-auto -mb-4 border-t border-rule bg-ground px-5 pt-3 pb-4 md:sticky md:-bottom-4">
              <LayButtons followed={followed} stale={stale} onLay={lay} />
            </div>
          </>
        ),
      }}
      middle={{
        className: "relative overflow-y-auto bg-film",
        children: layout ? (
          <SheetStage
            run={run.id}
            layout={layout}
            rows={rows}
            shapes={shapes}
            stock={design.stock}
            chosen={chosen}
            onChoose={setChosen}
          />
        ) : (
          <div className="grid h-full place-items-center px-8">
            <p className="max-w-[420px] text-center font-display text-[22px] text-quiet">
              {laying
                ? "Drawing the pieces …"
                : tally.due > 0
                  ? "The names are still being examined. They are laid when all are."
                  : tally.holds === 0
                    ? "No name holds yet, so there is nothing to lay."
                    : `${tally.holds} ${tally.holds === 1 ? "name holds" : "names hold"}. Lay them on sheets.`}
            </p>
          </div>
        ),
      }}
      right={{
        label: "Before it is cut",
        className: "flex flex-col gap-4 px-5 py-4 md:overflow-y-auto",
        children: (
          <>
            {layout && <SheetFacts followed={followed} layout={layout} chosen={chosen} onChoose={setChosen} onKeep={keep} />}
            <NotLaid followed={followed} />
            {layout && <TakeAlong followed={followed} layout={layout} chosen={chosen} stale={stale} onTrial={onTrial} />}
          </>
        ),
      }}
    />
  );
}

function rowsOn(layout: Layout | null, rows: ReadonlyMap<number, RunRow>): RunRow[] {
  const numbers = new Set(layout?.sheets.flatMap(({ pieces }) => pieces.map(({ row }) => row)));
  return [...numbers].flatMap((number) => rows.get(number) ?? []);
}

/** As text, with the choices in their own order: databases keep them in another. */
const inOrder = (choices: SheetChoices) => JSON.stringify(keptSheetChoices.parse(choices));

/** Why what is laid is no longer what would be cut, as a sentence; `null` where it is. */
function staleness(layout: Layout, sheet: SheetChoices, rows: ReadonlyMap<number, RunRow>, stock: string): string | null {
  if (inOrder({ ...layout.choices, numbers: sheet.numbers }) !== inOrder(sheet)) return "The sheet has changed.";
  const copies = new Map<number, number>();
  for (const { pieces } of layout.sheets) for (const { row } of pieces) copies.set(row, (copies.get(row) ?? 0) + 1);
  for (const number of layout.tooLarge) copies.set(number, rows.get(number)?.count ?? 0);
  const wanted = [...rows.values()].filter((row) => !row.due && !row.leftOut && row.facts && isLaid(row.facts, sheet, stock));
  const changed = wanted.filter(
    (row) => copies.get(row.number) !== row.count || (layout.made[row.number] ?? row.madeOf) !== row.madeOf,
  ).length;
  const gone = [...copies.keys()].filter((number) => !wanted.some((row) => row.number === number)).length;
  const all = changed + gone;
  return all === 0 ? null : `${all} ${all === 1 ? "name has" : "names have"} changed since.`;
}

const TURNS = [
  { value: "quarters", text: "by quarters" },
  { value: "halves", text: "only upside down, the grain stays" },
  { value: "any", text: "any way, by 15°" },
  { value: "none", text: "not at all" },
] as const;

interface FieldsProps {
  choices: SheetChoices;
  /** The sheet as it is on the shelf, when it is. */
  shelved: ShelfSheet | undefined;
  onChange(some: Partial<SheetChoices>): void;
}

function SheetFields({ choices, shelved, onChange: change }: FieldsProps) {
  const units = useBench((state) => state.units);
  const other =
    shelved && shelved.width <= REACH && (shelved.width !== choices.width || shelved.height !== choices.height) ? shelved : null;
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        <LengthField
          label="Width"
          value={choices.width}
          least={10}
          most={REACH}
          step={10}
          onChange={(width) => change({ width })}
        />
        <LengthField
          label="Height"
          value={choices.height}
          least={10}
          most={REACH}
          step={10}
          onChange={(height) => change({ height })}
        />
        <LengthField label="Between pieces" value={choices.gap} least={0} most={200} onChange={(gap) => change({ gap })} />
        <LengthField label="Empty edge" value={choices.margin} least={0} most={500} onChange={(margin) => change({ margin })} />
      </div>
      {other && (
        <Button
          look="quiet"
          className="-mx-3 h-8 self-start px-3 text-[13px]"
          onClick={() => change({ width: other.width, height: other.height })}
        >
          As on your shelf, {formatNumber(other.width, units, 0)} × {formatLength(other.height, units, 0)}
        </Button>
      )}
      <Pick label="Pieces may be turned" value={choices.turns} options={TURNS} onChange={(turns) => change({ turns })} />
      <Toggle
        label="They may lie back up"
        note="those with nothing engraved or scored"
        on={choices.mirror}
        onChange={(mirror) => change({ mirror })}
      />
      <Toggle
        label="Same note, same sheet"
        note="names of one order stay together"
        on={choices.together}
        onChange={(together) => change({ together })}
      />
      <Toggle
        label="A number beside each piece"
        note="scored, as on the cut list"
        on={choices.numbers}
        onChange={(numbers) => change({ numbers })}
      />
      <Toggle label="Lay weak ones too" note="what falls is never laid" on={choices.weak} onChange={(weak) => change({ weak })} />
    </>
  );
}

interface LayProps {
  followed: FollowedRun;
  stale: string | null;
  onLay(keep: boolean, seconds: number): void;
}

function layingSays({ state, done, of }: Laying): string {
  if (state === "finishing") return "Working out the times …";
  if (state === "laying") return "Looking for a better way to lay them …";
  return of ? `Drawing the pieces, ${done} of ${of} …` : "Drawing the pieces …";
}

function LayButtons({ followed: { run, tally }, stale, onLay }: LayProps) {
  const { layout, laying } = run;
  const pinned = layout?.sheets.some(({ pieces }) => pieces.some((piece) => piece.pinned)) ?? false;
  const ready = tally.due === 0 && tally.holds + (run.choices.sheet.weak ? tally.weak : 0) > 0;
  if (laying && laying.state !== "failed") {
    return (
      <div className="flex flex-col gap-2">
        <p role="status" className="text-[14px] text-quiet">
          {layingSays(laying)}
        </p>
        <Button
          disabled={laying.state === "finishing"}
          onClick={() => void stopLaying(run.id).catch((error: Error) => toast.error(error.message))}
        >
          {layout ? "It is good enough" : "Stop"}
        </Button>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-2">
      {laying?.fault && (
        <p role="alert" className="text-[14px] text-falls">
          {laying.fault}.
        </p>
      )}
      {stale && <p className="text-[14px] text-weak">{stale}</p>}
      <Button look={!layout || stale ? "strong" : "plain"} disabled={!ready} onClick={() => onLay(false, FIRST)}>
        {layout ? "Lay them again" : "Lay on sheets"}
      </Button>
      {pinned && (
        <Button disabled={!ready} onClick={() => onLay(true, FIRST)}>
          Lay the rest around what is pinned
        </Button>
      )}
      {layout && !stale && (
        <Button look="quiet" disabled={!ready} onClick={() => onLay(pinned, MORE)}>
          Look {MORE} s for a better way
        </Button>
      )}
    </div>
  );
}

/** How much of what there is of a sheet the pieces take. */
function filled({ area, offcut: id }: Layout["sheets"][number], { width, height, offcuts }: SheetChoices): string | null {
  if (area === undefined) return null;
  const offcut = offcuts.find((each) => each.id === id);
  const whole = offcut ? regionArea(outlineOf(offcut)) : width * height;
  return `${Math.round((100 * area) / whole)} %`;
}

interface FactsProps {
  followed: FollowedRun;
  layout: Layout;
  chosen: number;
  onChoose(sheet: number): void;
  /** Keeps what is left of a sheet. */
  onKeep(sheet: number): void;
}

function SheetFacts({ followed: { run, design }, layout: { sheets, choices, fewest }, chosen, onChoose, onKeep }: FactsProps) {
  const units = useBench((state) => state.units);
  const { tabs, without } = useCutting();
  const pieces = sheets.reduce((sum, sheet) => sum + sheet.pieces.length, 0);
  const seconds = sheets.reduce((sum, sheet) => sum + (sheet.seconds ?? Number.NaN), 0);
  const shelved = useSheets().find(({ id }) => id === design.stock.id);
  const cost = shelved && costOf({ sheets, choices }, shelved);
  const last = sheets.at(-1);
  const left = last ? choices.width - choices.margin - last.reach : 0;
  return (
    <section aria-label="Sheets">
      <h2 className="font-display text-[19px] leading-tight font-semibold" data-testid="sheet-verdict">
        {pieces} {pieces === 1 ? "piece" : "pieces"} on {sheets.length} {sheets.length === 1 ? "sheet" : "sheets"}
      </h2>
      <p className="text-[13px] text-quiet">
        {Number.isFinite(seconds) && (
          <>
            {duration(seconds)} in all, {duration(seconds / Math.max(1, pieces))} a piece
            {(tabs > 0 || without.length > 0) && ", with all lines and without tabs"}.{" "}
          </>
        )}
        {cost && costSays(cost)}
        {sheets.length > fewest && run.laying === null && `No way of laying them needs fewer than ${fewest}.`}
      </p>
      <p className="mt-2 flex justify-between px-2 text-[12px] text-quiet" aria-hidden="true">
        <span />
        <span className="figure grid grid-cols-[4ch_7ch_12ch] text-right">
          <span>pcs</span>
          <span>filled</span>
          <span>time</span>
        </span>
      </p>
      <ul>
        {sheets.map((sheet, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: sheets have no name but their number
          <li key={k}>
            <button
              type="button"
              aria-pressed={k === chosen}
              onClick={() => onChoose(k)}
              className="flex w-full items-baseline justify-between gap-2 rounded-lg px-2 py-1.5 text-left text-[14px] hover:bg-ink/5 aria-pressed:bg-film"
            >
              <span className="font-medium whitespace-nowrap">Sheet {k + 1}</span>
              <span className="figure grid grid-cols-[4ch_7ch_12ch] text-right text-[12px] text-quiet">
                <span>{sheet.pieces.length}</span>
                <span>{filled(sheet, choices) ?? "…"}</span>
                <span>{sheet.seconds === undefined ? "…" : duration(sheet.seconds)}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {left > 20 && !last?.offcut && <p className="mt-1 px-2 text-[13px] text-quiet">{leftover(left, choices, units)}</p>}
      {sheets.length > 0 && (
        <Button look="quiet" className="mt-1" onClick={() => onKeep(Math.min(chosen, sheets.length - 1))}>
          Keep what is left of sheet {Math.min(chosen, sheets.length - 1) + 1}
        </Button>
      )}
    </section>
  );
}

/** "37.80 for the sheets, 0.95 a piece. " */
function costSays({ sheets, price, each, short }: SheetCost): string {
  const money = price === null || each === null ? "" : `${price.toFixed(2)} for the sheets, ${each.toFixed(2)} a piece. `;
  const missing = short === 0 ? "" : `${sheets} sheets of your shelf are needed, ${short} more than are there. `;
  return money + missing;
}

const leftover = (left: number, { height }: SheetChoices, units: Units) =>
  `Of the last sheet ${formatNumber(left, units, 0)} × ${formatLength(height, units, 0)} are left.`;

/** What is on no sheet, and why. */
function NotLaid({ followed: { rows, run, design } }: { followed: FollowedRun }) {
  const { layout, choices } = run;
  const large = (layout?.tooLarge ?? []).flatMap((number) => rows.get(number) ?? []);
  const failing = [...rows.values()].filter((row) => {
    const kind = kindOf(row);
    return kind === "falls" || kind === "not made" || (kind === "weak" && !choices.sheet.weak);
  });
  const foreign = [...rows.values()].filter((row) => {
    const kind = kindOf(row);
    return (kind === "holds" || kind === "weak") && row.facts?.stock !== design.stock.id;
  });
  if (large.length + failing.length + foreign.length === 0) return null;
  const names = (some: readonly RunRow[]) =>
    `${some.slice(0, 5).map(nameOf).join(", ")}${some.length > 5 ? ` and ${some.length - 5} more` : ""}`;
  return (
    <section aria-label="Not laid" className="text-[13px]">
      {large.length > 0 && (
        <p role="alert" className="text-falls">
          Larger than the sheet with its empty edge: {names(large)}.
        </p>
      )}
      {foreign.length > 0 && (
        <p className="text-weak">
          Not laid, since {foreign.length === 1 ? "it is" : "they are"} no longer of {design.stock.name}: {names(foreign)}.
        </p>
      )}
      {failing.length > 0 && (
        <p className="text-weak">
          Not laid, since {failing.length === 1 ? "it does not hold" : "they do not hold"}: {names(failing)}.
        </p>
      )}
    </section>
  );
}

const FORMATS = [
  { value: "svg", text: "SVG" },
  { value: "dxf", text: "DXF" },
  { value: "pdf", text: "PDF" },
] as const;
type Format = (typeof FORMATS)[number]["value"];

interface TakeProps extends Omit<FactsProps, "onChoose" | "onKeep"> {
  stale: string | null;
  onTrial(): void;
}

function TakeAlong({ followed: { run, design }, layout, chosen, stale, onTrial }: TakeProps) {
  const units = useBench((state) => state.units);
  const cutting = useCutting();
  const profile = profileOf(cutting);
  const [format, setFormat] = useState<Format>("svg");
  const [busy, setBusy] = useState(false);
  const sheet = Math.min(chosen, layout.sheets.length - 1) + 1;
  const tabs = tabsOf(cutting.tabs, cutting.tabWidth);
  const { without } = cutting;
  const machine = new URLSearchParams({
    machine: profile.id,
    ...(tabs && { tabs: String(tabs.count), tabWidth: String(tabs.width) }),
    ...(without.length > 0 && { without: without.join() }),
  });
  const ready = !stale && layout.faults.length === 0 && layout.sheets.length > 0 && !busy;
  const { width, height } = layout.choices;
  const tooLarge = width > profile.bed.width || height > profile.bed.height;
  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    await work().catch((error: Error) => toast.error(error.message));
    setBusy(false);
  };
  const take = (path: string, name: string, type: string) =>
    attempt(async () => download(name, type, await fetchFile(run.id, path)));
  const send = () =>
    attempt(async () => {
      const bytes = await fetchFile(run.id, `/sheets/${sheet}.svg?${machine}`);
      const file = { name: `sheet-${sheet}.svg`, type: "image/svg+xml", bytes };
      await sendToCutter(`${run.name}, sheet ${sheet}`.slice(0, 80), file, profile, design.stock);
      onTrial();
    });
  const items = [
    {
      text: `Sheet ${sheet}`,
      note: format.toUpperCase(),
      act: () => take(`/sheets/${sheet}.${format}?${machine}`, `sheet-${sheet}.${format}`, ""),
    },
    {
      text: "All sheets and the cut list",
      note: "in one ZIP",
      act: () => take(`/sheets.zip?format=${format}&${machine}&units=${units}`, `${run.name}.zip`, "application/zip"),
    },
    {
      text: "Cut list",
      note: "PDF to print",
      act: () => take(`/cut-list.pdf?units=${units}`, "cut-list.pdf", "application/pdf"),
    },
    { text: "Cut list", note: "CSV", act: () => take(`/cut-list.csv?units=${units}`, "cut-list.csv", "text/csv") },
  ];
  return (
    <section aria-label="Take it along" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h2 className="font-display text-[17px] font-semibold">Take it along</h2>
      {layout.faults.length > 0 && (
        <p role="alert" className="text-[13px] text-falls">
          Pieces lie too near to each other, or beyond the empty edge. Move them apart, or lay them again.
        </p>
      )}
      {stale && <p className="text-[13px] text-weak">{stale} Lay them again first.</p>}
      <div className="grid grid-cols-[1fr_5rem] gap-4">
        <Pick
          label="Machine"
          value={profile.id}
          options={[...PROFILES, ...cutting.own].map(({ id, name }) => ({ value: id, text: name }))}
          onChange={(profileId) => useCutting.setState({ profileId })}
        />
        <Pick<Format> label="Files as" value={format} options={FORMATS} onChange={setFormat} />
      </div>
      <TabFields />
      <Choices
        label="Lines"
        values={LINE_PURPOSES.filter((purpose) => !without.includes(purpose))}
        options={PURPOSES}
        onChange={(wanted) => useCutting.setState({ without: LINE_PURPOSES.filter((purpose) => !wanted.includes(purpose)) })}
      />
      {tooLarge && (
        <p className="text-[13px] text-weak">
          The sheet is larger than the bed of {profile.name}: {formatNumber(profile.bed.width, units, 0)} ×{" "}
          {formatLength(profile.bed.height, units, 0)}.
        </p>
      )}
      <ul className="flex flex-col">
        {items.map(({ text, note, act }) => (
          <li key={`${text} ${note}`}>
            <button
              type="button"
              disabled={!ready}
              onClick={() => void act()}
              className="flex w-full items-baseline justify-between border-b border-rule py-1.5 text-left text-[14px] hover:bg-ink/5 disabled:cursor-default disabled:opacity-40"
            >
              <span className="font-medium">{text}</span>
              <span className="text-[12px] text-quiet">{note}</span>
            </button>
          </li>
        ))}
      </ul>
      <Button look="strong" disabled={!ready} onClick={() => void send()}>
        Send sheet {sheet} to the trial cutter
      </Button>
    </section>
  );
}
