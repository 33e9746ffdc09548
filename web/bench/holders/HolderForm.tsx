import { type Holder, type HolderChoiceKey, holderSentence } from "@mend-joint/core/wording";
import { Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { type Selection, selectionOf, useBench } from "../../state/bench";
import { Sentence } from "../../ui/Sentence";
import { removePart } from "../parts";

interface Props {
  part: Holder;
  title: string;
  /** For a backing: do all letters lie engraved on it? */
  engraved?: boolean;
  /** The fields of a choice. */
  edit(key: HolderChoiceKey): ReactNode;
  /** What is told or done besides. */
  children?: ReactNode;
}

/** One holder: what has been decided about it as a sentence. */
export function HolderForm({ part, title, engraved, edit, children }: Props) {
  const selected = useBench((state) => state.selection?.solids.includes(part.id) ?? false);
  const units = useBench((state) => state.units);
  return (
    <fieldset
      aria-label={title}
      className={`-mx-2 flex flex-col gap-2 rounded-xl border px-3 pt-1 pb-3 ${selected ? "border-focus" : "border-rule"}`}
    >
      <div className="flex items-center justify-between">
        <button
          type="button"
          data-hand
          aria-pressed={selected}
          aria-label={`Take the ${title.toLowerCase()} in the hand`}
          title="Take it in the hand: arrow keys move it"
          className="-mx-1 rounded px-1 py-0.5 font-semibold hover:bg-ink/6"
          onClick={() => {
            const { examination } = useBench.getState();
            // One that has just been added may not have been measured yet.
            const own: Selection = { solids: [part.id], move: { what: "holder", id: part.id } };
            useBench.setState({ selection: selected ? null : ((examination && selectionOf(examination, part.id)) ?? own) });
          }}
        >
          {title}
        </button>
        <button
          type="button"
          aria-label={`Remove the ${title.toLowerCase()}`}
          className="p-1.5 text-quiet hover:text-falls"
          onClick={() => removePart(part.id)}
        >
          <Trash2 size={15} />
        </button>
      </div>
      <Sentence about={`the ${title.toLowerCase()}`} subject="It" choices={holderSentence(part, units, engraved)} edit={edit} />
      {children}
    </fieldset>
  );
}
