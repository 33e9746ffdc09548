import { regionBox } from "@mend-joint/core/geometry";
import { formatLength, formatNumber, type Stock } from "@mend-joint/core/piece";
import { type Offcut, outlineOf, rectangleOutline, type SheetChoices } from "@mend-joint/core/runs";
import { Trash2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import { regionPath } from "../stage/paths";
import { useBench } from "../state/bench";
import { removeOffcut, saveOffcut } from "../state/offcuts";
import { Button } from "../ui/Button";
import { FileButton } from "../ui/FileButton";
import { LengthField } from "../ui/LengthField";
import { offcutIn } from "../workers/examiner";

interface Props {
  stock: Stock;
  choices: SheetChoices;
  /** All that are kept. */
  kept: readonly Offcut[];
  /** They have changed. */
  onKept(change: (kept: Offcut[]) => Offcut[]): void;
  /** It is to be filled, as it is now. */
  onFill(offcut: Offcut): void;
  onLeave(id: string): void;
}

/** Smaller offcuts hold nothing, mm. */
const LEAST = 20;

const failed = (error: Error) => void toast.error(error.message);

/** Offcuts of the sheet: those that are chosen are filled before whole sheets. */
export function Offcuts({ stock, choices, kept, onKept, onFill, onLeave }: Props) {
  const [adding, setAdding] = useState(false);
  const units = useBench((state) => state.units);
  const own = kept.filter((offcut) => offcut.stock === stock.id);
  const chosen = new Set(choices.offcuts.map(({ id }) => id));
  /** Cut again since it was chosen: what is laid by then still lies on it as it was. */
  const isOlder = (offcut: Offcut) =>
    choices.offcuts.some(({ id, outline }) => id === offcut.id && outline.join() !== offcut.outline.join());
  const press = (offcut: Offcut) => (chosen.has(offcut.id) && !isOlder(offcut) ? onLeave(offcut.id) : onFill(offcut));
  const without = (offcut: Offcut) => (all: Offcut[]) => all.filter(({ id }) => id !== offcut.id);
  const keep = (offcut: Offcut) => onKept((all) => [...without(offcut)(all), offcut]);
  const remove = (offcut: Offcut) => {
    onKept(without(offcut));
    if (chosen.has(offcut.id)) onLeave(offcut.id);
    removeOffcut(offcut.id).then(
      () =>
        toast(`“${offcut.name}” is thrown away.`, {
          action: { label: "Put back", onClick: () => void saveOffcut(offcut).then(() => keep(offcut), failed) },
        }),
      failed,
    );
  };
  const add = (offcut: Offcut) => {
    setAdding(false);
    saveOffcut(offcut).then(() => {
      keep(offcut);
      onFill(offcut);
    }, failed);
  };
  const read = async (picked: File) => {
    try {
      const { outline, width, height } = await offcutIn(new Uint8Array(await picked.arrayBuffer()));
      const size = `${formatNumber(width, units, 0)} × ${formatLength(height, units, 0)}`;
      if (width > choices.width || height > choices.height)
        throw new Error(
          `What is drawn there is ${size}, larger than the sheet. Make the sheet as large, or check the drawing's units.`,
        );
      if (Math.min(width, height) < LEAST) throw new Error(`What is drawn there is only ${size}. Check the drawing's units.`);
      add({
        id: crypto.randomUUID(),
        name:
          picked.name
            .replace(/\.[^.]*$/, "")
            .trim()
            .slice(0, 80) || "Offcut",
        stock: stock.id,
        outline,
      });
      toast(`“${picked.name}” is an offcut of ${size}, filled first.`);
    } catch (error) {
      failed(error as Error);
    }
  };
  return (
    <section aria-label="Offcuts" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="text-[14px] font-semibold">Offcuts of {stock.name}</h3>
      {own.length === 0 && !adding && (
        <p className="text-[13px] text-quiet">
          None yet. Keep what is left of a sheet, or add one: it is filled before whole sheets.
        </p>
      )}
      <ul className="flex flex-col">
        {own.map((offcut) => (
          <li key={offcut.id} className="flex items-center gap-1">
            <OffcutRow offcut={offcut} on={chosen.has(offcut.id)} older={isOlder(offcut)} onPress={() => press(offcut)} />
            <button
              type="button"
              aria-label={`Throw away ${offcut.name}`}
              className="grid size-8 shrink-0 place-items-center rounded-full text-quiet hover:bg-ink/8 hover:text-ink"
              onClick={() => remove(offcut)}
            >
              <Trash2 size={15} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {adding ? (
        <NewOffcut stock={stock} sheet={choices} count={own.length} onAdd={add} onCancel={() => setAdding(false)} />
      ) : (
        <div className="flex flex-wrap">
          <Button look="quiet" onClick={() => setAdding(true)}>
            Add an offcut
          </Button>
          <FileButton look="quiet" accept=".svg,.dxf,.pdf" testId="offcut-file" onPick={(picked) => void read(picked)}>
            From a drawing
          </FileButton>
        </div>
      )}
    </section>
  );
}

interface RowProps {
  offcut: Offcut;
  on: boolean;
  /** It is chosen as it was before it was cut again. */
  older: boolean;
  onPress(): void;
}

function OffcutRow({ offcut, on, older, onPress }: RowProps) {
  const units = useBench((state) => state.units);
  const { box, path } = useMemo(() => {
    const region = outlineOf(offcut);
    return { box: regionBox(region)!, path: regionPath(region) };
  }, [offcut]);
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onPress}
      className="flex min-w-0 flex-1 items-center gap-2.5 rounded-lg px-2 py-1.5 text-left text-[13px] hover:bg-ink/5 aria-pressed:bg-film"
    >
      <svg
        viewBox={`${box.minX} ${-box.maxY} ${box.maxX - box.minX} ${box.maxY - box.minY}`}
        className="h-9 w-12 shrink-0"
        aria-hidden="true"
      >
        <path d={path} transform="scale(1 -1)" className={on ? "fill-ink/60" : "fill-ink/25"} fillRule="evenodd" />
      </svg>
      <span className="min-w-0">
        <span className="block truncate font-medium">{offcut.name}</span>
        <span className="figure block text-[12px] text-quiet">
          {formatNumber(box.maxX - box.minX, units, 0)} × {formatLength(box.maxY - box.minY, units, 0)}
          {on && !older && ", filled first"}
        </span>
        {older && <span className="block text-[12px] text-weak">Chosen as it was before. Press it to take it as it is now.</span>}
      </span>
    </button>
  );
}

interface NewProps {
  stock: Stock;
  sheet: SheetChoices;
  count: number;
  onAdd(offcut: Offcut): void;
  onCancel(): void;
}

function NewOffcut({ stock, sheet, count, onAdd, onCancel }: NewProps) {
  const [width, setWidth] = useState(Math.round(sheet.width / 2));
  const [height, setHeight] = useState(sheet.height);
  const [id] = useState(() => crypto.randomUUID());
  const [name, setName] = useState(`Offcut ${count + 1}`);
  // A larger one would lie beyond the sheet.
  useEffect(() => {
    setWidth((mm) => Math.min(mm, sheet.width));
    setHeight((mm) => Math.min(mm, sheet.height));
  }, [sheet.width, sheet.height]);
  const ready = name.trim().length > 0;
  return (
    <form
      aria-label="A new offcut"
      className="flex flex-col gap-3 rounded-xl bg-film p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) onAdd({ id, name: name.trim().slice(0, 80), stock: stock.id, outline: rectangleOutline({ width, height }) });
      }}
    >
      <label className="block text-[13px] text-quiet">
        Its name
        <input
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          className="mt-0.5 block w-full border-b border-quiet/50 bg-transparent py-1.5 text-[14px] text-ink hover:border-ink"
        />
      </label>
      <div className="grid grid-cols-2 gap-4">
        <LengthField label="Its width" value={width} least={LEAST} most={sheet.width} step={10} onChange={setWidth} />
        <LengthField label="Its height" value={height} least={LEAST} most={sheet.height} step={10} onChange={setHeight} />
      </div>
      <div className="flex gap-2">
        <Button look="strong" type="submit" disabled={!ready}>
          Add it
        </Button>
        <Button look="quiet" onClick={onCancel}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
