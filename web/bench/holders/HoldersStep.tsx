import {
  addPart as addTo,
  type KeptOutline,
  type Ornament,
  type Part,
  type Piece,
  type SymbolName,
  type Tie,
} from "@mend-joint/core/piece";
import type { Holder } from "@mend-joint/core/wording";
import { ChevronRight, Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { toast } from "sonner";
import { bringIn } from "../../bring/BringIn";
import { widthOfOutline } from "../../bring/OutlineShelf";
import { putOnPiece } from "../../bring/put";
import { useBench } from "../../state/bench";
import { asRun, usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Menu } from "../../ui/Menu";
import { bestBridgePlace, counterFor } from "../../workers/examiner";
import { addPart, changePart, roomForParts } from "../parts";
import { SymbolItems } from "../SymbolMenu";
import { HolderPart } from "./HolderPart";
import { TiesForm } from "./TieForm";
import { TieUp } from "./TieUp";

/** More ties than this are shown as one entry. */
const FEW_TIES = 2;

/** What can be added, in the maker's words. */
const KINDS: { text: string; note: string; add(): void }[] = [
  { text: "Bar", note: "joins letters that do not touch", add: () => addPart({ kind: "bar" }) },
  { text: "Stick", note: "goes into the cake or the pot", add: () => addPart({ kind: "stick" }) },
  { text: "Flat stake", note: "pointed body, the letters stand in its notch", add: () => addPart({ kind: "stake" }) },
  { text: "Loop", note: "for a ring or an ear wire", add: () => addPart({ kind: "loop" }) },
  { text: "Backing", note: "the lettering’s outline, grown; letters engraved", add: () => addUnder({ kind: "backing" }) },
  { text: "Base shape", note: "plate, disc, arch, tag …; letters engraved", add: () => addUnder({ kind: "shape" }) },
  {
    text: "Frame",
    note: "a ring or frame around the word",
    add: () => addPart({ kind: "shape", form: "disc", frame: 5, opening: "bars" }),
  },
];

/** On a plate the letters are engraved: as part of it nothing of their outline would be left. */
function addUnder(plate: { kind: "backing" | "shape" }): void {
  usePiece.getState().change((old) => {
    const piece = addTo(old, plate);
    const engraved = (part: Part): Part => (part.kind === "word" && part.meets === "add" ? { ...part, meets: "engrave" } : part);
    return { ...piece, parts: piece.parts.map(engraved) };
  });
}

/**
 * A new ornament takes the place of the counter when a letter that has one is in the hand. Else it lies right of the lettering, and goes
 * from there to where it joins most, as one step of undo: where something is loose or weak it bridges that, else it is joined to the
 * nearest part.
 */
async function addOrnament(name: SymbolName): Promise<void> {
  const { examination, selection } = useBench.getState();
  const { piece: before } = usePiece.getState();
  const letter = selection?.move.what === "letter" ? selection.move : null;
  const counter = before && letter && (await counterFor(before, letter, name).catch(() => null));
  if (counter && usePiece.getState().piece === before) {
    addPart({ kind: "ornament", name, ...counter, meets: "carve", closes: true });
    toast("It stands in the place of the counter, and goes with its letter.");
    return;
  }
  const box = examination?.box;
  const at = box ? { x: Math.round(box.maxX + 8), y: Math.round((box.minY + box.maxY) / 2) } : { x: 0, y: 0 };
  const run = "new ornament";
  asRun(run, () => addPart({ kind: "ornament", name, at }));
  const added = usePiece.getState().piece?.parts.findLast(({ kind }) => kind === "ornament");
  if (added) placing = placing.then(() => placeOrnament(added.id, run));
}

/** A search that takes longer says so, ms. */
const SLOW = 400;

/** One after the other, so that two do not go to the same place. */
let placing = Promise.resolve();

async function placeOrnament(id: string, run: string): Promise<void> {
  const find = () => usePiece.getState().piece?.parts.find((part) => part.id === id);
  const [{ piece }, before] = [usePiece.getState(), find()];
  const looking = setTimeout(() => toast.loading("Looking for where it joins most …", { id }), SLOW);
  const place = piece && before && (await bestBridgePlace(piece, id).catch(() => null));
  clearTimeout(looking);
  toast.dismiss(id);
  // One that was moved, changed or removed meanwhile stays as the maker has it.
  if (!place || usePiece.getState().piece?.id !== piece.id || find() !== before) return;
  asRun(run, () => changePart<Ornament>(id, (old) => ({ ...old, at: place })));
  toast("It was put where it joins most. Drag it where you want it.");
}

/** Outlines of the maker's own are as high as ornaments are to begin with, mm. */
const ORNAMENT = 15;

/** What the maker keeps for other pieces is offered beside the ornaments. */
function putOwnOutline({ name, outline }: KeptOutline): void {
  const width = widthOfOutline(outline, ORNAMENT);
  if (width !== null) putOnPiece({ outline, height: ORNAMENT, width }, name);
}

export function HoldersStep({ piece }: { piece: Piece }) {
  const holders = piece.parts.filter((part): part is Holder => part.kind !== "word");
  const ties = holders.filter((part): part is Tie => part.kind === "tie");
  const many = ties.length > FEW_TIES;
  const single = many ? holders.filter(({ kind }) => kind !== "tie") : holders;
  return (
    <div className="flex flex-col gap-5">
      {holders.length === 0 && (
        <p className="text-[13px] text-quiet">
          Nothing holds the letters but each other. A bar joins letters that do not touch; a stick goes into the cake or the pot.
        </p>
      )}
      {single.map((holder) => (
        <HolderPart key={holder.id} part={holder} piece={piece} />
      ))}
      {many && <TiesForm ties={ties} />}
      <Menu
        className="w-80 p-1"
        trigger={
          <Button look="quiet" data-adds-parts className="-ml-3 self-start" disabled={!roomForParts(piece)}>
            <Plus size={16} aria-hidden="true" /> Add a holder or shape
          </Button>
        }
      >
        {KINDS.map(({ text, note, add }) => (
          <DropdownMenu.Item
            key={text}
            onSelect={add}
            className="rounded-lg px-3 py-1.5 outline-none data-[highlighted]:bg-ink/8"
          >
            {text}
            <span className="block text-[12px] text-quiet">{note}</span>
          </DropdownMenu.Item>
        ))}
        <DropdownMenu.Sub>
          <DropdownMenu.SubTrigger className="flex items-center justify-between rounded-lg px-3 py-1.5 outline-none data-[highlighted]:bg-ink/8 data-[state=open]:bg-ink/8">
            <span>
              Ornament
              <span className="block text-[12px] text-quiet">heart, star, leaf, anchor …</span>
            </span>
            <ChevronRight size={16} className="text-quiet" aria-hidden="true" />
          </DropdownMenu.SubTrigger>
          <DropdownMenu.SubContent
            sideOffset={6}
            collisionPadding={8}
            className="z-10 max-h-[var(--radix-dropdown-menu-content-available-height)] overflow-y-auto rounded-xl border border-rule bg-film p-2 shadow-lg"
          >
            <SymbolItems onPick={(name) => void addOrnament(name)} onPickOwn={putOwnOutline} />
          </DropdownMenu.SubContent>
        </DropdownMenu.Sub>
        <DropdownMenu.Item onSelect={() => bringIn()} className="rounded-lg px-3 py-1.5 outline-none data-[highlighted]:bg-ink/8">
          Drawing or picture
          <span className="block text-[12px] text-quiet">bring in your own: SVG, DXF, PDF, PNG, JPEG …</span>
        </DropdownMenu.Item>
      </Menu>
      <TieUp piece={piece} />
    </div>
  );
}
