/**
 * The lettering shelf: the maker's own word in every lettering, as it would be cut, with what was measured of it.
 */
import type { Piece, Word } from "@mend-joint/core/piece";
import { ToggleGroup } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import { changePart } from "../bench/parts";
import type { FontEntry } from "../state/api";
import { useBench } from "../state/bench";
import { addOwnFont, takeOffFont, useFonts } from "../state/fonts";
import { Button } from "../ui/Button";
import { Pills } from "../ui/Choice";
import { type ShelfRow, useShelf } from "./facts";
import { ShelfCard } from "./ShelfCard";

/** What is left of the shelf when a filter is on. */
const FILTERS: { value: string; text: string; keeps(row: ShelfRow): boolean }[] = [
  { value: "suits", text: "survives", keeps: ({ facts }) => facts?.suits === "well" },
  {
    value: "joins",
    text: "joins itself",
    keeps: ({ facts }) => !!facts && facts.neighbours > 0 && facts.joined === facts.neighbours,
  },
  { value: "heavy", text: "heavy", keeps: ({ facts }) => !!facts && facts.thinnest >= 1.5 * facts.wanted },
  { value: "stencil", text: "stencil", keeps: ({ font }) => font.style === "stencil" },
  { value: "forms", text: "has other letterforms", keeps: ({ facts }) => (facts?.forms ?? 0) > 0 },
];

export function Shelf({ piece, word }: { piece: Piece; word: Word }) {
  const fonts = useFonts();
  return fonts.length === 0 ? (
    <p className="grid flex-1 place-items-center text-quiet">Fetching the lettering …</p>
  ) : (
    <Shelves piece={piece} word={word} fonts={fonts} />
  );
}

function Shelves({ piece, word, fonts }: { piece: Piece; word: Word; fonts: FontEntry[] }) {
  const [pointed, setPointed] = useState(false);
  const [focused, setFocused] = useState(false);
  const { rows, measured, inOrder } = useShelf(word, piece, fonts, pointed || focused);
  const [filters, setFilters] = useState<string[]>([]);
  const shown = rows.filter((row) => FILTERS.every(({ value, keeps }) => !filters.includes(value) || keeps(row)));
  const section = useRef<HTMLElement>(null);
  // On a narrow screen it opens above what was pressed.
  useEffect(() => {
    section.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const close = () => useBench.setState({ shelf: null });
  return (
    <section ref={section} aria-label="Lettering shelf" className="flex min-h-0 flex-1 flex-col bg-film">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule px-6 py-3">
        <div className="min-w-0 flex-1 basis-48">
          <h2 className="font-display text-[17px] font-semibold">
            “{word.text.trim()}” in {fonts.length} letterings
          </h2>
          <p className="text-[13px] text-quiet" role="status">
            {measured < fonts.length
              ? `Measured ${measured} of ${fonts.length} …`
              : inOrder
                ? "What survives best in this sheet comes first."
                : "All measured. In order when you leave the list."}
          </p>
        </div>
        <AddFont onAdded={(id) => changePart<Word>(word.id, (old) => ({ ...old, font: id, axes: {}, features: {} }))} />
        <Button onClick={close}>Back to the piece</Button>
      </div>
      <div className="h-[2px] bg-rule" role="presentation">
        <div className="h-full bg-holds transition-[width]" style={{ width: `${(100 * measured) / fonts.length}%` }} />
      </div>
      <ToggleGroup.Root
        type="multiple"
        value={filters}
        onValueChange={setFilters}
        aria-label="Show only what"
        className="flex flex-wrap gap-1 px-6 pt-3 pb-1"
      >
        <Pills options={FILTERS} />
      </ToggleGroup.Root>
      <div className="@container min-h-0 flex-1 overflow-y-auto px-6 pt-2 pb-6">
        {shown.length === 0 && (
          <p className="py-10 text-center text-quiet">
            {measured < fonts.length ? "Nothing yet; the rest is being measured." : "No lettering is left. Take a filter off."}
          </p>
        )}
        <ul
          onPointerEnter={() => setPointed(true)}
          onPointerLeave={() => setPointed(false)}
          onFocus={({ target }) => setFocused(target.matches(":focus-visible"))}
          onBlur={() => setFocused(false)}
          className="grid grid-cols-[minmax(0,1fr)] gap-3 @[400px]:grid-cols-2"
        >
          {shown.map((row) => (
            <li key={row.font.id}>
              <ShelfCard
                row={row}
                chosen={word.font === row.font.id}
                onRemove={row.font.style === "own" ? () => void takeOff(row.font) : undefined}
                onChoose={() => changePart<Word>(word.id, (old) => ({ ...old, font: row.font.id, axes: {}, features: {} }))}
              />
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}

/** A font file of the maker's own, by choosing it or dropping it. */
function AddFont({ onAdded }: { onAdded(id: string): void }) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const add = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    try {
      const fonts = await addOwnFont(file);
      toast(fonts.length === 1 ? `${fonts[0]!.name} is on the shelf.` : `${fonts.length} letterings are on the shelf.`);
      onAdded(fonts[0]!.id);
    } catch (error) {
      toast.error((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        aria-label="Font file"
        accept=".ttf,.otf,.ttc,.otc,.woff,.woff2"
        className="sr-only"
        onChange={(event) => {
          void add(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <Button disabled={busy} onClick={() => input.current?.click()}>
        {busy ? "Reading the font …" : "Add a font file"}
      </Button>
    </>
  );
}

async function takeOff({ id, name }: FontEntry): Promise<void> {
  try {
    await takeOffFont(id);
    toast(`${name} is off the shelf. Pieces that are set in it keep it.`);
  } catch (error) {
    toast.error((error as Error).message);
  }
}
