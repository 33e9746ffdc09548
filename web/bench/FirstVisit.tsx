import { useState } from "react";
import { Button } from "../ui/Button";

const SEEN = "mend-joint-first-visit";
/** The piece of the demo on which a maker begins. */
const FIRST_PIECE = "demo-boat-naming";

const POINTERS = [
  "Above the piece stands what would fall off, or break, once it is cut.",
  "Press a letter to take it in the hand: drag it, turn it, or change its figures.",
  "Here are the places to mend. Open one, and press the mend you like.",
];

/** Three pointers on the first piece of the demo, until they are put away. */
export function FirstVisit({ pieceId }: { pieceId: string }) {
  const [seen, setSeen] = useState(() => localStorage.getItem(SEEN) !== null);
  if (seen || pieceId !== FIRST_PIECE) return null;
  const putAway = () => {
    setSeen(true);
    try {
      localStorage.setItem(SEEN, "yes");
    } catch {
      // A full store: they come back with the next visit, and do no harm.
    }
  };
  return (
    <section aria-label="For your first visit" className="mx-3 mb-3 rounded-xl border border-rule bg-film px-4 py-3 text-[13px]">
      <ol className="flex list-decimal flex-col gap-1 pl-4">
        {POINTERS.map((pointer) => (
          <li key={pointer}>{pointer}</li>
        ))}
      </ol>
      <Button look="quiet" className="mt-1 -ml-3 h-8 px-3" onClick={putAway}>
        Put these away
      </Button>
    </section>
  );
}
