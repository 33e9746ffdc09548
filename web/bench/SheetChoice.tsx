import { formatLength, isNewer, type Piece, type ShelfSheet, type Stock } from "@mend-joint/core/piece";
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useMemo } from "react";
import { Link } from "react-router";
import { Swatch } from "../stage/Swatch";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { useSheets, useStockShelf } from "../state/stocks";
import { Menu } from "../ui/Menu";
import { VerdictMark } from "../ui/VerdictMark";
import { useTried } from "./Outcomes";

/** The sheet everything is cut from; its rule decides what holds. */
export function SheetChoice({ piece }: { piece: Piece }) {
  const { stock } = piece;
  return (
    <>
      <SheetMenu piece={piece} />
      <Newer stock={stock} />
    </>
  );
}

/** The shelf has other figures for the sheet than the piece has: taken only when the maker wants them. */
function Newer({ stock }: { stock: Stock }) {
  const shelf = useSheets().find(({ id }) => id === stock.id);
  const fetched = useStockShelf((state) => state.fetched);
  if (!fetched || !shelf || !isNewer(stock, shelf.stock)) return null;
  return (
    <p className="flex items-center justify-between gap-2 border-b border-rule px-5 py-2 text-[13px] text-weak">
      Your shelf has other figures for it.
      <button
        type="button"
        className="shrink-0 rounded-full px-3 py-1 font-medium text-ink underline underline-offset-4 hover:bg-ink/8"
        onClick={() => usePiece.getState().change((old) => ({ ...old, stock: { ...shelf.stock } }))}
      >
        Take them
      </button>
    </p>
  );
}

function SheetMenu({ piece }: { piece: Piece }) {
  const units = useBench((state) => state.units);
  const { stock } = piece;
  return (
    <Menu
      className="w-[264px] p-1"
      trigger={
        <button
          type="button"
          className="flex w-full items-center gap-3 border-b border-rule px-5 py-3 text-left outline-offset-[-2px] hover:bg-ink/4"
        >
          <Swatch sheet={stock} />
          <span className="min-w-0 flex-1">
            <span className="block truncate font-semibold">{stock.name}</span>
            <span className="block text-[13px] text-quiet">
              joints from <span className="figure">{formatLength(stock.leastWidth, units)}</span>
            </span>
          </span>
          <ChevronDown size={16} className="text-quiet" aria-hidden="true" />
          <span className="sr-only">Change the sheet</span>
        </button>
      }
    >
      <Stocks piece={piece} />
      <DropdownMenu.Item
        asChild
        className="mt-1 block rounded-lg border-t border-rule px-3 py-2 text-[14px] outline-none data-[highlighted]:bg-ink/8"
      >
        <Link to="/stock">Change your sheets …</Link>
      </DropdownMenu.Item>
    </Menu>
  );
}

const cutFrom = (piece: Piece, id: string, sheets: readonly ShelfSheet[]): Piece => {
  const found = sheets.find((each) => each.id === id);
  return found ? { ...piece, stock: { ...found.stock } } : piece;
};

/** The sheets, with what the piece would be worth in each of them. */
function Stocks({ piece }: { piece: Piece }) {
  const units = useBench((state) => state.units);
  const sheets = useSheets();
  const options = useMemo(() => sheets.map(({ id }) => ({ value: id })), [sheets]);
  const tried = useTried(piece, options, (old, id) => cutFrom(old, id, sheets));
  return sheets.map(({ stock: each }, i) => {
    const answer = tried[i]?.piece === piece ? tried[i].examination : undefined;
    return (
      <DropdownMenu.Item
        key={each.id}
        onSelect={() => usePiece.getState().change((old) => cutFrom(old, each.id, sheets))}
        className="flex items-center gap-3 rounded-lg px-2 py-2 outline-none data-[highlighted]:bg-ink/8"
      >
        <Swatch sheet={each} />
        <span className="flex-1">{each.name}</span>
        <span className="figure text-[12px] text-quiet">{formatLength(each.leastWidth, units)}</span>
        <span className="grid size-4 place-items-center" title={answer && `in this sheet: ${answer.verdict}`}>
          {answer && <VerdictMark verdict={answer.verdict} size={14} />}
          {answer && <span className="sr-only">, {answer.verdict}</span>}
        </span>
      </DropdownMenu.Item>
    );
  });
}
