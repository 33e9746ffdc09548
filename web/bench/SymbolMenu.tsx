import { SYMBOL_NAMES, SYMBOLS, type SymbolName } from "@mend-joint/core/piece";
import { DropdownMenu } from "radix-ui";
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
