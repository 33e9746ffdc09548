/**
 * Shapes and pieces whose frames are compared with finite elements: how they are held, where they are pushed, which sections are looked at.
 */
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { examine } from "../../examine";
import { type Box, circleRing, difference, type Point, type Region, simplify, union } from "../../geometry";
import { heldAt } from "../../strength";
import type { Material } from "../../strength/element";
import type { Push } from "../../strength/frame";
import { rectangle } from "../shapes";

/** Across a stroke, from one edge to the other, mm. */
export interface Section {
  from: Point;
  to: Point;
}

export interface SolidCase {
  name: string;
  /** A demo piece: real lettering. */
  piece: boolean;
  region: Region;
  supports: Box[];
  material: Material;
  /** One newton each. */
  pushes: Push[];
  sections: Section[];
}

const MATERIAL: Material = { young: 3000, poisson: 0.35, thickness: 3 };
/** Finite elements need no finer outline than this, mm; the frame is made of the same one. */
const COARSE = 0.02;

const box = (minX: number, minY: number, maxX: number, maxY: number): Box => ({ minX, minY, maxX, maxY });
const across = (x: number, y: number, width: number): Section => ({ from: { x, y: y - width / 2 }, to: { x, y: y + width / 2 } });
const level = (x: number, y: number, width: number): Section => ({ from: { x: x - width / 2, y }, to: { x: x + width / 2, y } });

/** In the plane both ways, and out of it. */
const threeWays = ({ x, y }: Point): Push[] => [
  { x, y, force: [1, 0, 0] },
  { x, y, force: [0, 1, 0] },
  { x, y, force: [0, 0, 1] },
];

function shape(name: string, region: Region, supports: Box[], at: Point, sections: Section[]): SolidCase {
  return { name, piece: false, region: union([region]), supports, material: MATERIAL, pushes: threeWays(at), sections };
}

const joined = (...rings: Float64Array[]): Region => union(rings.map((ring) => [ring]));
const plates = (neck: number): Region =>
  joined(rectangle(0, 0, 20, 20), rectangle(19, 10 - neck / 2, 4, neck), rectangle(22, 0, 20, 20));

const shapes = (): SolidCase[] => [
  shape("strip 60 × 4", [rectangle(0, 0, 60, 4)], [box(-1, -1, 2, 5)], { x: 59, y: 2 }, [across(10, 2, 4)]),
  shape("taper 8 to 2 over 60", [Float64Array.from([0, -4, 60, -1, 60, 1, 0, 4])], [box(-1, -5, 2, 5)], { x: 59, y: 0 }, [
    across(30, 0, 5),
  ]),
  shape("two plates with a neck of 2", plates(2), [box(-1, -1, 4, 21)], { x: 40, y: 10 }, [across(21, 10, 2)]),
  shape("two plates with a neck of 0.4", plates(0.4), [box(-1, -1, 4, 21)], { x: 40, y: 10 }, [across(21, 10, 0.4)]),
  shape("two plates with a neck of 6", plates(6), [box(-1, -1, 4, 21)], { x: 40, y: 10 }, []),
  shape("L of 4 mm strokes", joined(rectangle(0, 0, 4, 40), rectangle(0, 0, 30, 4)), [box(-1, 36, 5, 41)], { x: 29, y: 2 }, [
    level(2, 20, 4),
    across(15, 2, 4),
  ]),
  shape(
    "portal with one foot held",
    joined(rectangle(0, 0, 3, 40), rectangle(0, 37, 40, 3), rectangle(37, 0, 3, 40)),
    [box(-1, -1, 4, 2)],
    { x: 38.5, y: 1 },
    [level(1.5, 15, 3), across(20, 38.5, 3)],
  ),
  shape("ring 22/18", difference([circleRing(0, 0, 22)], [circleRing(0, 0, 18)]), [box(-2, -23, 2, -17)], { x: 0, y: 21 }, [
    level(20, 0, 4),
  ]),
  shape(
    "T of 5 mm strokes",
    joined(rectangle(-15, 35, 30, 5), rectangle(-2.5, 0, 5, 40)),
    [box(-4, -1, 4, 2)],
    { x: 14, y: 37.5 },
    [level(0, 15, 5), across(8, 37.5, 5)],
  ),
  shape(
    "three teeth on a bar",
    joined(rectangle(0, 0, 60, 6), rectangle(5, 5, 4, 25), rectangle(28, 5, 2, 25), rectangle(50, 5, 6, 25)),
    [box(-1, -1, 61, 2)],
    { x: 29, y: 29 },
    [level(29, 15, 2)],
  ),
  shape(
    "frame with a bar through it",
    joined(
      rectangle(0, 0, 50, 4),
      rectangle(0, 36, 50, 4),
      rectangle(0, 0, 4, 40),
      rectangle(46, 0, 4, 40),
      rectangle(0, 18, 50, 2.5),
    ),
    [box(-1, -1, 5, 5)],
    { x: 48, y: 38 },
    [across(15, 2, 4), level(2, 12, 4)],
  ),
  shape(
    "two discs that overlap",
    union([[circleRing(0, 0, 12)], [circleRing(22.5, 0, 12)]]),
    [box(-13, -13, -6, 13)],
    { x: 32, y: 0 },
    [],
  ),
  shape(
    "zigzag of 3 mm",
    joined(
      rectangle(0, 0, 30, 3),
      rectangle(27, 0, 3, 15),
      rectangle(0, 12, 30, 3),
      rectangle(0, 12, 3, 15),
      rectangle(0, 24, 30, 3),
    ),
    [box(-1, -1, 3, 4)],
    { x: 29, y: 25.5 },
    [across(15, 1.5, 3), across(15, 13.5, 3)],
  ),
];

const PIECES = [
  "demo-boat-naming",
  "demo-sea-kale",
  "demo-harbour-office",
  "demo-oyster-bar",
  "demo-heron-earrings",
  "demo-ferry-key",
  "demo-slip-oak",
] as const;

/** Joints that are looked at in each piece, the narrowest ones. */
const JOINTS = 6;

function pieces(): SolidCase[] {
  const library = shippedLibrary();
  return demoPieces()
    .filter(({ id }) => (PIECES as readonly string[]).includes(id))
    .map((piece): SolidCase => {
      const examination = examine(piece, library);
      const region = simplify(
        examination.cutouts.flatMap((cutout) => (cutout.falls ? [] : cutout.region)),
        COARSE,
      );
      // All material in the box is held there: what finite elements were asked.
      const supports = heldAt(piece, examination).map(({ minX, maxX, minY, maxY }) => ({ minX, maxX, minY, maxY }));
      return {
        name: piece.name,
        piece: true,
        region,
        supports,
        material: { ...MATERIAL, thickness: piece.stock.thickness },
        pushes: threeWays(farthestFrom(supports, region)),
        sections: [...examination.joints]
          .sort((a, b) => a.width - b.width)
          .slice(0, JOINTS)
          .map(({ from, to }) => ({ from, to })),
      };
    });
}

/** The far tip: a little inside the outline, so that there is material all round. */
function farthestFrom(supports: readonly Box[], region: Region): Point {
  const middle = {
    x: supports.reduce((sum, { minX, maxX }) => sum + (minX + maxX) / 2, 0) / supports.length,
    y: supports.reduce((sum, { minY, maxY }) => sum + (minY + maxY) / 2, 0) / supports.length,
  };
  let [best, far] = [middle, -1];
  for (const ring of region) {
    for (let i = 0; i < ring.length; i += 2) {
      const away = Math.hypot(ring[i]! - middle.x, ring[i + 1]! - middle.y);
      if (away > far) [best, far] = [{ x: ring[i]!, y: ring[i + 1]! }, away];
    }
  }
  return best;
}

export const solidCases = (): SolidCase[] => [...shapes(), ...pieces()];
