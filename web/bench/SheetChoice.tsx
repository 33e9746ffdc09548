import { formatLength, type Piece, STOCKS } from "@mend-joint/core/piece";
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useId } from "react";
import { LOOKS, MaterialPattern } from "../stage/materials";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Menu } from "../ui/Menu";
import { VerdictMark } from "../ui/VerdictMark";
import { useTried } from "./Outcomes";

/** The sheet everything is cut from; its rule decides what holds. */
export function SheetChoice({ piece }: { piece: Piece }) {
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
          <Swatch material={stock.material} />
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
    </Menu>
  );
}

const OPTIONS = STOCKS.map(({ id }) => ({ value: id }));
const cutFrom = (piece: Piece, id: string): Piece => ({ ...piece, stock: { ...STOCKS.find((each) => each.id === id)! } });

/** The sheets, with what the piece would be worth in each of them. */
function Stocks({ piece }: { piece: Piece }) {
  const units = useBench((state) => state.units);
  const tried = useTried(piece, OPTIONS, cutFrom);
  return STOCKS.map((each, i) => {
    const answer = tried[i]?.piece === piece ? tried[i].examination : undefined;
    return (
      <DropdownMenu.Item
        key={each.id}
        onSelect={() => usePiece.getState().change((old) => cutFrom(old, each.id))}
        className="flex items-center gap-3 rounded-lg px-2 py-2 outline-none data-[highlighted]:bg-ink/8"
      >
        <Swatch material={each.material} />
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

function Swatch({ material }: { material: keyof typeof LOOKS }) {
  const id = useId();
  return (
    <svg width={36} height={36} viewBox="8 4 24 24" className="shrink-0" aria-hidden="true">
      <defs>
        <MaterialPattern id={id} material={material} />
      </defs>
      <circle cx={20} cy={16} r={11} fill={`url(#${CSS.escape(id)})`} stroke={LOOKS[material].edge} strokeWidth={0.8} />
    </svg>
  );
}
