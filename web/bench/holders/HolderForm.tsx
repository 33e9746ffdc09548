import { Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { useBench } from "../../state/bench";
import { removePart } from "../parts";

/** The frame around the figures of one holder. */
export function HolderForm({ id, title, children }: { id: string; title: string; children: ReactNode }) {
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

export const Two = ({ children }: { children: ReactNode }) => <div className="grid grid-cols-2 gap-x-4 gap-y-3">{children}</div>;
