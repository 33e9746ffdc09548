/**
 * A piece made larger or smaller as a whole.
 */
import type { Anchor, LetterChange, Part, Piece, Word, WordPath, WordSize } from "./schema";

export interface Scaling {
  /** So many times as large. */
  factor: number;
  /** Widths that have to stay as they are for the piece to hold or to be hung: of joints, ties, sticks, rings, and their holes. */
  keepWidths: boolean;
}

/** Hundredths of a millimetre would add up over many letters. */
const round = (mm: number) => Math.round(mm * 1e4) / 1e4;

/** All lengths of a piece, mm; angles and the sheet stay. It may outgrow its bounds (see `canBeKept`). */
export function scalePiece(piece: Piece, scaling: Scaling): Piece {
  return { ...piece, parts: piece.parts.map((part) => scalePart(part, scaling)) };
}

function scalePart(part: Part, { factor, keepWidths }: Scaling): Part {
  const by = (mm: number) => round(mm * factor);
  /** Of a width that may stay. */
  const width = (mm: number) => (keepWidths ? mm : by(mm));
  const end = (anchor: Anchor): Anchor => ({ ...anchor, x: by(anchor.x), y: by(anchor.y) });
  switch (part.kind) {
    case "word":
      return scaleWord(part, by, width);
    case "bar": {
      const length = part.length === "fit" ? part.length : by(part.length);
      return {
        ...part,
        length,
        overhang: by(part.overhang),
        height: by(part.height),
        overlap: by(part.overlap),
        corner: by(part.corner),
        dx: by(part.dx),
      };
    }
    case "stick":
      return { ...part, width: width(part.width), length: by(part.length), bite: by(part.bite), dx: by(part.dx) };
    case "tie": {
      const [first, second] = part.ends;
      const bend = part.bend === undefined ? {} : { bend: by(part.bend) };
      return { ...part, ...bend, width: width(part.width), ends: [end(first), end(second)] };
    }
    case "fill":
      return { ...part, at: end(part.at), width: by(part.width), reach: by(part.reach) };
    case "loop":
      return { ...part, outer: width(part.outer), hole: width(part.hole), bite: width(part.bite) };
    case "backing": {
      const holes = typeof part.holes === "number" ? by(part.holes) : part.holes;
      return { ...part, distance: by(part.distance), holes, lap: by(part.lap) };
    }
    case "shape": {
      const { size } = part;
      const frame = part.frame === undefined ? {} : { frame: by(part.frame) };
      return {
        ...part,
        ...frame,
        size:
          size.by === "fit"
            ? { by: "fit", margin: by(size.margin) }
            : { by: "own", width: by(size.width), height: by(size.height) },
        corner: by(part.corner),
        dx: by(part.dx),
        dy: by(part.dy),
        gap: by(part.gap),
        lap: by(part.lap),
        bar: by(part.bar),
        bite: by(part.bite),
      };
    }
    case "stake":
      return {
        ...part,
        below: by(part.below),
        gap: by(part.gap),
        bite: by(part.bite),
        margin: by(part.margin),
        point: by(part.point),
        ...given({ total: part.total }, by),
        corner: by(part.corner),
      };
    case "ornament":
      return { ...part, height: by(part.height), at: end(part.at), round: by(part.round), gap: by(part.gap) };
    case "drawing":
      return {
        ...part,
        height: by(part.height),
        at: end(part.at),
        thicken: by(part.thicken),
        round: by(part.round),
        gap: by(part.gap),
        lap: by(part.lap),
        bar: by(part.bar),
        bite: by(part.bite),
        ...given({ frame: part.frame }, by),
      };
  }
}

type Length = (mm: number) => number;

function scaleWord(word: Word, by: Length, width: Length): Word {
  const changes = Object.fromEntries(Object.entries(word.changes).map(([key, change]) => [key, scaleChange(change, by)]));
  return {
    ...word,
    ...given({ overlap: word.overlap }, by),
    ...given({ join: word.join, tieWidth: word.tieWidth, bitesBefore: word.bitesBefore }, width),
    ...(word.bridges && { bridges: given({ width: word.bridges.width }, width) }),
    size: scaleSize(word.size, by),
    changes,
    tracking: by(word.tracking),
    thicken: by(word.thicken),
    roundOuter: by(word.roundOuter),
    roundInner: by(word.roundInner),
    gap: by(word.gap),
    at: { x: by(word.at.x), y: by(word.at.y) },
    ...(word.path && { path: scalePath(word.path, by, width) }),
  };
}

function scaleSize(size: WordSize, by: Length): WordSize {
  if (size.by === "both" || size.by === "within") return { ...size, mm: by(size.mm), height: by(size.height) };
  return { ...size, mm: by(size.mm) };
}

function scaleChange(change: LetterChange, by: Length): LetterChange {
  const { dx, dy, dotDx, dotDy, reach, kern } = change;
  return { ...change, dx: by(dx), dy: by(dy), dotDx: by(dotDx), dotDy: by(dotDy), ...given({ reach, kern }, by) };
}

function scalePath(path: WordPath, by: Length, width: Length): WordPath {
  if (path.kind === "stacked") return { ...path, joint: width(path.joint) };
  if (path.kind === "outline") return { ...path, distance: by(path.distance) };
  const line = { distance: by(path.distance), ...given({ line: path.line }, by) };
  switch (path.kind) {
    case "arc": {
      const { between } = path;
      const rings = between && { between: { gap: by(between.gap), bite: by(between.bite), line: by(between.line) } };
      return { ...path, ...line, radius: by(path.radius), ...rings };
    }
    case "curve":
      return { ...path, ...line, points: path.points.map(({ x, y }) => ({ x: by(x), y: by(y) })) };
    case "spiral":
      return { ...path, ...line, radius: by(path.radius), pitch: by(path.pitch) };
  }
}

/** Those of the lengths that are there, each changed. */
function given<Key extends string>(
  lengths: Partial<Record<Key, number | undefined>>,
  change: Length,
): Partial<Record<Key, number>> {
  const entries = Object.entries<number | undefined>(lengths).flatMap(([key, mm]) =>
    mm === undefined ? [] : [[key, change(mm)]],
  );
  return Object.fromEntries(entries) as Partial<Record<Key, number>>;
}
