/**
 * Base shapes, solid or as frames, and frames that make room for a word.
 */
import {
  arcPoints,
  type Box,
  circleRing,
  difference,
  islandsOf,
  normalise,
  offset,
  type Point,
  type Region,
  type Ring,
  regionArea,
  regionBox,
  ringArea,
  roundOuterCorners,
  transformRegion,
  union,
} from "../geometry";
import type { Shape } from "../piece";

/** What a shape goes by. */
export interface ShapeSurroundings {
  lettering: Box | null;
  /** The first line that runs round a middle: where that is, and how far from it the line reaches. */
  ring: { middle: Point; outer: number } | null;
  /** For each word its box and the boxes of its letters without their dots and accents, from left to right. */
  words: { box: Box; bodies: Box[] }[];
  /** All of the lettering; only asked for by frames that end in it. */
  letters(): Region;
}

const NO_LETTERING: Box = { minX: -30, minY: -10, maxX: 30, maxY: 10 };

export function shapeOutline(shape: Shape, around: ShapeSurroundings): Region {
  const box = outerBox(shape, around);
  const solid = formOutline(shape, box);
  if (shape.frame === undefined) return solid;
  // The hole of a tag would get a rim of its own inside the frame.
  const filled = solid.filter((ring) => ringArea(ring) > 0);
  const frame = difference(filled, offset(filled, -shape.frame));
  return openFrame(shape, frame, solid, around);
}

/** A frame that makes room for the word. @param solid what the frame is the edge of */
export function openFrame(
  { opening, bar, bite }: Pick<Shape, "opening" | "bar" | "bite">,
  frame: Region,
  solid: Region,
  around: ShapeSurroundings,
): Region {
  if (opening === "behind") return behindWords(frame, around);
  return opening === "bars" ? openWithBars({ bar, bite }, frame, solid, rowOf(around)) : frame;
}

/** The middle of a shape is the middle of the lettering, or of a ring of letters, unless it was moved. */
function outerBox(shape: Shape, { lettering, ring, words }: ShapeSurroundings): Box {
  const { size, form, dx, dy, frame, opening } = shape;
  const round = shape.centre === "ring" ? ring : null;
  const { minX, minY, maxX, maxY } = round ? boxOf(round) : (lettering ?? NO_LETTERING);
  const [x, y] = [(minX + maxX) / 2 + dx, (minY + maxY) / 2 + dy];
  let [width, height] =
    size.by === "own" ? [size.width, size.height] : [maxX - minX + 2 * size.margin, maxY - minY + 2 * size.margin];
  if (size.by === "fit") {
    // The corners of the lettering must fit into what is round: a box in an ellipse is smaller by √2.
    if (form === "disc" && !round) width = height = Math.hypot(maxX - minX, maxY - minY) + 2 * size.margin;
    if (form === "oval" && !round)
      [width, height] = [(maxX - minX) * Math.SQRT2 + 2 * size.margin, (maxY - minY) * Math.SQRT2 + 2 * size.margin];
    if (form === "shield") height *= 1.5;
    if (form === "arch") height += (maxX - minX) * 0.18;
    if (form === "tag") width += height * 0.7;
    if (form === "cloud") [width, height] = [width * 1.15, height * 1.45];
    if (form === "banner") width += height * 1.1;
  }
  const [word] = words;
  if (size.by === "fit" && opening === "behind" && frame !== undefined && word) {
    // The middle of the frame runs through the middle of the first and of the last letter.
    const [first, last] = [word.bodies[0]!, word.bodies[word.bodies.length - 1]!];
    width = Math.max(frame * 2, (last.minX + last.maxX - first.minX - first.maxX) / 2 + frame);
    height = maxY - minY + 2 * size.margin;
  }
  const [halfX, halfY] = [Math.max(1, width / 2), Math.max(1, height / 2)];
  return { minX: x - halfX, minY: y - halfY, maxX: x + halfX, maxY: y + halfY };
}

const boxOf = ({ middle: { x, y }, outer }: NonNullable<ShapeSurroundings["ring"]>): Box => ({
  minX: x - outer,
  minY: y - outer,
  maxX: x + outer,
  maxY: y + outer,
});

function formOutline({ form, corner }: Shape, box: Box): Region {
  const { minX, minY, maxX, maxY } = box;
  const [width, height] = [maxX - minX, maxY - minY];
  const middle = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
  switch (form) {
    case "disc":
      return [circleRing(middle.x, middle.y, Math.min(width, height) / 2)];
    case "oval": {
      const r = Math.max(width, height) / 2;
      return transformRegion([circleRing(0, 0, r)], [width / 2 / r, 0, 0, height / 2 / r, middle.x, middle.y]);
    }
    case "plate":
      return normalise([roundedRectangle(box, corner)]);
    case "arch": {
      // Straight sides, a round top: a segment over the whole width, at most a half circle.
      const rise = Math.min(height * 0.6, width / 2);
      const radius = (width * width) / (8 * rise) + rise / 2;
      const half = Math.asin(Math.min(1, width / 2 / radius));
      const top = arcPoints(middle.x, maxY - radius, radius, Math.PI / 2 - half, Math.PI / 2 + half);
      return roundOuterCorners(normalise([Float64Array.from([minX, minY, maxX, minY, ...top])]), Math.min(corner, height / 6));
    }
    case "tag": {
      const nose = Math.min(width / 3, height * 0.45);
      const cut = height * 0.28;
      const outline = [minX + nose, minY, maxX, minY, maxX, maxY, minX + nose, maxY, minX, maxY - cut, minX, minY + cut];
      const hole = circleRing(minX + nose * 0.62, middle.y, Math.min(nose * 0.3, height * 0.12));
      return difference(roundOuterCorners(normalise([Float64Array.from(outline)]), corner), [hole]);
    }
    case "shield":
      return roundOuterCorners(normalise([shieldRing(box)]), Math.min(corner, width / 10));
    case "cloud":
      return cloud(box);
    case "banner": {
      const notch = height * 0.45;
      return normalise([
        Float64Array.from([minX, minY, maxX, minY, maxX - notch, middle.y, maxX, maxY, minX, maxY, minX + notch, middle.y]),
      ]);
    }
  }
}

/** Straight shoulders, sides that bend to a point below. */
function shieldRing({ minX, minY, maxX, maxY }: Box): Ring {
  const [width, height] = [maxX - minX, maxY - minY];
  const x = (minX + maxX) / 2;
  const shoulder = minY + height * 0.55;
  const ring: number[] = [minX, maxY, minX, shoulder];
  const side = (t: number, sign: 1 | -1) => [
    x + (sign * width * Math.cos((t * Math.PI) / 2) ** 1.15) / 2,
    shoulder - (shoulder - minY) * t ** 0.9,
  ];
  for (let k = 1; k < 40; k++) ring.push(...side(k / 40, -1));
  ring.push(x, minY);
  for (let k = 39; k > 0; k--) ring.push(...side(k / 40, 1));
  ring.push(maxX, shoulder, maxX, maxY);
  return Float64Array.from(ring);
}

/** Round puffs along an oval. */
function cloud({ minX, minY, maxX, maxY }: Box): Region {
  const [width, height] = [maxX - minX, maxY - minY];
  const r = Math.min(width, height) * 0.24;
  const [x, y, a, b] = [(minX + maxX) / 2, (minY + maxY) / 2, width / 2 - r, height / 2 - r];
  const count = Math.max(7, Math.round((Math.PI * (a + b)) / (1.45 * r)));
  const puffs = Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / count;
    return [circleRing(x + a * Math.cos(angle), y + b * Math.sin(angle), r)];
  });
  const oval = transformRegion([circleRing(0, 0, 50)], [a / 50, 0, 0, b / 50, x, y]);
  return union([oval, ...puffs]);
}

/**
 * What is seen of the frame within a word (in its counters, between its letters) goes; what leads into the letters from outside
 * stays, and ends in them.
 */
function behindWords(frame: Region, { words, letters }: ShapeSurroundings): Region {
  const seen = islandsOf(difference(frame, letters()));
  const within = seen.filter((island) => {
    const box = regionBox(island)!;
    return words.some(({ box: row }) => box.minX > row.minX && box.maxX < row.maxX && box.minY > row.minY && box.maxY < row.maxY);
  });
  if (within.length === 0) return frame;
  // A hair more is taken away, so that no edges are left lying on each other.
  const left = islandsOf(difference(frame, offset(union(within), HAIR)));
  return left.filter((island) => regionArea(island) > CRUMB).flat();
}

/** mm */
const HAIR = 0.02;
/** mm² */
const CRUMB = 0.2;

/** The row that all letters fill: from the highest of their feet to the lowest of their heads, accents left out. */
function rowOf({ lettering, words }: ShapeSurroundings): Box {
  const box = lettering ?? NO_LETTERING;
  const bodies = words.flatMap((word) => word.bodies);
  if (bodies.length === 0) return box;
  const [top, bottom] = [Math.min(...bodies.map(({ maxY }) => maxY)), Math.max(...bodies.map(({ minY }) => minY))];
  // Lines above each other have no such row; then the bars lie outside all of them.
  return top > bottom ? { ...box, maxY: top, minY: bottom } : box;
}

/** Two bars with round ends, above and below the word, run through the frame; between them it is open. */
function openWithBars(
  { bar, bite }: Pick<Shape, "bar" | "bite">,
  frame: Region,
  solid: Region,
  { minX, minY, maxX, maxY }: Box,
): Region {
  const [top, bottom] = [maxY - bite, minY + bite];
  const span = widthAt(solid, [top + bar / 2, bottom - bar / 2], { minX, maxX });
  const barAt = (y: number) => roundedRectangle({ minX: span.minX, maxX: span.maxX, minY: y, maxY: y + bar }, bar / 2);
  const opening = roundedRectangle({ minX: span.minX - 1000, maxX: span.maxX + 1000, minY: bottom, maxY: top }, 0);
  return union([difference(frame, [opening]), [barAt(top)], [barAt(bottom - bar)]]);
}

/** Bars are as long as the lettering at least, and as the outside of the frame where they run. */
function widthAt(
  solid: Region,
  heights: readonly number[],
  least: { minX: number; maxX: number },
): { minX: number; maxX: number } {
  const span = { ...least };
  for (const y of heights) {
    for (const ring of solid) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
        if (ay > y === by > y) continue;
        const x = ax + ((bx - ax) * (y - ay)) / (by - ay);
        span.minX = Math.min(span.minX, x);
        span.maxX = Math.max(span.maxX, x);
      }
    }
  }
  return span;
}

export function roundedRectangle({ minX, minY, maxX, maxY }: Box, corner: number): Ring {
  const r = Math.min(corner, (maxX - minX) / 2, (maxY - minY) / 2);
  if (r <= 0) return Float64Array.from([minX, minY, maxX, minY, maxX, maxY, minX, maxY]);
  const quarter = Math.PI / 2;
  return Float64Array.from([
    ...arcPoints(minX + r, minY + r, r, 2 * quarter, 3 * quarter),
    ...arcPoints(maxX - r, minY + r, r, 3 * quarter, 4 * quarter),
    ...arcPoints(maxX - r, maxY - r, r, 0, quarter),
    ...arcPoints(minX + r, maxY - r, r, quarter, 2 * quarter),
  ]);
}
