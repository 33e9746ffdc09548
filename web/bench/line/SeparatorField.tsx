import { SYMBOL_NAMES, type Word } from "@mend-joint/core/piece";
import { Pick } from "../../ui/Pick";
import { changePart } from "../parts";

/** What stands between the words of a line. */
export function SeparatorField({ word }: { word: Word }) {
  return (
    <Pick
      label="Between words"
      value={word.separator ?? "none"}
      options={[{ value: "none", text: "a blank" }, ...SYMBOL_NAMES.map((name) => ({ value: name, text: name }))]}
      onChange={(separator) =>
        changePart<Word>(word.id, ({ separator: _, ...old }) => (separator === "none" ? old : { ...old, separator }))
      }
    />
  );
}
