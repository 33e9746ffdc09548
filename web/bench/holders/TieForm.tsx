import type { Fill, Tie } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
import { HolderForm } from "./HolderForm";

export function TieForm({ tie }: { tie: Tie }) {
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
      <LengthField
        label="Bent by"
        value={tie.bend ?? 0}
        least={-200}
        most={200}
        step={0.5}
        onChange={(bend) => changePart<Tie>(tie.id, (old) => ({ ...old, bend: bend === 0 ? undefined : bend }))}
      />
      <Choice
        label="Ends"
        value={tie.square ? "square" : "round"}
        options={[
          { value: "round", text: "round" },
          { value: "square", text: "square" },
        ]}
        onChange={(value) => changePart<Tie>(tie.id, (old) => ({ ...old, square: value === "square" ? true : undefined }))}
      />
    </HolderForm>
  );
}

/** Many ties are one entry: their width together, one by one on the piece. */
export function TiesForm({ ties }: { ties: Tie[] }) {
  const ids = new Set(ties.map(({ id }) => id));
  const selected = useBench((state) => ties.find(({ id }) => state.selection?.solids.includes(id)));
  const change = usePiece.getState().change;
  return (
    <fieldset className="-mx-2 flex flex-col gap-3 rounded-xl border border-rule px-3 pt-1 pb-3">
      <div className="flex items-center justify-between">
        <legend className="float-left font-semibold">{ties.length} ties</legend>
        <Button
          look="quiet"
          className="h-8 px-3"
          onClick={() => change((piece) => ({ ...piece, parts: piece.parts.filter(({ id }) => !ids.has(id)) }))}
        >
          Remove all
        </Button>
      </div>
      <LengthField
        label="Width of all"
        value={ties[0]!.width}
        least={0.1}
        most={100}
        step={0.1}
        onChange={(width) =>
          change((piece) => ({ ...piece, parts: piece.parts.map((part) => (part.kind === "tie" ? { ...part, width } : part)) }))
        }
        hint="Drag one on the piece, or take it in the hand to change it alone."
      />
      {selected && <TieForm tie={selected} />}
    </fieldset>
  );
}

export function FillForm({ fill }: { fill: Fill }) {
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
