import { SYMBOL_NAMES, SYMBOLS, type SymbolName } from "@mend-joint/core/piece";
import { DropdownMenu, RadioGroup } from "radix-ui";
import { Menu } from "../ui/Menu";
import { OrnamentShape } from "./OrnamentShape";

/** All symbols, to be picked by their shape. */
export function SymbolItems({ onPick }: { onPick(name: SymbolName): void }) {
  return SYMBOL_NAMES.map((name) => (
    <DropdownMenu.Item
      key={name}
      aria-label={name}
      title={name === "ring" ? "ring, its hole stays free" : name}
      onSelect={() => onPick(name)}
      className="grid size-10 place-items-center rounded-lg outline-none data-[highlighted]:bg-ink/8"
    >
      <OrnamentShape name={name} size={24} />
    </DropdownMenu.Item>
  ));
}

/** One of all symbols, by its shape. */
export function SymbolChoice({ value, onChange }: { value: SymbolName; onChange(name: SymbolName): void }) {
  return (
    <RadioGroup.Root
      aria-label="Which"
      value={value}
      onValueChange={(name) => onChange(name as SymbolName)}
      className="flex flex-wrap gap-1"
    >
      {SYMBOL_NAMES.map((name) => (
        <RadioGroup.Item
          key={name}
          value={name}
          aria-label={name}
          title={name}
          className="grid size-9 place-items-center rounded-lg border border-transparent hover:bg-ink/8 data-[state=checked]:border-ink"
        >
          <OrnamentShape name={name} size={22} />
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** Symbols that stand in the text like letters. */
export function SymbolMenu({ onPick }: { onPick(symbol: string): void }) {
  return (
    <Menu
      className="grid grid-cols-6 gap-1 p-2"
      trigger={
        <button type="button" aria-label="Put in a symbol …" title="Put in a symbol" className="p-1.5 text-quiet hover:text-ink">
          <OrnamentShape name="star" size={16} />
        </button>
      }
    >
      <SymbolItems onPick={(name) => onPick(SYMBOLS[name])} />
    </Menu>
  );
}
