import { SYMBOL_NAMES, SYMBOLS, type SymbolName } from "@mend-joint/core/piece";
import { DropdownMenu } from "radix-ui";
import { OrnamentShape } from "./OrnamentShape";

/** Symbols that stand in the text like letters. */
export function SymbolMenu({ onPick }: { onPick(symbol: string): void }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger aria-label="Put in a symbol …" title="Put in a symbol" className="p-1.5 text-quiet hover:text-ink">
        <OrnamentShape name="star" size={16} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-10 grid grid-cols-6 gap-1 rounded-xl border border-rule bg-film p-2 shadow-lg"
        >
          {SYMBOL_NAMES.map((name: SymbolName) => (
            <DropdownMenu.Item
              key={name}
              aria-label={name}
              title={name === "ring" ? "ring, its hole stays free" : name}
              onSelect={() => onPick(SYMBOLS[name])}
              className="grid size-10 place-items-center rounded-lg outline-none data-[highlighted]:bg-ink/8"
            >
              <OrnamentShape name={name} size={24} />
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
