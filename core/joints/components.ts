/**
 * The connected components of the material: what comes off the machine, piece by piece, whichever parts it is made of.
 */
import type { Point } from "../geometry";
import type { WidthField } from "../measure";

export interface Component {
  /** Number of the piece in the field. */
  piece: number;
  /** mm² */
  area: number;
  /** Middle of its largest disc, and the diameter of that, mm. */
  at: Point;
  width: number;
  /** Indices of the parts whose middle lies in it. */
  home: number[];
  /** Indices of all parts of which material is in it. */
  parts: number[];
  /** True for the one in which the holder is, or what stands in for it. */
  held: boolean;
}

/** Smaller pieces are crumbs of rounding that nobody misses, mm². */
export const CRUMB = 0.01;

/**
 * @param bodies body of each part's middle, −1 for parts without material
 * @param main index of the part that everything hangs on, −1 for none
 * @returns in the order of their parts; crumbs left out
 */
export function findComponents(field: WidthField, bodies: readonly number[], main: number): Component[] {
  const { pieceOf, pieces } = field;
  const areas = new Float64Array(pieces);
  const widest = new Int32Array(pieces).fill(-1);
  const bodyAreas = field.areas();
  for (let body = 0; body < pieceOf.length; body++) {
    const piece = pieceOf[body]!;
    areas[piece]! += bodyAreas[body]!;
    if (widest[piece] === -1 || field.bodies[body]!.width > field.bodies[widest[piece]!]!.width) widest[piece] = body;
  }
  const home: number[][] = Array.from({ length: pieces }, () => []);
  bodies.forEach((body, part) => {
    if (body >= 0) home[pieceOf[body]!]!.push(part);
  });
  const holds = main >= 0 && bodies[main]! >= 0 ? pieceOf[bodies[main]!]! : -1;
  const owners = field.partsOfPieces();
  const all = Array.from({ length: pieces }, (_, piece): Component => {
    const { x, y, width } = field.bodies[widest[piece]!] ?? { x: 0, y: 0, width: 0 };
    const parts = [...new Set([...home[piece]!, ...owners[piece]!])].sort((a, b) => a - b);
    return { piece, area: areas[piece]!, at: { x, y }, width, home: home[piece]!, parts, held: piece === holds };
  });
  const first = ({ home: own, parts }: Component) => own[0] ?? parts[0] ?? Infinity;
  return all.filter(({ area, home: own }) => area >= CRUMB || own.length > 0).sort((a, b) => first(a) - first(b));
}
