/**
 * From a piece to the things that must hold: part after part joins the material, or changes what is there.
 */
import {
  backwards,
  boxesMeet,
  boxHolds,
  difference,
  intersection,
  islandsOf,
  joinBoxes,
  offset,
  type Point,
  type Region,
  regionArea,
  regionBox,
  regionContains,
  regionPerimeter,
  ringArea,
  union,
} from "../geometry";
import {
  type Bridge,
  backingOutline,
  barOutline,
  bridgePlaces,
  bridgesOf,
  type CutLetter,
  drawingOutline,
  drawingShape,
  fillOutline,
  ornamentOutline,
  placeLoop,
  type ShapeSurroundings,
  type Surroundings,
  shapeOutline,
  stakeOutline,
  stickOutline,
  tieOutline,
} from "../holders";
import type { PartLabel } from "../judge";
import type { WordLayout } from "../lettering";
import { type Anchor, type Part, type Piece, placeOfEnd, usualTieWidth, type Word, widthToDraw } from "../piece";
import { lettersToSolids, lineSolids, type Solid } from "./letters";
import { materialUnder } from "./under";
import { type Library, layOutWords } from "./words";

export type { Solid } from "./letters";

/** Something that is no material but can be taken in the hand: lettering that is engraved, shapes that are cut out. */
export interface Ghost extends Solid {
  as: "engrave" | "carve" | "score";
  /** What it was cut out of. */
  from?: Region;
}

export interface Built {
  solids: Solid[];
  ghosts: Ghost[];
  /** Middles of the holes of loops. */
  hangers: { id: string; at: Point }[];
  /** What holds the insides of cut-out letters. */
  bridges: WordBridge[];
}

export interface WordBridge extends Bridge {
  wordId: string;
}

/** What falls out of cutting is a piece of its own from this area on, mm². */
const CRUMB = 0.003;
/** Small ones narrower on the whole, mm, are scraps left by outlines that run alike: less than half of what a beam burns away. */
const SCRAP = { width: 0.05, area: 0.05 };

/** Outlines of all parts of a piece as they meet. */
export const solidsOf = (piece: Piece, layouts: readonly WordLayout[], shapes?: Shapes): Solid[] =>
  buildPiece(piece, layouts, shapes).solids;

/** Remembers the shapes of drawings, and what is left of what was cut. */
type Shapes = Pick<Library, "memory">;

export function buildPiece(piece: Piece, layouts: readonly WordLayout[], shapes: Shapes = {}): Built {
  const built: Built & { setIn: SetIn[] } = { solids: [], ghosts: [], hangers: [], bridges: [], setIn: [] };
  const free: { region: Region; keeps: (solid: Solid) => boolean }[] = [];
  for (const part of piece.parts) {
    if (part.kind === "word") {
      const layout = layouts.find(({ wordId }) => wordId === part.id);
      if (layout) addWord(built, part, layout, { bridge: usualTieWidth(widthToDraw(piece)), shapes });
    } else if (part.kind === "loop") {
      const { disc, hole, middle } = placeLoop(part, regionsOf(built));
      built.solids.push(solidOf(part, difference(disc, hole)));
      built.hangers.push({ id: part.id, at: middle });
      free.push({ region: hole, keeps: () => false });
    } else {
      const region = addPart(built, part, layouts, shapes);
      if ("lap" in part && part.meets === "set-in") {
        const filled = region.filter((ring) => ringArea(ring) > 0);
        built.setIn.push({ plate: part.id, region: offset(filled, -part.lap) });
      }
    }
  }
  for (const { region, plate } of built.setIn) free.push({ region, keeps: (solid) => staysOn(solid, plate, region, piece) });
  for (const { letters } of layouts) {
    for (const { id, free: hole } of letters)
      if (hole.length > 0) free.push({ region: hole, keeps: ({ letterId }) => letterId === id });
  }
  // Nothing may reach into a hole that is there to be used, whatever came after it.
  for (const { region, keeps } of free) built.solids = carve(built.solids, region, shapes, keeps);
  return built;
}

const regionsOf = ({ solids }: Built) => solids.map(({ region }) => region);

/** @param bridge width of bridges that have none of their own, mm */
function addWord(built: Built, word: Word, layout: WordLayout, { bridge, shapes }: { bridge: number; shapes: Shapes }): void {
  const letters = layout.letters.flatMap((letter) => lettersToSolids(letter, layout));
  const regions = letters.map(({ region }) => region);
  const outline = () => union(regions);
  switch (word.meets) {
    case "engrave":
      built.ghosts.push(...letters.map((letter): Ghost => ({ ...letter, as: "engrave" })));
      return;
    case "carve": {
      const bridges = word.bridges ? bridgesOf(cutLetters(word, layout), holdsIn(built), word.bridges.width ?? bridge) : [];
      built.bridges.push(...bridges.map((each) => ({ ...each, wordId: word.id })));
      built.ghosts.push(...letters.map((letter) => carvedFrom(built, letter)));
      const strips = union(bridges.map(({ strip }) => strip));
      built.solids = carve(built.solids, strips.length > 0 ? difference(outline(), strips) : outline(), shapes);
      return;
    }
    case "halo":
      built.solids = carve(
        built.solids,
        combined(shapes, `halo ${word.gap}`, regions, () => offset(outline(), word.gap)),
        shapes,
      );
      break;
    case "add":
  }
  built.solids.push(...lineSolids(word, layout), ...letters);
}

/** Its letters as something that insides can be held in. */
const cutLetters = ({ changes }: Word, { letters }: WordLayout): CutLetter[] =>
  letters.map(({ key, islands }) => ({
    key,
    region: islands.flatMap(({ region }) => region),
    angles: changes[key]?.bridges ?? [],
  }));

/**
 * Other places for a bridge of a cut-out word: what was there before the word is what it may reach.
 *
 * @returns directions, degrees, the best first
 */
export function otherBridgePlaces(
  piece: Piece,
  { wordId, key, hole }: { wordId: string; key: string; hole: number },
  library: Library,
): number[] {
  const { layouts } = layOutWords(piece, library);
  const layout = layouts.find((each) => each.wordId === wordId);
  const at = piece.parts.findIndex(({ id }) => id === wordId);
  const word = piece.parts[at];
  if (!layout || word?.kind !== "word") return [];
  const before = buildPiece({ ...piece, parts: piece.parts.slice(0, at) }, layouts, library);
  const width = word.bridges?.width ?? usualTieWidth(widthToDraw(piece));
  return bridgePlaces(cutLetters(word, layout), holdsIn(before), width, key, hole);
}

/** Whether there is material at a place. */
function holdsIn({ solids }: Pick<Built, "solids">): (x: number, y: number) => boolean {
  return (x, y) =>
    solids.some(({ region }) => {
      const box = regionBox(region);
      return box && boxHolds(box, x, y) && regionContains(region, x, y);
    });
}

const carvedFrom = (built: Built, solid: Solid): Ghost => ({
  ...solid,
  as: "carve",
  from: materialUnder(regionsOf(built), solid.region),
});

type SimplePart = Exclude<Part, { kind: "word" | "loop" }>;

/** @returns its outline */
function addPart(built: Built, part: SimplePart, layouts: readonly WordLayout[], shapes: Shapes): Region {
  const region = outlineOf(part, built, layouts, shapes);
  if (region.length === 0) return region;
  if (part.kind !== "shape" && part.kind !== "ornament" && part.kind !== "drawing") {
    built.solids.push(solidOf(part, region));
    return region;
  }
  if (part.kind === "ornament" && part.closes) built.solids = closeUp(built.solids, region);
  if (part.meets === "engrave" || part.meets === "score") {
    built.ghosts.push({ ...solidOf(part, region), as: part.meets });
    return region;
  }
  if (part.meets === "carve") {
    built.ghosts.push(carvedFrom(built, solidOf(part, region)));
    built.solids = carve(built.solids, region, shapes);
    return region;
  }
  if (part.meets === "halo") built.solids = carve(built.solids, offset(region, part.gap), shapes);
  built.solids.push(solidOf(part, region));
  return region;
}

/** A plate that takes the place of the drawing behind it, and what it clears of that. */
interface SetIn {
  plate: string;
  region: Region;
}

const DRAWING: ReadonlySet<Part["kind"]> = new Set(["shape", "ornament", "backing", "drawing"]);

/** Only the drawing makes room for a plate: not the plate itself, its lettering and holders, nor an ornament that lies upon it. */
function staysOn(solid: Solid, plate: string, cleared: Region, { parts }: Piece): boolean {
  const kind = parts.find(({ id }) => id === solid.partId)?.kind;
  if (solid.partId === plate || !kind || !DRAWING.has(kind)) return true;
  return difference(solid.region, cleared).length === 0;
}

const HOLDERS: ReadonlySet<Part["kind"]> = new Set(["bar", "stick", "stake", "backing", "shape"]);

const holds = (part: Part) => (part.kind === "drawing" ? part.holder : HOLDERS.has(part.kind));

function solidOf(part: Exclude<Part, Word>, region: Region): Solid {
  return { id: part.id, partId: part.id, label: labelOf(part), holder: holds(part), region };
}

function labelOf(part: Exclude<Part, Word>): PartLabel {
  switch (part.kind) {
    case "shape":
      return {
        kind: "shape",
        text: part.form === "disc" && part.frame !== undefined ? "the ring" : `the ${part.form}`,
        ordinal: "",
      };
    case "ornament":
      return { kind: "shape", text: `the ${part.name}`, ordinal: "" };
    case "drawing":
      return { kind: "shape", text: `the ${part.name}`, ordinal: "" };
    default:
      return { kind: part.kind, text: "", ordinal: "" };
  }
}

function outlineOf(part: SimplePart, built: Built, layouts: readonly WordLayout[], shapes: Shapes): Region {
  const place = (end: Anchor) => placeOfEnd(end, layouts);
  switch (part.kind) {
    case "bar":
      return barOutline(part, surroundings(built, layouts));
    case "stick":
      return stickOutline(part, surroundings(built, layouts));
    case "tie":
      return tieOutline(part, place);
    case "stake": {
      const { lettering, baseline } = surroundings(built, layouts);
      return stakeOutline(part, lettering, baseline);
    }
    case "fill": {
      const at = place(part.at);
      return at ? fillOutline(part, at, regionsOf(built)) : [];
    }
    case "backing": {
      const under = layouts.filter(({ wordId }) => part.words === undefined || part.words.includes(wordId));
      return backingOutline(part, under.flatMap(islandsIn));
    }
    case "shape":
      return shapeOutline(part, shapeSurroundings(layouts));
    case "ornament": {
      const at = place(part.at);
      return at ? ornamentOutline(part, at) : [];
    }
    case "drawing": {
      const at = place(part.at);
      if (!at) return [];
      const shape = shapes.memory?.drawing(part) ?? drawingShape(part);
      return drawingOutline(part, shape, at, shapeSurroundings(layouts));
    }
  }
}

const islandsIn = ({ letters }: WordLayout) => letters.flatMap(({ islands }) => islands.map(({ region }) => region));

function surroundings(built: Built, layouts: readonly WordLayout[]): Surroundings {
  const filled = layouts.filter(({ box }) => box);
  return {
    lettering: joinBoxes(layouts.map(({ box }) => box)),
    baseline: Math.min(...filled.map(({ baseline }) => baseline), filled.length > 0 ? Infinity : 0),
    before: regionsOf(built),
  };
}

function shapeSurroundings(layouts: readonly WordLayout[]): ShapeSurroundings {
  const words = layouts.flatMap(({ box, letters }) => {
    const bodies = letters.flatMap(({ islands }) => (islands[0] ? [regionBox(islands[0].region)!] : []));
    return box && bodies.length > 0 ? [{ box, bodies }] : [];
  });
  return {
    lettering: joinBoxes(layouts.map(({ box }) => box)),
    ring: layouts.find(({ ring }) => ring)?.ring ?? null,
    words,
    letters: () => union(layouts.flatMap(islandsIn)),
  };
}

/** Takes a shape out of the material; what it cuts apart goes on as parts of their own. */
function carve(solids: readonly Solid[], shape: Region, shapes: Shapes, keeps: (solid: Solid) => boolean = () => false): Solid[] {
  const box = regionBox(shape);
  return solids.flatMap((solid) => {
    if (keeps(solid) || !boxesMeet(box, regionBox(solid.region))) return [solid];
    const left = combined(shapes, "difference", [solid.region, shape], () => difference(solid.region, shape));
    if (Math.abs(regionArea(left) - regionArea(solid.region)) < 1e-6) return [solid];
    const islands = islandsOf(left).filter(isNoScrap);
    return islands.map((region, n): Solid => {
      if (n === 0) return { ...solid, region, pole: undefined };
      const kind = solid.letterId ? "speck" : "island";
      return { ...solid, id: `${solid.id}-${n}`, label: { ...solid.label, kind }, holder: false, region, pole: undefined };
    });
  });
}

const combined = ({ memory }: Shapes, operation: string, regions: readonly Region[], make: () => Region): Region =>
  memory ? memory.combined(operation, regions, make) : make();

/** A long strip is as wide as twice its area for each mm of its outline. */
function isNoScrap(island: Region): boolean {
  const area = regionArea(island);
  return area > CRUMB && (area > SCRAP.area || 2 * area > SCRAP.width * regionPerimeter(island));
}

/** Fills the holes that a shape lies over, so that it can take their place. */
function closeUp(solids: readonly Solid[], shape: Region): Solid[] {
  return solids.map((solid) => {
    const holes = solid.region
      .filter((ring) => ringArea(ring) < 0)
      .map((ring) => [backwards(ring)])
      .filter((hole) => intersection(hole, shape).length > 0);
    return holes.length === 0 ? solid : { ...solid, region: union([solid.region, ...holes]), pole: undefined };
  });
}
