/**
 * Changes a maker makes with the hand: each returns a changed copy and leaves the piece as it was.
 */
import { clampToBounds } from "./bounds";
import { resizePart, type Side } from "./resize";
import {
  type Anchor,
  type DrawingPart,
  type LetterChange,
  LIMITS,
  type Part,
  type Piece,
  parsePiece,
  type Tie,
  type Word,
} from "./schema";

export type Move =
  /** A letter, or only its dots and accents. */
  | { what: "letter" | "dots"; wordId: string; key: string; dx: number; dy: number }
  /** Several letters of any words, with their dots. */
  | { what: "letters"; letters: readonly { wordId: string; key: string }[]; dx: number; dy: number }
  /** A letter turned further, degrees. */
  | { what: "turn"; wordId: string; key: string; turn: number }
  /** A bridge in a cut-out letter goes round the inside that it holds, degrees. */
  | { what: "bridge"; wordId: string; key: string; hole: number; from: number; turn: number }
  | { what: "word"; wordId: string; dx: number; dy: number }
  /** An ornament or a drawing turned further about its middle, degrees. */
  | { what: "turn part"; id: string; turn: number }
  /** A loop goes round the outline, degrees. */
  | { what: "loop"; id: string; turn: number }
  /** An edge of a holder or shape goes outwards by so much, mm. */
  | { what: "size"; id: string; side: Side; out: number }
  /** A point that the curve of a word runs through. */
  | { what: "node"; wordId: string; index: number; dx: number; dy: number }
  /** One end of a tie. */
  | { what: "end"; id: string; index: 0 | 1; dx: number; dy: number }
  /** Bars and sticks slide sideways and take more or less overlap, loops go round; ties, shapes and ornaments go along whole. */
  | { what: "holder"; id: string; dx: number; dy: number };

export const UNCHANGED_LETTER: LetterChange = { dx: 0, dy: 0, dotDx: 0, dotDy: 0 };

/** Hundredths of a millimetre: finer than any machine cuts, coarse enough to read. */
const round = (mm: number) => Math.round(mm * 100) / 100;

/** A place: a hand that goes too far is stopped at what a piece can keep. */
const within = (mm: number) => Math.min(LIMITS.coordinate, Math.max(-LIMITS.coordinate, round(mm)));

export function applyMove(piece: Piece, move: Move): Piece {
  const change = (id: string, edit: (part: Part) => Part): Piece => ({
    ...piece,
    parts: piece.parts.map((part) => (part.id === id ? edit(part) : part)),
  });
  if (move.what === "turn") {
    return changeLetter(piece, move.wordId, move.key, (old) => ({ ...old, turn: turned((old.turn ?? 0) + move.turn) }));
  }
  if (move.what === "bridge") return putBridge(piece, move, turned(move.from + move.turn));
  if (move.what === "turn part") {
    return change(move.id, (part) => (canTurn(part) ? { ...part, turn: turned(part.turn + move.turn) } : part));
  }
  if (move.what === "loop") {
    return change(move.id, (part) => (part.kind === "loop" ? { ...part, angle: turned(part.angle + move.turn) } : part));
  }
  if (move.what === "size") return change(move.id, (part) => resizePart(part, move.side, move.out));
  const { dx, dy } = move;
  switch (move.what) {
    case "letters":
      return move.letters.reduce((now, letter) => applyMove(now, { what: "letter", ...letter, dx, dy }), piece);
    case "node":
      return change(move.wordId, (part) => (part.kind === "word" ? moveNode(part, move.index, dx, dy) : part));
    case "end":
      return change(move.id, (part) =>
        part.kind === "tie" ? shiftEnds(part, (_, i) => (i === move.index ? { x: dx, y: dy } : STILL)) : part,
      );
    case "letter":
    case "dots":
      return changeLetter(piece, move.wordId, move.key, (old) =>
        move.what === "letter"
          ? { ...old, dx: within(old.dx + dx), dy: within(old.dy + dy) }
          : { ...old, dotDx: within(old.dotDx + dx), dotDy: within(old.dotDy + dy) },
      );
    case "word":
      return change(move.wordId, (part) =>
        part.kind === "word" ? { ...part, at: { x: within(part.at.x + dx), y: within(part.at.y + dy) } } : part,
      );
    case "holder":
      return change(move.id, (part) => {
        if (part.kind === "bar")
          return { ...part, dx: within(part.dx + dx), overlap: clampToBounds(part.overlap + dy, "bar", "overlap") };
        if (part.kind === "stick")
          return { ...part, dx: within(part.dx + dx), bite: clampToBounds(part.bite + dy, "stick", "bite") };
        if (part.kind === "word" || part.kind === "backing" || part.kind === "stake") return part;
        // A tenth of a millimetre by the arrow keys is a degree round the piece.
        if (part.kind === "loop") return { ...part, angle: turned(part.angle - 10 * dx) };
        if (part.kind === "shape") return { ...part, dx: within(part.dx + dx), dy: within(part.dy + dy) };
        const shift = (end: Anchor) => ({ ...end, x: within(end.x + dx), y: within(end.y + dy) });
        if (part.kind === "fill" || part.kind === "ornament" || part.kind === "drawing") return { ...part, at: shift(part.at) };
        return shiftEnds(part, () => ({ x: dx, y: dy }));
      });
  }
}

/** Parts that are turned by hand. */
export const canTurn = (part: Part): part is Extract<Part, { kind: "ornament" | "drawing" }> =>
  part.kind === "ornament" || part.kind === "drawing";

/** @param angle direction from the inside that it holds, degrees; `null` for where it is best */
export function putBridge(
  piece: Piece,
  { wordId, key, hole }: { wordId: string; key: string; hole: number },
  angle: number | null,
): Piece {
  return changeLetter(piece, wordId, key, (old) => {
    const bridges = [...(old.bridges ?? [])];
    while (bridges.length <= hole) bridges.push(null);
    bridges[hole] = angle;
    return { ...old, bridges: bridges.some((each) => each !== null) ? bridges : undefined };
  });
}

/** Are its letters spread over a closed line? */
export const goesAround = ({ path }: Word): boolean => (path?.kind === "arc" || path?.kind === "outline") && path.around;

const STILL = { x: 0, y: 0 };

/** @param by how far each end goes, mm; it stays with its letter */
function shiftEnds(tie: Tie, by: (end: Anchor, index: 0 | 1) => { x: number; y: number }): Tie {
  const shifted = (index: 0 | 1): Anchor => {
    const end = tie.ends[index];
    const { x, y } = by(end, index);
    return { ...end, x: within(end.x + x), y: within(end.y + y) };
  };
  return { ...tie, ends: [shifted(0), shifted(1)] };
}

/** Where the letters of a word stand. */
interface Standing {
  wordId: string;
  letters: readonly { key: string; origin: { x: number; y: number } }[];
}

/** Where an end lies on the piece, mm; `null` where the letter that it sits on is not there. */
export function placeOfEnd({ letter, x, y }: Anchor, words: readonly Standing[]): { x: number; y: number } | null {
  if (!letter) return { x, y };
  const home = words.find(({ wordId }) => wordId === letter.wordId)?.letters.find(({ key }) => key === letter.key);
  return home ? { x: home.origin.x + x, y: home.origin.y + y } : null;
}

/** Where the two ends of a tie lie. */
export type TiePlaces = readonly [{ x: number; y: number }, { x: number; y: number }];

/** Direction of a tie from its left to its right end, degrees from −90 to 90, and its length from end to end, mm. */
export function courseOf([first, second]: TiePlaces): { angle: number; length: number } {
  const [dx, dy] = [second.x - first.x, second.y - first.y];
  const turn = dx < 0 || (dx === 0 && dy < 0) ? -1 : 1;
  return { angle: (Math.atan2(dy * turn, dx * turn) * 180) / Math.PI, length: Math.hypot(dx, dy) };
}

/** A tie turned, or made longer or shorter, about its middle. @param course the angle in degrees, the length in mm, or both */
export function withCourse(tie: Tie, places: TiePlaces, course: { angle?: number; length?: number }): Tie {
  const now = courseOf(places);
  const [angle, length] = [((course.angle ?? now.angle) * Math.PI) / 180, course.length ?? now.length];
  const middle = { x: (places[0].x + places[1].x) / 2, y: (places[0].y + places[1].y) / 2 };
  // The end at the left stays the one at the left.
  const firstIsRight = places[0].x > places[1].x || (places[0].x === places[1].x && places[0].y > places[1].y);
  return shiftEnds(tie, (_, index) => {
    const side = (index === 0) === firstIsRight ? 1 : -1;
    const [x, y] = [middle.x + (side * length * Math.cos(angle)) / 2, middle.y + (side * length * Math.sin(angle)) / 2];
    return { x: x - places[index].x, y: y - places[index].y };
  });
}

/** A point of the curve a word stands on. */
function moveNode(word: Word, index: number, dx: number, dy: number): Word {
  if (word.path?.kind !== "curve") return word;
  const points = word.path.points.map((p, i) => (i === index ? { x: within(p.x + dx), y: within(p.y + dy) } : p));
  return { ...word, path: { ...word.path, points } };
}

/** Degrees from −180 to 180, by tenths. */
const turned = (degrees: number) => Math.round((((((degrees + 180) % 360) + 360) % 360) - 180) * 10) / 10;

/** True for a move that changes nothing. */
export function isStill(move: Move): boolean {
  if (move.what === "size") return move.out === 0;
  return "turn" in move ? move.turn === 0 : move.dx === 0 && move.dy === 0;
}

/** What a change is when nothing is changed; what is not here is then not there. */
const NEUTRAL: Partial<LetterChange> = { ...UNCHANGED_LETTER, turn: 0, scale: 1, mirror: false, kern: 0, reach: 0 };

function isUnchanged(change: LetterChange): boolean {
  return Object.entries(change).every(
    ([field, value]) =>
      value === undefined || value === NEUTRAL[field as keyof LetterChange] || (Array.isArray(value) && value.length === 0),
  );
}

/** Changes one letter of a word. */
export function changeLetter(piece: Piece, wordId: string, key: string, edit: (old: LetterChange) => LetterChange): Piece {
  return {
    ...piece,
    parts: piece.parts.map((part) => {
      if (part.id !== wordId || part.kind !== "word") return part;
      const next = edit(part.changes[key] ?? UNCHANGED_LETTER);
      const { [key]: _, ...others } = part.changes;
      return { ...part, changes: isUnchanged(next) ? others : { ...others, [key]: next } };
    }),
  };
}

/**
 * Which parts come before which: base shapes lie under the words, holders join what is there when they come, ties and fillings
 * close what is left.
 */
const ORDER: Part["kind"][] = ["backing", "shape", "drawing", "word", "stake", "bar", "ornament", "stick", "loop", "tie", "fill"];
/** What is cut out, stands in a gap, or is a mark comes after all that it may lie on. */
const LIES_UNDER: ReadonlySet<DrawingPart["meets"]> = new Set(["add", "set-in"]);
const placeInOrder = (part: Part) =>
  ORDER.indexOf(part.kind === "drawing" && !LIES_UNDER.has(part.meets) ? "ornament" : part.kind);

/** Parts in their build order; those of one kind stay as they were. */
export function inBuildOrder(parts: readonly Part[]): Part[] {
  return [...parts].sort((a, b) => placeInOrder(a) - placeInOrder(b));
}

/** A piece with one part changed. */
export function withPart<P extends Part>(piece: Piece, id: string, edit: (part: P) => P): Piece {
  return { ...piece, parts: piece.parts.map((part) => (part.id === id ? edit(part as P) : part)) };
}

/** Adds a part where it belongs in the build order. @throws PieceError when the part or the piece would not be one that can be kept */
export function addPart(piece: Piece, part: { kind: Part["kind"]; [key: string]: unknown }, stem: string = part.kind): Piece {
  const [made] = parsePiece({ ...piece, parts: [{ ...part, id: freeId(piece, stem) }] }).parts;
  return { ...piece, parts: inBuildOrder([...piece.parts, made!]) };
}

/** A next line comes close enough that its capitals nearly touch the baseline above. */
const lineHeight = ({ size }: Word) => (size.by === "cap-height" ? size.mm * 1.35 : 30);

/** Adds an empty line below the last one, which looks as that one does and meets what lies under it as that one does. */
export function addLine(piece: Piece): Piece {
  const last = piece.parts.findLast((part): part is Word => part.kind === "word");
  const usual = { by: "cap-height", mm: 25 };
  if (!last) return addPart(piece, { kind: "word", text: "", font: "pacifico", size: usual }, "w1");
  const size = last.size.by === "cap-height" ? last.size : usual;
  const at = { x: last.at.x, y: Math.max(-LIMITS.coordinate, last.at.y - lineHeight(last)) };
  const own = { text: "", keys: [], changes: {}, path: undefined, bitesBefore: undefined, size, at };
  return addPart(piece, { ...last, ...own }, "w1");
}

/** Every line is set as one of them: font and what is done to its strokes, not its size. */
export function dressAlike(piece: Piece, wordId: string): Piece {
  const like = piece.parts.find((part): part is Word => part.kind === "word" && part.id === wordId);
  if (!like) return piece;
  const { font, axes, features, slant, thicken, corners, roundOuter, roundInner } = like;
  const dress = { font, axes, features, slant, thicken, corners, roundOuter, roundInner };
  return { ...piece, parts: piece.parts.map((part) => (part.kind === "word" && part !== like ? { ...part, ...dress } : part)) };
}

/** Takes a point out of the curve of a word; two are always left. */
export function removeNode(piece: Piece, wordId: string, index: number): Piece {
  return {
    ...piece,
    parts: piece.parts.map((part) => {
      if (part.kind !== "word" || part.id !== wordId || part.path?.kind !== "curve" || part.path.points.length <= 2) return part;
      return { ...part, path: { ...part.path, points: part.path.points.filter((_, i) => i !== index) } };
    }),
  };
}

/** One point more, half way to the next one; after the last, as far on as that is from the one before. */
export function addNode(piece: Piece, wordId: string, after: number): Piece {
  return {
    ...piece,
    parts: piece.parts.map((part) => {
      if (part.kind !== "word" || part.id !== wordId || part.path?.kind !== "curve") return part;
      const { points } = part.path;
      const at = points[after];
      if (!at || points.length >= LIMITS.nodes) return part;
      const next = points[after + 1];
      const before = points[after - 1] ?? { x: at.x - 10, y: at.y };
      const made = next
        ? { x: round((at.x + next.x) / 2), y: round((at.y + next.y) / 2) }
        : { x: within(2 * at.x - before.x), y: within(2 * at.y - before.y) };
      return { ...part, path: { ...part.path, points: points.toSpliced(after + 1, 0, made) } };
    }),
  };
}

/** An id that no part of the piece has yet: "bar", "bar2" … */
export function freeId(piece: Piece, stem: string): string {
  const taken = new Set(piece.parts.map((part) => part.id));
  let id = stem;
  for (let n = 2; taken.has(id); n++) id = `${stem}${n}`;
  return id;
}
