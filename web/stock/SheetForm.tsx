import {
  hasGrain,
  MATERIALS,
  type Material,
  type ShelfSheet,
  type Sourced,
  type Stock,
  smallestHole,
  stockBounds,
} from "@mend-joint/core/piece";
import { densityOf, materialOf, strengthAcross } from "@mend-joint/core/strength";
import { type ReactNode, useState } from "react";
import { lookOf } from "../stage/materials";
import { Swatch } from "../stage/Swatch";
import { Button, ButtonLink } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { Pick } from "../ui/Pick";
import { Toggle } from "../ui/Toggle";
import { today } from "../ui/today";

interface Props {
  sheet: ShelfSheet;
  /** It ships with the app. */
  shipped: boolean;
  onChange(sheet: ShelfSheet): void;
  /** Takes it off the shelf, or back to how it shipped; `null` where the maker has not touched it. */
  onDrop: (() => void) | null;
}

const MATERIAL_NAMES: Record<Material, string> = {
  birch: "birch plywood",
  poplar: "poplar plywood",
  bamboo: "bamboo",
  oak: "oak",
  maple: "maple",
  cherry: "cherry",
  walnut: "walnut",
  mdf: "MDF",
  "acrylic-clear": "clear acrylic",
  "acrylic-frosted": "frosted acrylic",
  "acrylic-white": "white acrylic",
  "acrylic-black": "black acrylic",
  "acrylic-teal": "teal acrylic",
  "acrylic-red": "red acrylic",
  "acrylic-gold": "gold mirror acrylic",
  "acrylic-silver": "silver mirror acrylic",
  leather: "leather",
  card: "card",
};

/** Every figure of a sheet, and where it comes from. What is changed is kept at once. */
export function SheetForm({ sheet, shipped, onChange, onDrop }: Props) {
  const { stock, sources } = sheet;
  const set = (some: Partial<ShelfSheet>) => onChange({ ...sheet, ...some });
  /** A figure that the maker has put in is the maker's. */
  const figure = (key: Sourced, value: number) =>
    onChange({ ...sheet, stock: { ...stock, [key]: value }, sources: { ...sources, [key]: `put in by you on ${today()}` } });
  const setStock = (some: Partial<Stock>) => onChange({ ...sheet, stock: { ...stock, ...some } });
  const sourceOf = (key: Sourced) => sources[key] ?? (stock[key] === undefined ? "as usual for the material" : "not said");
  return (
    <form
      className="mx-auto flex max-w-[720px] flex-col gap-7"
      aria-label={stock.name}
      onSubmit={(event) => event.preventDefault()}
    >
      <div className="flex items-center gap-5">
        <Swatch sheet={stock} size={76} />
        <div className="grid min-w-0 flex-1 gap-3 sm:grid-cols-2">
          <NameField name={stock.name} onChange={(name) => setStock({ name })} />
          <Pick<Material>
            label="Material"
            value={stock.material}
            options={MATERIALS.map((value) => ({ value, text: MATERIAL_NAMES[value] }))}
            onChange={(material) => setStock({ material })}
          />
          <ColourField sheet={stock} onChange={setStock} />
        </div>
      </div>
      <Group title="What a verdict goes by">
        <Figure source={sourceOf("leastWidth")}>
          <LengthField
            label="Least joint width"
            value={stock.leastWidth}
            {...stockBounds("leastWidth")}
            step={0.1}
            onChange={(mm) => figure("leastWidth", mm)}
          />
        </Figure>
        <Figure source={sourceOf("kerf")}>
          <LengthField
            label="Width of the cut"
            value={stock.kerf}
            {...stockBounds("kerf")}
            step={0.01}
            onChange={(mm) => figure("kerf", mm)}
          />
        </Figure>
        <Figure source={sourceOf("hole")}>
          <LengthField
            label="Smallest hole"
            value={smallestHole(stock)}
            {...stockBounds("hole")}
            step={0.1}
            onChange={(mm) => figure("hole", mm)}
          />
        </Figure>
        <Figure source={sourceOf("thickness")}>
          <LengthField
            label="Thickness as measured"
            value={stock.thickness}
            {...stockBounds("thickness")}
            step={0.1}
            onChange={(mm) => figure("thickness", mm)}
          />
        </Figure>
        <Figure source={sourceOf("strength")}>
          <NumberField
            label="Bending strength"
            unit="N/mm²"
            value={stock.strength}
            {...stockBounds("strength")}
            onChange={(value) => figure("strength", value)}
          />
        </Figure>
        {hasGrain(stock) && (
          <Figure source={sourceOf("strengthAcross")}>
            <NumberField
              label="Strength across the grain"
              unit="N/mm²"
              value={strengthAcross(stock)}
              {...stockBounds("strengthAcross")}
              onChange={(value) => figure("strengthAcross", value)}
            />
          </Figure>
        )}
        <Figure source={sourceOf("young")}>
          <NumberField
            label="Stiffness"
            unit="N/mm²"
            value={materialOf(stock).young}
            {...stockBounds("young")}
            step={100}
            onChange={(value) => figure("young", value)}
          />
        </Figure>
        <Figure source={sourceOf("density")}>
          <NumberField
            label="Density"
            unit="g/cm³"
            value={densityOf(stock)}
            {...stockBounds("density")}
            step={0.01}
            onChange={(value) => figure("density", value)}
          />
        </Figure>
        <Choice
          label="Cut with"
          value={stock.tool}
          options={[
            { value: "laser", text: "the laser" },
            { value: "saw", text: "the saw" },
          ]}
          onChange={(tool) => setStock({ tool })}
        />
        <Toggle
          label="It has a grain"
          note="fibres run one way; across them it breaks sooner"
          on={hasGrain(stock)}
          onChange={(grain) => setStock({ grain })}
        />
      </Group>
      <div className="-mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-xl bg-film px-4 py-3">
        <p className="min-w-0 flex-1 text-[13px] text-quiet">
          A test piece from an offcut tells what this sheet bears on your machine: how wide the cut is, which necks hold, which
          holes come out clean.
        </p>
        <ButtonLink to={`/stock/${encodeURIComponent(sheet.id)}/test`}>Measure it with a test piece</ButtonLink>
      </div>
      <Group title="What is there of it">
        <LengthField
          label="Sheet width"
          value={sheet.width}
          least={10}
          most={5000}
          step={10}
          onChange={(width) => set({ width })}
        />
        <LengthField
          label="Sheet height"
          value={sheet.height}
          least={10}
          most={5000}
          step={10}
          onChange={(height) => set({ height })}
        />
        <NumberField
          label="How many"
          unit="sheets"
          value={sheet.count ?? 0}
          least={0}
          most={100_000}
          onChange={(count) => set({ count: Math.round(count) })}
        />
        <NumberField
          label="Price of one"
          unit=""
          value={sheet.price ?? 0}
          least={0}
          most={1e6}
          step={0.5}
          onChange={(price) => set({ price })}
        />
        <Notes notes={sheet.notes} onChange={(notes) => set({ notes })} />
      </Group>
      <div className="flex flex-wrap items-center gap-4 border-t border-rule pt-4 text-[13px] text-quiet">
        <p className="min-w-0 flex-1">Pieces keep the figures that they were begun with, and say when the shelf has others.</p>
        {onDrop && <Button onClick={onDrop}>{shipped ? "Back to the figures it came with" : "Off the shelf"}</Button>}
      </div>
    </form>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-3 font-display text-[17px] font-semibold">{title}</h2>
      <div className="grid gap-x-6 gap-y-5 sm:grid-cols-2 lg:grid-cols-3">{children}</div>
    </section>
  );
}

/** A figure, and where it comes from. */
function Figure({ source, children }: { source: string; children: ReactNode }) {
  return (
    <div>
      {children}
      <p className="mt-1 text-[12px] leading-snug text-quiet">{source}</p>
    </div>
  );
}

function NameField({ name, onChange }: { name: string; onChange(name: string): void }) {
  const [text, setText] = useState(name);
  return (
    <label className="block text-[13px] text-quiet">
      Name
      <input
        value={text}
        maxLength={60}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => (text.trim() ? text.trim() !== name && onChange(text.trim()) : setText(name))}
        className="mt-0.5 block w-full border-b border-quiet/50 bg-transparent py-1.5 text-[15px] text-ink hover:border-ink"
      />
    </label>
  );
}

/** The sheet's own colour, where it is another than is usual for its material. */
function ColourField({ sheet, onChange }: { sheet: Stock; onChange(change: Partial<Stock>): void }) {
  return (
    <div className="flex items-end gap-3 text-[13px] text-quiet">
      <label className="flex items-center gap-3">
        Colour
        <input
          type="color"
          value={lookOf(sheet).base}
          onChange={(event) => onChange({ colour: event.target.value })}
          className="h-8 w-12 cursor-pointer rounded border border-quiet/50 bg-transparent p-0.5"
        />
      </label>
      {sheet.colour !== undefined && (
        <Button look="quiet" className="h-8 px-2 text-[13px]" onClick={() => onChange({ colour: undefined })}>
          As usual
        </Button>
      )}
    </div>
  );
}

function Notes({ notes, onChange }: { notes: string; onChange(notes: string): void }) {
  const [text, setText] = useState(notes);
  return (
    <label className="block text-[13px] text-quiet sm:col-span-2">
      Notes
      <textarea
        value={text}
        rows={2}
        maxLength={2000}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => text !== notes && onChange(text)}
        className="mt-0.5 block w-full resize-y border-b border-quiet/50 bg-transparent py-1.5 text-[14px] text-ink hover:border-ink"
      />
    </label>
  );
}
