import type { Piece, Word } from "@mend-joint/core/piece";
import { TextField } from "../bench/line/TextField";

/** The words once more, so that the next name needs no way back to the bench. */
export function WordsForm({ piece }: { piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  if (words.length === 0) return null;
  return (
    <section className="mb-6 flex flex-col gap-3 border-b border-rule pb-5">
      {words.map((word, i) => (
        <TextField key={word.id} word={word} label={words.length === 1 ? "The word" : `Line ${i + 1}`} />
      ))}
      <p className="text-[12px] text-quiet">Type the next name here: it is measured and drawn up anew.</p>
    </section>
  );
}
