import { formatLength, formatNumber } from "@mend-joint/core/piece";
import type { RowShape, RunRow } from "@mend-joint/core/runs";
import { describeAllDone, describeFinding } from "@mend-joint/core/wording";
import { useEffect, useId, useState } from "react";
import { toast } from "sonner";
import type { SheetLook } from "../stage/materials";
import { useBench } from "../state/bench";
import { useFonts } from "../state/fonts";
import { changeRow, openRow, type RowChange } from "../state/runs";
import { Button } from "../ui/Button";
import { NumberField } from "../ui/NumberField";
import { Pick } from "../ui/Pick";
import { useGoOn } from "../ui/useGoOn";
import { RowDrawing } from "./RowDrawing";
import { RowMark } from "./RowTable";
import { isMended, kindOf, nameOf } from "./rows";

interface Props {
  run: string;
  row: RunRow;
  lines: number;
  shape: RowShape | undefined;
  sheet: SheetLook;
  /** The row is a piece of the rack, and changed there. */
  picked: boolean;
  /** Told when something of the row is changed: it stays in sight, also where it is no longer in the list. */
  onChange(): void;
}

/** The row in the hand: large, with what is wrong, what was done, and what can be changed. */
export function RowCard({ run, row, lines, shape, sheet, picked, onChange }: Props) {
  const units = useBench((state) => state.units);
  const goOn = useGoOn();
  const { facts, number, pieceId, leftOut } = row;
  const labels = new Map(facts?.labels);
  const kind = kindOf(row);
  const change = async (change: RowChange) => {
    onChange();
    try {
      await changeRow(run, number, change);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  const open = async () => {
    try {
      await goOn(`/bench/${await openRow(run, number)}`);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  return (
    <div className="flex flex-col gap-4 px-5 py-4">
      <div className="h-[150px] rounded-xl bg-film p-3">
        {kind === "waiting" ? (
          <p className="grid h-full place-items-center text-[13px] text-quiet">
            {row.due ? "Being examined …" : "Not examined yet"}
          </p>
        ) : (
          <RowDrawing shape={shape} sheet={sheet} />
        )}
      </div>
      <div>
        <h2 className="font-display text-[20px] leading-tight font-semibold break-words">{nameOf(row)}</h2>
        <div className="mt-1 flex flex-wrap items-center gap-x-3 text-[13px] text-quiet">
          <RowMark kind={kind} />
          {facts?.width != null && (
            <span className="figure">
              {formatNumber(facts.width, units)} × {formatLength(facts.height!, units)}
            </span>
          )}
        </div>
        {facts?.thinnest != null && (
          <p className="text-[13px] text-quiet">
            Thinnest joint <span className="figure text-ink">{formatLength(facts.thinnest, units, 2)}</span>, wanted{" "}
            <span className="figure">{formatLength(facts.wanted!, units, 2)}</span>
          </p>
        )}
      </div>
      {(row.problem ?? facts?.refused) && <p className="text-[14px] text-falls">{row.problem ?? facts?.refused}</p>}
      {facts && facts.problems.length > 0 && (
        <ul className="flex flex-col gap-1 text-[14px]">
          {facts.problems.slice(0, 6).map((finding) => (
            <li key={`${finding.kind} ${finding.at.x} ${finding.at.y}`}>{describeFinding(finding, labels, units)}</li>
          ))}
          {facts.problems.length > 6 && <li className="text-quiet">And {facts.problems.length - 6} more.</li>}
        </ul>
      )}
      {facts && isMended(row) && (
        <div className="text-[13px] text-quiet">
          {facts.before === "falls" ? "It fell apart" : "It was weak"} and was mended:
          <ul className="list-inside list-disc">
            {describeAllDone(facts.mends, labels, units).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
      {pieceId && !picked && <Disagreement row={row} onChange={change} />}
      <div className="flex flex-col gap-3">
        {!pieceId &&
          Array.from({ length: lines }, (_, i) => (
            <TextField
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name but their place
              key={`${number} ${i}`}
              label={lines === 1 ? "Name" : `Line ${i + 1}`}
              value={row.texts[i] ?? ""}
              onChange={(text) => void change({ texts: Array.from({ length: lines }, (_, k) => (k === i ? text : null)) })}
            />
          ))}
        <NumberField
          label="How many"
          unit=""
          value={row.count}
          least={1}
          most={1000}
          step={1}
          onChange={(count) => void change({ count })}
        />
        {!pieceId && <Lettering row={row} onChange={(font) => void change({ font })} />}
        <TextField key={`${number} note`} label="Note" value={row.note} onChange={(note) => void change({ note })} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button look="strong" disabled={!pieceId && !facts?.width} onClick={() => void open()}>
          Open on the bench
        </Button>
        <Button onClick={() => void change({ done: !row.done })}>{row.done ? "Not done yet" : "Done"}</Button>
        <Button onClick={() => void change({ leftOut: !leftOut })}>{leftOut ? "Take it in again" : "Leave it out"}</Button>
      </div>
    </div>
  );
}

/** What was changed on the bench stays when the list or the design changes; where they disagree, both are said. */
function Disagreement({ row, onChange }: { row: RunRow; onChange(change: RowChange): Promise<void> }) {
  const { facts, texts } = row;
  const says = facts?.texts ?? [];
  const same = texts.every((text, i) => text === "" || text.toLocaleLowerCase() === (says[i] ?? "").toLocaleLowerCase());
  return (
    <div className="rounded-xl border border-rule p-3 text-[13px]">
      <p>
        {same
          ? "Changed on the bench: it keeps its own form when the design changes."
          : `On the bench it says “${says.join(" · ")}”, in the list “${texts.filter(Boolean).join(" · ")}”. What is on the bench is cut.`}
      </p>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        {!same && (
          <button
            type="button"
            className="underline underline-offset-4"
            onClick={() => void onChange({ texts: texts.map((text, i) => says[i] ?? text) })}
          >
            Take the bench’s into the list
          </button>
        )}
        <button type="button" className="underline underline-offset-4" onClick={() => void onChange({ asListed: true })}>
          As the list and the design have it
        </button>
      </div>
    </div>
  );
}

function TextField({ label, value, onChange }: { label: string; value: string; onChange(text: string): void }) {
  const id = useId();
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const commit = () => text.trim() !== value && onChange(text.trim());
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={text}
        maxLength={500}
        spellCheck={false}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") setText(value);
        }}
        className="mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1 text-[14px] outline-none focus:border-ink"
      />
    </div>
  );
}

const AS_DESIGNED = "as designed";

function Lettering({ row, onChange }: { row: RunRow; onChange(font: string | null): void }) {
  const fonts = useFonts();
  return (
    <Pick
      label="Lettering"
      value={row.font ?? AS_DESIGNED}
      options={[
        { value: AS_DESIGNED, text: "as the design has it" },
        ...fonts.map(({ id, name }) => ({ value: id, text: name })),
      ]}
      onChange={(font) => onChange(font === AS_DESIGNED ? null : font)}
    />
  );
}
