import { formatLength, formatNumber } from "@mend-joint/core/piece";
import type { RowShape, RunRow } from "@mend-joint/core/runs";
import { describeAllDone, describeFinding } from "@mend-joint/core/wording";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Check } from "lucide-react";
import { type KeyboardEvent, memo, useEffect, useRef } from "react";
import type { SheetLook } from "../stage/materials";
import { useBench } from "../state/bench";
import { shapeKey } from "../state/runs";
import { VerdictMark } from "../ui/VerdictMark";
import { RowDrawing } from "./RowDrawing";
import { isMended, kindOf, nameOf } from "./rows";

interface Props {
  rows: readonly RunRow[];
  chosen: number | null;
  sheet: SheetLook;
  shapes: ReadonlyMap<string, RowShape>;
  /** The rows are pieces of the rack. */
  picked: boolean;
  want(rows: readonly RunRow[]): void;
  onChoose(number: number): void;
}

const ROW = 76;
/** Where there is less room, the sentence and the size are left to the card of the row. */
const GRID =
  "grid grid-cols-[84px_minmax(0,1fr)_68px_64px] items-center gap-3 px-5 @3xl:grid-cols-[120px_minmax(0,1.1fr)_minmax(0,2fr)_72px_104px] @3xl:gap-4";

/** One row for each name; only those in sight are drawn. */
export function RowTable({ rows, chosen, sheet, shapes, picked, want, onChoose }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 6,
    getItemKey: (i) => rows[i]!.number,
  });
  const items = list.getVirtualItems();
  const from = items[0]?.index ?? 0;
  const to = items.at(-1)?.index ?? -1;
  useEffect(() => want(rows.slice(from, to + 1)), [rows, from, to, want]);

  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8, Home: -Infinity, End: Infinity }[event.key];
    if (step === undefined || rows.length === 0) return;
    event.preventDefault();
    const at = rows.findIndex(({ number }) => number === chosen);
    const next = Math.min(rows.length - 1, Math.max(0, at + step));
    onChoose(rows[next]!.number);
    list.scrollToIndex(next);
  };

  return (
    <div className="@container grid h-full min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div className={`${GRID} border-b border-rule py-2 text-[12px] text-quiet`} aria-hidden="true">
        <span>finished piece</span>
        <span>name</span>
        <span>how it does</span>
        <span className="text-right">thinnest</span>
        <span className="hidden text-right @3xl:block">size</span>
      </div>
      {/* One stop of the tab key; arrows go from row to row. */}
      <div
        ref={frame}
        role="listbox"
        aria-label="Names"
        tabIndex={0}
        aria-activedescendant={chosen === null ? undefined : `row-${chosen}`}
        onKeyDown={onKeyDown}
        className="overflow-y-auto outline-offset-[-3px]"
      >
        <div className="relative" style={{ height: list.getTotalSize() }}>
          {items.map(({ index, start }) => {
            const row = rows[index]!;
            return (
              <div key={row.number} className="absolute inset-x-0" style={{ transform: `translateY(${start}px)`, height: ROW }}>
                <Row
                  row={row}
                  chosen={row.number === chosen}
                  picked={picked}
                  sheet={sheet}
                  shape={shapes.get(shapeKey(row))}
                  onChoose={onChoose}
                />
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

interface RowProps {
  row: RunRow;
  chosen: boolean;
  picked: boolean;
  sheet: SheetLook;
  shape: RowShape | undefined;
  onChoose(number: number): void;
}

const Row = memo(function Row({ row, chosen, picked, sheet, shape, onChoose }: RowProps) {
  const units = useBench((state) => state.units);
  const { facts } = row;
  const kind = kindOf(row);
  return (
    <div
      id={`row-${row.number}`}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      onClick={() => onChoose(row.number)}
      className={`${GRID} h-full cursor-pointer border-b border-rule hover:bg-ink/4 aria-selected:bg-film aria-selected:shadow-[inset_3px_0_var(--color-ink)] ${
        kind === "left out" ? "opacity-50" : ""
      }`}
    >
      <span className="block h-[62px]">{kind !== "waiting" && <RowDrawing shape={shape} sheet={sheet} />}</span>
      <span className="min-w-0">
        <span className="flex items-center gap-2">
          <span className="truncate text-[15px] font-semibold">{nameOf(row)}</span>
          {row.count > 1 && <span className="figure shrink-0 text-[13px] text-quiet">× {row.count}</span>}
          {row.done && <Check size={15} className="shrink-0 text-holds" aria-label="done" />}
        </span>
        <span className="block truncate text-[12px] text-quiet">
          row {row.number}
          {row.pieceId && !picked && ", edited on the bench"}
          {row.sameAs !== null && `, the same as row ${row.sameAs}`}
          {row.note && `, ${row.note}`}
        </span>
      </span>
      <span className="flex min-w-0 items-center gap-2.5 text-[13px]">
        <RowMark kind={kind} />
        <span className="hidden @3xl:line-clamp-2">
          <RowSays row={row} />
        </span>
      </span>
      <span className="figure text-right text-[13px]">{facts?.thinnest != null && formatLength(facts.thinnest, units)}</span>
      <span className="figure hidden text-right text-[13px] text-quiet @3xl:block">
        {facts?.width != null && `${formatNumber(facts.width, units, 0)} × ${formatLength(facts.height!, units, 0)}`}
      </span>
    </div>
  );
});

export function RowMark({ kind }: { kind: ReturnType<typeof kindOf> }) {
  if (kind === "holds" || kind === "weak" || kind === "falls") {
    return (
      <span className="w-[68px] shrink-0">
        <VerdictMark verdict={kind} size={19} label />
      </span>
    );
  }
  return <span className={`w-[68px] shrink-0 ${kind === "not made" ? "text-falls" : "text-quiet"}`}>{kind}</span>;
}

/** What is wrong; where nothing is, what was mended. */
function RowSays({ row }: { row: RunRow }) {
  const units = useBench((state) => state.units);
  const { facts, problem } = row;
  if (problem) return problem;
  if (facts?.refused) return facts.refused;
  if (!facts || row.due) return null;
  const labels = new Map(facts.labels);
  const [first, ...more] = facts.problems;
  if (first) return `${describeFinding(first, labels, units)}${more.length > 0 ? ` And ${more.length} more.` : ""}`;
  if (isMended(row)) return <span className="text-quiet">Mended: {describeAllDone(facts.mends, labels, units).join(" ")}</span>;
  return null;
}
