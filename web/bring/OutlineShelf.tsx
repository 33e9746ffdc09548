/**
 * Outlines that are at hand: those that the maker keeps, and a few of ours.
 */
import { type Box, flatten, parsePathData, regionBox } from "@mend-joint/core/geometry";
import { type KeptOutline, OUTLINES } from "@mend-joint/core/piece";
import { Trash2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import { keepOutline, removeOutline } from "../state/api";
import { outlinesOnShelf } from "./keep";

/** Ours, at the size they were drawn for, mm high. */
const SHIPPED: readonly KeptOutline[] = [
  { id: "bay", name: "bay", outline: OUTLINES.bay, height: 92.3 },
  { id: "oak", name: "oak", outline: OUTLINES.oak, height: 114 },
  { id: "capstan", name: "capstan wheel", outline: OUTLINES.capstan, height: 124 },
];

/** Box of an outline as drawn; what cannot be read has none. */
const boxOfOutline = (outline: string): Box | null => regionBox((parsePathData(outline) ?? []).map((path) => flatten(path, 0.1)));

/** How wide an outline is at a height, mm; `null` for what cannot be read. */
export function widthOfOutline(outline: string, height: number): number | null {
  const box = boxOfOutline(outline);
  return box && (height * (box.maxX - box.minX)) / (box.maxY - box.minY);
}

export function OutlineShelf({ onPick }: { onPick(outline: KeptOutline): void }) {
  const [own, setOwn] = useState<KeptOutline[]>([]);
  useEffect(() => {
    void outlinesOnShelf().then(setOwn);
  }, []);
  const remove = async (outline: KeptOutline) => {
    try {
      await removeOutline(outline.id);
      setOwn((all) => all.filter(({ id }) => id !== outline.id));
      const back = () => void keepOutline(outline).then(() => setOwn((all) => [...all, outline]));
      toast(`“${outline.name}” is off your shelf. Pieces that have it keep it.`, {
        action: { label: "Put it back", onClick: back },
      });
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  return (
    <div className="flex w-full max-w-[860px] flex-col gap-5 text-left">
      {own.length > 0 && (
        <section aria-labelledby="shelf-own">
          <h2 id="shelf-own" className="mb-2 font-display text-[17px] font-semibold">
            From your shelf
          </h2>
          <Row outlines={own} onPick={onPick} onRemove={(outline) => void remove(outline)} />
        </section>
      )}
      <section aria-labelledby="shelf-shipped">
        <h2 id="shelf-shipped" className="mb-2 font-display text-[17px] font-semibold">
          Or begin with one of these
        </h2>
        <Row outlines={SHIPPED} onPick={onPick} />
      </section>
    </div>
  );
}

interface RowProps {
  outlines: readonly KeptOutline[];
  onPick(outline: KeptOutline): void;
  onRemove?(outline: KeptOutline): void;
}

function Row({ outlines, onPick, onRemove }: RowProps) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(120px,1fr))] gap-3">
      {outlines.map((outline) => (
        <li key={outline.id} className="relative">
          <button
            type="button"
            onClick={() => onPick(outline)}
            className="flex w-full flex-col items-center gap-2 rounded-xl border border-rule p-3 text-[13px] hover:border-ink"
          >
            <Silhouette outline={outline.outline} />
            {outline.name}
          </button>
          {onRemove && (
            <button
              type="button"
              aria-label={`Take ${outline.name} off the shelf`}
              title="Take it off the shelf"
              onClick={() => onRemove(outline)}
              className="absolute top-1 right-1 grid size-7 place-items-center rounded text-quiet hover:text-falls"
            >
              <Trash2 size={15} />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

export function Silhouette({ outline, className = "h-16 w-full" }: { outline: string; className?: string }) {
  const box = useMemo(() => boxOfOutline(outline), [outline]);
  if (!box) return null;
  const { minX, minY, maxX, maxY } = box;
  return (
    <svg viewBox={`${minX} ${minY} ${maxX - minX} ${maxY - minY}`} className={className} aria-hidden="true">
      <path d={outline} fillRule="evenodd" className="fill-ink/75" />
    </svg>
  );
}
