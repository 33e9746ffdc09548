import { type KeptOutline, SYMBOL_NAMES, SYMBOLS, type SymbolName, type Word, withOwnSymbol } from "@mend-joint/core/piece";
import { Star } from "lucide-react";
import { DropdownMenu, RadioGroup } from "radix-ui";
import { type ReactNode, useState } from "react";
import { toast } from "sonner";
import { Silhouette } from "../bring/OutlineShelf";
import { Menu } from "../ui/Menu";
import { OrnamentShape } from "./OrnamentShape";
import { changePart } from "./parts";
import { useOwnOutlines, useSurvival } from "./useSilhouettes";

interface Props {
  onPick(name: SymbolName): void;
  onPickOwn(outline: KeptOutline): void;
}

/** All silhouettes, ours and the maker's own, to be picked by their shape. What the pointer is on is named, with its least size. */
export function SymbolItems({ onPick, onPickOwn }: Props) {
  const own = useOwnOutlines();
  const survival = useSurvival(own);
  const [seen, setSeen] = useState<{ key: string; name: string }>();
  const item = (key: string, name: string, pick: () => void, shape: ReactNode) => (
    <DropdownMenu.Item
      key={key}
      aria-label={name}
      aria-describedby="silhouette-seen"
      onSelect={pick}
      onFocus={() => setSeen({ key, name })}
      className="grid size-10 place-items-center rounded-lg outline-none data-[highlighted]:bg-ink/8"
    >
      {shape}
    </DropdownMenu.Item>
  );
  return (
    <>
      <div className="grid grid-cols-8 gap-0.5">
        {SYMBOL_NAMES.map((name) => item(name, name, () => onPick(name), <OrnamentShape name={name} size={24} />))}
        {own.map((each) =>
          item(each.id, each.name, () => onPickOwn(each), <Silhouette outline={each.outline} className="size-6" />),
        )}
      </div>
      <p
        id="silhouette-seen"
        className="sticky bottom-0 -mx-2 -mb-2 min-h-8 border-t border-rule bg-film px-3 py-1.5 text-[13px] text-quiet"
      >
        {seen ? (
          <>
            <b className="font-semibold text-ink">{seen.name}</b>
            {seen.key === "ring" && ", its hole stays free"}
            {survival(seen.key) && `, ${survival(seen.key)}`}
          </>
        ) : (
          "Each says from which size it survives."
        )}
      </p>
    </>
  );
}

/** One of all symbols, by its shape. */
export function SymbolChoice({ value, onChange }: { value: SymbolName; onChange(name: SymbolName): void }) {
  const survival = useSurvival(NO_OUTLINES);
  return (
    <>
      <RadioGroup.Root
        aria-label="Which"
        value={value}
        onValueChange={(name) => onChange(name as SymbolName)}
        className="grid max-h-64 grid-cols-6 gap-0.5 overflow-y-auto"
      >
        {SYMBOL_NAMES.map((name) => (
          <RadioGroup.Item
            key={name}
            value={name}
            aria-label={name}
            title={[name, survival(name)].filter(Boolean).join(", ")}
            className="grid size-9 place-items-center rounded-lg border border-transparent hover:bg-ink/8 data-[state=checked]:border-ink"
          >
            <OrnamentShape name={name} size={22} />
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {survival(value) && (
        <p className="text-[13px] text-quiet">
          The {value} {survival(value)}.
        </p>
      )}
    </>
  );
}

const NO_OUTLINES: readonly KeptOutline[] = [];

/** Puts an outline of the maker's own among what a word can be written with. @returns the character that stands for it */
export function ownSymbol(word: Word, outline: KeptOutline): string | undefined {
  const put = withOwnSymbol(word, outline);
  if (!put) {
    toast.error("A line can have 26 outlines of your own, and this one has. Take one out of its text first.");
    return undefined;
  }
  changePart<Word>(word.id, (old) => withOwnSymbol(old, outline)?.word ?? old);
  return put.mark;
}

/** Symbols that stand in the text like letters. */
export function SymbolMenu({ word, onPick }: { word: Word; onPick(symbol: string): void }) {
  return (
    <Menu
      className="p-2"
      trigger={
        <button type="button" aria-label="Put in a symbol …" title="Put in a symbol" className="p-1.5 text-quiet hover:text-ink">
          {/* Not one of the ornaments themselves: drawing them takes a worker, which nobody needs before the menu is open. */}
          <Star size={16} aria-hidden="true" />
        </button>
      }
    >
      <SymbolItems
        onPick={(name) => onPick(SYMBOLS[name])}
        onPickOwn={(outline) => {
          const mark = ownSymbol(word, outline);
          if (mark) onPick(mark);
        }}
      />
    </Menu>
  );
}
