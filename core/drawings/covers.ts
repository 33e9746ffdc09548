/**
 * White that is painted over what is filled: a counter drawn as a white disc on a black one, or the white ground of a page.
 */
import type { Drawing, DrawnShape } from "../formats";
import { type Box, boxesMeet, difference, intersection, normalise, type Region, regionArea, regionBox } from "../geometry";

/** A colour is white from this share of each of its parts on. */
const WHITE = 0.98;
/** Less than this is no overlap, mm²: places are rounded. */
const NOTHING = 1e-4;

const NOTE = "White that is painted over a filled shape is taken as a hole in it";

interface Painted {
  shape: DrawnShape;
  region: Region;
  box: Box | null;
  covered?: boolean;
}

/**
 * The drawing as it is seen on white: what is painted white takes away from what was filled before it, and is no shape itself. Where
 * nothing has another colour, white with a line around it is that line, and white without one is what is drawn.
 */
export function asSeen(drawing: Drawing): Drawing {
  if (!drawing.shapes.some(isWhite)) return drawing;
  if (drawing.shapes.some(({ fill }) => fill !== null && !isWhite({ fill }))) return withoutCovers(drawing);
  const shapes = drawing.shapes.map((shape) => (isWhite(shape) && shape.stroke !== null ? { ...shape, fill: null } : shape));
  return { ...drawing, shapes };
}

function withoutCovers(drawing: Drawing): Drawing {
  const seen: Painted[] = [];
  let holes = 0;
  for (const shape of drawing.shapes) {
    const painted = paintedBy(shape);
    if (!isWhite(shape)) {
      seen.push(painted);
      continue;
    }
    let covers = false;
    for (const [i, below] of seen.entries()) {
      if (isWhite(below.shape) || !boxesMeet(below.box, painted.box)) continue;
      if (regionArea(intersection(below.region, painted.region)) < NOTHING) continue;
      seen[i] = { ...paintedBy(holed(below, painted)), covered: true };
      covers = true;
    }
    if (covers) holes++;
    else if (shape.stroke !== null) seen.push(painted);
  }
  const shapes = seen.filter(({ region, covered }) => !(covered && regionArea(region) < NOTHING)).map(({ shape }) => shape);
  return { ...drawing, shapes, notes: holes > 0 ? [...drawing.notes, NOTE] : drawing.notes };
}

function isWhite({ fill }: Pick<DrawnShape, "fill">): boolean {
  return fill !== null && [1, 3, 5].every((i) => Number.parseInt(fill.slice(i, i + 2), 16) >= 255 * WHITE);
}

function paintedBy(shape: DrawnShape): Painted {
  const rings = shape.fill === null ? [] : shape.subpaths.map(({ ring }) => ring);
  const region = normalise(rings, shape.fillRule);
  return { shape, region, box: regionBox(region) };
}

/** A shape without what covers it. Its own curves stay where the cover lies wholly within it. */
function holed(below: Painted, cover: Painted): DrawnShape {
  const left = difference(below.region, cover.region);
  const both = [...below.shape.subpaths, ...cover.shape.subpaths];
  const together = normalise(
    both.map(({ ring }) => ring),
    "evenodd",
  );
  const area = regionArea(intersection(together, left));
  // Where the cover runs over the edge or along it, that edge is gone.
  const within = left.length === below.region.length + cover.region.length;
  const same = within && regionArea(together) - area < NOTHING && regionArea(left) - area < NOTHING;
  const { commands, ...shape } = below.shape;
  if (!same) return { ...shape, subpaths: left.map((ring) => ({ ring, closed: true })), fillRule: "nonzero" };
  return {
    ...shape,
    subpaths: both,
    fillRule: "evenodd",
    ...(commands && cover.shape.commands && { commands: [...commands, ...cover.shape.commands] }),
  };
}
