import { formatLength, type Units } from "@mend-joint/core/piece";
import type { LetteringFacts, Suitability } from "@mend-joint/core/shelf";
import { Trash2 } from "lucide-react";
import { regionPath } from "../stage/paths";
import { useBench } from "../state/bench";
import { VerdictMark } from "../ui/VerdictMark";
import type { ShelfRow } from "./facts";

const MARK = { well: "holds", "with care": "weak", not: "falls" } as const satisfies Record<Suitability, string>;
const WORD: Record<Suitability, string> = { well: "survives", "with care": "with care", not: "unsuitable" };
/** Room for the word on its card, px. */
const ROOM = { width: 296, height: 66 };

/** One lettering: the word as it would be cut, and what was measured of it. */
export function ShelfCard({
  row,
  chosen,
  onChoose,
  onRemove,
}: {
  row: ShelfRow;
  chosen: boolean;
  onChoose(): void;
  /** For fonts of the maker's own. */
  onRemove?: (() => void) | undefined;
}) {
  const units = useBench((state) => state.units);
  const { font, facts } = row;
  return (
    <div className="relative h-full">
      {onRemove && (
        <button
          type="button"
          aria-label={`Take ${font.name} off the shelf`}
          title="Take it off the shelf"
          onClick={onRemove}
          className="absolute top-2 right-2 p-1.5 text-quiet hover:text-falls"
        >
          <Trash2 size={15} />
        </button>
      )}
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={`flex h-full w-full flex-col gap-1 rounded-xl border px-4 pt-3 pb-3 text-left ${chosen ? "border-ink bg-ground" : "border-rule hover:border-ink"}`}
      >
        <span className="grid h-[70px] grid-cols-[minmax(0,1fr)] place-items-center">
          {facts ? (
            <WordShape facts={facts} />
          ) : (
            <span className="text-[13px] text-quiet">{facts === null ? "could not be read" : "…"}</span>
          )}
        </span>
        <span className="flex items-baseline justify-between gap-2 text-[14px]">
          <span className="truncate font-medium">{font.name}</span>
          {facts && (
            <span className="flex items-center gap-1 text-[13px] whitespace-nowrap text-quiet">
              <VerdictMark verdict={MARK[facts.suits]} size={15} />
              {WORD[facts.suits]}
            </span>
          )}
        </span>
        <span className="text-[12px] leading-snug text-quiet">{facts ? describe(facts, units) : font.style}</span>
      </button>
    </div>
  );
}

function WordShape({ facts: { box, material, suits } }: { facts: LetteringFacts }) {
  if (!box) return null;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const scale = Math.min(ROOM.width / width, ROOM.height / height);
  return (
    <svg
      className="max-w-full"
      viewBox={`0 0 ${width * scale} ${height * scale}`}
      width={width * scale}
      height={height * scale}
      aria-hidden="true"
    >
      <path
        d={regionPath(material)}
        transform={`scale(${scale} ${-scale}) translate(${-box.minX} ${-box.maxY})`}
        fillRule="evenodd"
        fill={suits === "not" ? "var(--color-quiet)" : "var(--color-ink)"}
      />
    </svg>
  );
}

function describe({ missing, thinnest, joined, neighbours, looseDots, smallestCounter }: LetteringFacts, units: Units): string {
  if (missing.length > 0) return `has no ${missing.slice(0, 5).join(" ")}${missing.length > 5 ? " …" : ""}`;
  const facts = [`strokes from ${formatLength(thinnest, units)}`];
  if (neighbours > 0)
    facts.push(
      joined === neighbours ? "all letters join" : joined === 0 ? "letters stand apart" : `${joined} of ${neighbours} joints`,
    );
  if (looseDots > 0) facts.push(`${looseDots} loose ${looseDots === 1 ? "piece" : "pieces"}`);
  if (smallestCounter !== null) facts.push(`holes from ${formatLength(smallestCounter, units)}`);
  return facts.join(" · ");
}
