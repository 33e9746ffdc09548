/**
 * A word put into the free space of a larger shape: in its middle, stretched until it bites above and below.
 */
import { buildPiece, type Library, layOutWords } from "../examine";
import { type Box, crossingsAt, joinBoxes, type Region, regionBox } from "../geometry";
import { changeLetter, clampToBounds, type LetterChange, type Part, type Piece, type Word } from "../piece";
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

/** Places across a letter at which the space is looked at. */
const COLUMNS_OF_LETTER = 9;

/**
 * Each letter of a word by itself is stretched until it bites above and below, so that short ones reach too. Of a letter with a dot the
 * body reaches down and the dot goes up.
 *
 * @returns `null` where there is no material above and below any of them, or the word does not run straight
 */
export function lettersIntoGap(piece: Piece, wordId: string, bite: number, library: Library): Piece | null {
  const word = piece.parts.find((part): part is Word => part.kind === "word" && part.id === wordId);
  // From where they stand by themselves, so that doing it again does no more.
  const plain = changeWord(piece, wordId, (old) => ({ ...old, changes: withoutStretch(old.changes) }));
  const { layouts } = layOutWords(plain, library);
  const layout = layouts.find((each) => each.wordId === wordId);
  if (!layout || !word || word.path) return null;
  const rings = buildPiece(plain, layouts)
    .solids.filter(({ partId }) => partId !== wordId)
    .flatMap(({ region }) => region);
  let made = plain;
  const stretched: Box[] = [];
  for (const { key, islands } of layout.letters) {
    const [body, ...dots] = islands.map(({ region }) => regionBox(region));
    const space = body && spaceAround(rings, joinBoxes([body, ...dots])!);
    if (!body || !space) continue;
    const [top, bottom] = [space.high + bite, space.low - bite];
    const dotsTop = Math.max(...dots.map((box) => box?.maxY ?? -Infinity));
    const up = dots.length > 0 ? 0 : round(top - body.maxY);
    const more = clampToBounds(body.minY + up - bottom, "word", "changes", "reach");
    stretched.push({ ...body, minY: bottom, maxY: top });
    made = changeLetter(made, wordId, key, (old) => ({
      ...old,
      dy: round(old.dy + up),
      reach: more > 0 ? more : undefined,
      dotDy: dots.length > 0 ? round(old.dotDy + top - dotsTop) : old.dotDy,
    }));
  }
  const grown = joinBoxes([...stretched, layout.box]);
  if (stretched.length === 0 || !grown) return null;
  // A size that is held means the finished word: stretched letters are part of it.
  const held = (size: Word["size"]): Word["size"] =>
    size.by === "cap-height" ? size : { by: "both", mm: round(grown.maxX - grown.minX), height: round(grown.maxY - grown.minY) };
  return withShapesInPlace(
    changeWord(made, wordId, (old) => ({ ...old, size: held(old.size) })),
    layouts,
    library,
  );
}

/** Letters as they are when they are not stretched into a gap. */
function withoutStretch(changes: Word["changes"]): Word["changes"] {
  const plain = ([key, change]: [string, LetterChange]): [string, LetterChange] =>
    change.reach === undefined ? [key, change] : [key, { ...change, dy: 0, reach: undefined }];
  return Object.fromEntries(Object.entries(changes).map(plain));
}

/** How far the space reaches above and below a box at most; `null` where nothing ends it. */
function spaceAround(rings: Region, { minX, minY, maxX, maxY }: Box): { low: number; high: number } | null {
  const spans = Array.from({ length: COLUMNS_OF_LETTER }, (_, k) =>
    freeSpan(rings, { x: minX + ((maxX - minX) * (k + 0.5)) / COLUMNS_OF_LETTER, y: (minY + maxY) / 2 }, "y"),
  ).filter(({ low, high }) => Number.isFinite(low) && Number.isFinite(high));
  if (spans.length === 0) return null;
  return { low: Math.min(...spans.map(({ low }) => low)), high: Math.max(...spans.map(({ high }) => high)) };
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
