import { courseOf, type Fill, LIMITS, partBounds, type Tie, withCourse } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { placesOf, useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Two } from "../../ui/Two";
import { PartOutcomes } from "../Outcomes";
import { changePart } from "../parts";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";

export function TieForm({ tie }: { tie: Tie }) {
  const set = (change: Partial<Tie>) => changePart<Tie>(tie.id, (old) => ({ ...old, ...change }));
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return (
          <PartLength
            part={tie}
            field="width"
            label="Width"
            step={0.1}
            hint="Drag it, or one of its ends. It follows its letters."
          />
        );
      case "place":
        return <Course tie={tie} />;
      case "bend":
        return (
          <LengthField
            label="Bent by"
            value={tie.bend ?? 0}
            {...partBounds("tie", "bend")}
            onChange={(bend) => set({ bend: bend === 0 ? undefined : bend })}
          />
        );
      default:
        return (
          <PartOutcomes
            part={tie}
            label="Ends"
            around={tie.id}
            value={tie.square ? "square" : "round"}
            options={[
              { value: "round", text: "round" },
              { value: "square", text: "square" },
            ]}
            change={(value) => ({ square: value === "square" ? true : undefined })}
          />
        );
    }
  };
  return <HolderForm part={tie} title="Tie" edit={edit} />;
}

/** Direction and length, of which both ends give way. */
function Course({ tie }: { tie: Tie }) {
  const examination = useBench((state) => state.examination);
  const places = examination && placesOf(examination, tie);
  if (!places) return null;
  const { angle, length } = courseOf(places);
  const set = (course: { angle?: number; length?: number }) => changePart<Tie>(tie.id, (old) => withCourse(old, places, course));
  return (
    <Two>
      <NumberField
        label="Angle"
        unit="°"
        value={Math.round(angle * 10) / 10}
        least={-90}
        most={90}
        onChange={(degrees) => set({ angle: degrees })}
        hint="0 lies, 90 stands"
      />
      <LengthField
        label="From end to end"
        value={Math.round(length * 100) / 100}
        least={0.1}
        most={LIMITS.coordinate}
        step={0.1}
        onChange={(mm) => set({ length: mm })}
      />
    </Two>
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
        {...partBounds("tie", "width")}
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
  const edit = (key: HolderChoiceKey) =>
    key === "size" ? (
      <PartLength part={fill} field="width" label="Gaps up to" step={0.05} />
    ) : (
      <PartLength part={fill} field="reach" label="Around" />
    );
  return <HolderForm part={fill} title="Filling" edit={edit} />;
}
