/**
 * How far the hand has moved or turned what it holds, beside it.
 */
import type { Examination } from "@mend-joint/core";
import { joinBoxes, type Point, regionBox } from "@mend-joint/core/geometry";
import { formatLength, type Move, type Units } from "@mend-joint/core/piece";
import { useBench } from "../state/bench";
import { type Size, toScreen, type View } from "./view";

/** px */
const HEIGHT = 24;
const MARGIN = 6;
/** The rulers at the upper and left edge. */
const RULER = 22;

export function MoveNote({ examination, move, view, size }: { examination: Examination; move: Move; view: View; size: Size }) {
  const units = useBench((state) => state.units);
  const selection = useBench((state) => state.selection);
  const corner = cornerOf(examination, move, selection?.solids ?? []);
  if (!corner) return null;
  const at = toScreen(view, size, corner);
  const text = textOf(move, units);
  const width = text.length * 7.3 + 16;
  // Beside what is held, but never beyond the edge of the stage.
  const x = Math.max(RULER + MARGIN, Math.min(at.x + 10, size.width - width - MARGIN));
  const y = Math.max(RULER + MARGIN, Math.min(at.y - 34, size.height - HEIGHT - MARGIN));
  return (
    <g pointerEvents="none">
      <rect x={x} y={y} width={width} height={HEIGHT} rx={HEIGHT / 2} fill="var(--color-ink)" />
      <text x={x + 8} y={y + 16} fontSize={12} className="figure" fill="var(--color-film)" xmlSpace="preserve">
        {text}
      </text>
    </g>
  );
}

function cornerOf({ solids, words }: Examination, move: Move, held: readonly string[]): Point | null {
  if (move.what === "node") {
    const box = words.find(({ wordId }) => wordId === move.wordId)?.box;
    return box ? { x: box.maxX, y: box.maxY } : null;
  }
  const ids = move.what === "turn" ? [`${move.wordId}:${move.key}`] : "id" in move ? [move.id] : held;
  const box = joinBoxes(solids.filter(({ id }) => ids.includes(id)).map(({ region }) => regionBox(region)));
  return box && { x: box.maxX, y: box.maxY };
}

function textOf(move: Move, units: Units): string {
  if ("turn" in move) return `${move.turn < 0 ? "↻" : "↺"} ${Math.abs(move.turn).toFixed(1)}°`;
  if (move.what === "size") return `${move.out < 0 ? "smaller by" : "larger by"} ${formatLength(Math.abs(move.out), units, 2)}`;
  const way = (value: number, positive: string, negative: string) =>
    `${value < 0 ? negative : positive} ${formatLength(Math.abs(value), units, 2)}`;
  return `${way(move.dx, "→", "←")}  ${way(move.dy, "↑", "↓")}`;
}
