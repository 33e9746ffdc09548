import type { Bar, Fill, Piece, Stick, Tie } from "@mend-joint/core/piece";
import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { useBench } from "../state/bench";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { addPart, changePart, removePart, roomForParts } from "./parts";

export function HoldersStep({ piece }: { piece: Piece }) {
  const holders = piece.parts.filter((part): part is Bar | Stick | Tie | Fill => part.kind !== "word");
  const room = roomForParts(piece);
  return (
    <div className="flex flex-col gap-5">
      {holders.length === 0 && (
        <p className="text-[13px] text-quiet">
          Nothing holds the letters but each other. A bar joins letters that do not touch; a stick goes into the cake or the pot.
        </p>
      )}
      {holders.map((holder) => (
        <HolderPart key={holder.id} part={holder} />
      ))}
      <div className="-ml-3 flex flex-wrap gap-1">
        <Button look="quiet" disabled={!room} onClick={() => addPart(piece, { kind: "bar" }, "bar")}>
          <Plus size={16} aria-hidden="true" /> Add a bar
        </Button>
        <Button look="quiet" disabled={!room} onClick={() => addPart(piece, { kind: "stick" }, "stick")}>
          <Plus size={16} aria-hidden="true" /> Add a stick
        </Button>
      </div>
    </div>
  );
}

function HolderPart({ part }: { part: Bar | Stick | Tie | Fill }) {
  if (part.kind === "bar") return <BarForm bar={part} />;
  if (part.kind === "fill") return <FillForm fill={part} />;
  return part.kind === "stick" ? <StickForm stick={part} /> : <TieForm tie={part} />;
}

function TieForm({ tie }: { tie: Tie }) {
  return (
    <HolderForm id={tie.id} title="Tie">
      <LengthField
        label="Width"
        value={tie.width}
        least={0.1}
        most={100}
        step={0.1}
        onChange={(width) => changePart<Tie>(tie.id, (old) => ({ ...old, width }))}
        hint="Drag it on the piece. It follows the letters that it sits on."
      />
    </HolderForm>
  );
}

function FillForm({ fill }: { fill: Fill }) {
  const set = (change: Partial<Fill>) => changePart<Fill>(fill.id, (old) => ({ ...old, ...change }));
  return (
    <HolderForm id={fill.id} title="Filling">
      <div className="grid grid-cols-2 gap-x-4">
        <LengthField
          label="Gaps up to"
          value={fill.width}
          least={0.05}
          most={20}
          step={0.05}
          onChange={(width) => set({ width })}
        />
        <LengthField label="Around" value={fill.reach} least={0.1} most={100} onChange={(reach) => set({ reach })} />
      </div>
    </HolderForm>
  );
}

function HolderForm({ id, title, children }: { id: string; title: string; children: ReactNode }) {
  const selected = useBench((state) => state.selection?.solids.includes(id) ?? false);
  return (
    <fieldset
      className={`-mx-2 flex flex-col gap-3 rounded-xl border px-3 pt-1 pb-3 ${selected ? "border-focus" : "border-rule"}`}
    >
      <div className="flex items-center justify-between">
        <legend className="float-left font-semibold">{title}</legend>
        <button
          type="button"
          aria-label={`Remove the ${title.toLowerCase()}`}
          className="p-1.5 text-quiet hover:text-falls"
          onClick={() => removePart(id)}
        >
          <Trash2 size={15} />
        </button>
      </div>
      {children}
    </fieldset>
  );
}

function BarForm({ bar }: { bar: Bar }) {
  const set = (change: Partial<Bar>) => changePart<Bar>(bar.id, (old) => ({ ...old, ...change }));
  const fits = bar.length === "fit";
  const lengthNow = () => {
    const box = useBench.getState().examination?.solids.find(({ id }) => id === bar.id)?.region[0];
    if (!box) return 120;
    const xs = box.filter((_, i) => i % 2 === 0);
    return Math.round((Math.max(...xs) - Math.min(...xs)) * 100) / 100;
  };
  return (
    <HolderForm id={bar.id} title="Bar">
      <Choice
        label="Length"
        value={fits ? "fit" : "fixed"}
        options={[
          { value: "fit", text: "as the lettering" },
          { value: "fixed", text: "fixed" },
        ]}
        onChange={(value) => set({ length: value === "fit" ? "fit" : lengthNow() })}
      />
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        {typeof bar.length === "number" ? (
          <LengthField label="Length" value={bar.length} least={1} most={1000} step={1} onChange={(length) => set({ length })} />
        ) : (
          <LengthField
            label="Longer each end"
            value={bar.overhang}
            least={-500}
            most={500}
            onChange={(overhang) => set({ overhang })}
          />
        )}
        <LengthField label="Height" value={bar.height} least={0.5} most={500} onChange={(height) => set({ height })} />
        <LengthField
          label="Overlap"
          value={bar.overlap}
          least={-100}
          most={100}
          step={0.1}
          onChange={(overlap) => set({ overlap })}
          hint="above the baseline"
        />
        <LengthField label="Corner radius" value={bar.corner} least={0} most={250} onChange={(corner) => set({ corner })} />
      </div>
    </HolderForm>
  );
}

function StickForm({ stick }: { stick: Stick }) {
  const set = (change: Partial<Stick>) => changePart<Stick>(stick.id, (old) => ({ ...old, ...change }));
  return (
    <HolderForm id={stick.id} title="Stick">
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <LengthField label="Width" value={stick.width} least={0.5} most={200} onChange={(width) => set({ width })} />
        <LengthField label="Length" value={stick.length} least={1} most={1000} step={1} onChange={(length) => set({ length })} />
        <LengthField
          label="Bite"
          value={stick.bite}
          least={-100}
          most={200}
          step={0.2}
          onChange={(bite) => set({ bite })}
          hint="into the material"
        />
        <LengthField
          label="Right of middle"
          value={stick.dx}
          least={-1000}
          most={1000}
          step={0.5}
          onChange={(dx) => set({ dx })}
        />
      </div>
      <Choice
        label="Tip"
        value={stick.tip}
        options={[
          { value: "round", text: "round" },
          { value: "pointed", text: "pointed" },
          { value: "square", text: "square" },
        ]}
        onChange={(tip) => set({ tip })}
      />
    </HolderForm>
  );
}
