import { SYMBOL_NAMES, type Word } from "@mend-joint/core/piece";
import { Pick } from "../../ui/Pick";
import { changePart } from "../parts";
import { ownSymbol } from "../SymbolMenu";
import { useOwnOutlines } from "../useSilhouettes";

/** Marks what is on the maker's shelf and not in the word yet. */
const SHELF = "shelf:";

/** What stands between the words of a line. */
export function SeparatorField({ word }: { word: Word }) {
  const own = useOwnOutlines();
  const drawn = Object.entries(word.drawn).map(([mark, { name, outline }]) => ({ mark, name, outline }));
  const others = own.filter(({ outline }) => !drawn.some((each) => each.outline === outline));
  const choose = (value: string) => {
    const fromShelf = value.startsWith(SHELF) && own.find(({ id }) => SHELF + id === value);
    const separator = (fromShelf ? ownSymbol(word, fromShelf) : value) as Word["separator"] | "none";
    if (separator === undefined) return;
    changePart<Word>(word.id, ({ separator: _, ...old }) => (separator === "none" ? old : { ...old, separator }));
  };
  return (
    <Pick
      label="Between words"
      value={word.separator ?? "none"}
      options={[
        { value: "none", text: "a blank" },
        ...drawn.map(({ mark, name }) => ({ value: mark, text: `${name}, your own` })),
        ...others.map(({ id, name }) => ({ value: SHELF + id, text: `${name}, from your shelf` })),
        ...SYMBOL_NAMES.map((name) => ({ value: name as string, text: name })),
      ]}
      onChange={choose}
    />
  );
}
