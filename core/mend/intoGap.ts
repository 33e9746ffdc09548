/**
 * A word put into the free space of a larger shape: in its middle, stretched until it bites above and below.
 */
import { buildPiece, type Library, layOutWords } from "../examine";
import { crossingsAt, joinBoxes, type Region } from "../geometry";
import type { Part, Piece, Word } from "../piece";
import { changeWord, round } from "./scene";

/** Places across the word at which the space is looked at. */
const COLUMNS = 41;
/** A shape as large as the lettering changes with the word; then the space is looked at again. */
const ROUNDS = 4;
/** mm */
const SETTLED = 0.01;

/**
 * Its width stays, unless the space is narrower.
 *
 * @param bite how far the tallest letters reach into the material above and below, mm
 * @returns `null` where there is no material above and below the word
 */
export function intoGap(piece: Piece, wordId: string, bite: number, library: Library): Piece | null {
  let now = piece;
  for (let pass = 0; pass < ROUNDS; pass++) {
    const { layouts } = layOutWords(now, library);
    const box = layouts.find((layout) => layout.wordId === wordId)?.box;
    if (!box) return null;
    const others = buildPiece(now, layouts).solids.filter(({ partId }) => partId !== wordId);
    const rings = others.flatMap(({ region }) => region);
    const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    const across = freeSpan(rings, { x, y }, "x");
    const [left, right] = [Math.max(across.low, box.minX), Math.min(across.high, box.maxX)];
    const columns = Array.from({ length: COLUMNS }, (_, k) =>
      freeSpan(rings, { x: left + ((right - left) * (k + 0.5)) / COLUMNS, y }, "y"),
    ).filter(({ low, high }) => Number.isFinite(low) && Number.isFinite(high));
    if (columns.length === 0) return null;
    const top = Math.max(...columns.map(({ high }) => high)) + bite;
    const bottom = Math.min(...columns.map(({ low }) => low)) - bite;
    const middle = Number.isFinite(across.low + across.high) ? (across.low + across.high) / 2 : x;
    const width = round(Math.min(box.maxX - box.minX, across.high - across.low));
    const height = round(top - bottom);
    const sized = changeWord(now, wordId, (word) => ({ ...word, size: { by: "both", mm: width, height } }));
    const grown = boxOf(sized, wordId, library);
    if (!grown) return null;
    const move = { x: middle - (grown.minX + grown.maxX) / 2, y: (top + bottom) / 2 - (grown.minY + grown.maxY) / 2 };
    const moved = changeWord(
      sized,
      wordId,
      (word): Word => ({ ...word, at: { x: round(word.at.x + move.x), y: round(word.at.y + move.y) } }),
    );
    now = withShapesInPlace(moved, layouts, library);
    const still = Math.abs(height - (box.maxY - box.minY)) < SETTLED && Math.hypot(move.x, move.y) < 2 * SETTLED;
    if (still) break;
  }
  return now;
}

const boxOf = (piece: Piece, wordId: string, library: Library) =>
  layOutWords(piece, library).layouts.find((layout) => layout.wordId === wordId)?.box;

/** Shapes have their middle in that of the lettering; when that goes elsewhere they are to stay where they were. */
function withShapesInPlace(piece: Piece, before: ReturnType<typeof layOutWords>["layouts"], library: Library): Piece {
  const [old, now] = [before, layOutWords(piece, library).layouts].map((all) => joinBoxes(all.map(({ box }) => box)));
  if (!old || !now) return piece;
  const [dx, dy] = [(old.minX + old.maxX - now.minX - now.maxX) / 2, (old.minY + old.maxY - now.minY - now.maxY) / 2];
  const parts = piece.parts.map(
    (part): Part => (part.kind === "shape" ? { ...part, dx: round(part.dx + dx), dy: round(part.dy + dy) } : part),
  );
  return { ...piece, parts };
}

/** How far the empty space reaches from a place, along an axis; infinite where nothing ends it. */
function freeSpan(rings: Region, at: { x: number; y: number }, along: "x" | "y"): { low: number; high: number } {
  const [here, line] = along === "x" ? [at.x, at.y] : [at.y, at.x];
  const crossings = crossingsAt(rings, along, line);
  return {
    low: crossings.findLast((crossing) => crossing < here) ?? -Infinity,
    high: crossings.find((crossing) => crossing >= here) ?? Infinity,
  };
}
