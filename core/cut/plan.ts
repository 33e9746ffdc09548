/**
 * From a piece to lines with a purpose, in the order in which they are cut.
 */
import {
  asLines,
  type Box,
  type CurvePath,
  clearTest,
  fitCurves,
  isCrumb,
  offset,
  type Point,
  type Region,
  type Ring,
  regionBox,
  translateRegion,
} from "../geometry";
import type { Piece } from "../piece";
import type { Sheet } from "../report";
import { cuttingOrder, nestOutlines } from "./order";
import type { LinePurpose, MachineProfile } from "./profile";
import { type Tabs, withTabs } from "./tabs";

export interface CutLine {
  purpose: LinePurpose;
  path: CurvePath;
  /** Which separate piece its cut belongs to, counted in cutting order. */
  piece?: number | undefined;
  /** The edge of a piece, of a hole in one, or a line that is not closed. */
  role: "outside" | "inside" | "open";
}

/** A drawing for a machine, mm, y up; its lower left corner is the origin. */
export interface CutPlan {
  width: number;
  height: number;
  /** In the order in which they are done: engraved, scored, cut. */
  lines: CutLine[];
  /** Outlines of areas that are engraved. */
  fills: CurvePath[];
  /** The outlines that are cut, as they were before they became curves. */
  cut: Region;
  /** The same for what is engraved, and lines that are scored. */
  engrave: Region;
  score: Float64Array[];
  profile: MachineProfile;
}

/** Whether there is anything for the machine to do. */
export const hasWork = ({ lines, fills }: Pick<CutPlan, "lines" | "fills">): boolean => lines.length > 0 || fills.length > 0;

export interface PlanOptions {
  profile: MachineProfile;
  /** Purposes that are left out. */
  without?: readonly LinePurpose[];
  tabs?: Tabs | undefined;
  /** Chord by chord instead of fitted curves. */
  chords?: boolean;
  /** How curves are fitted; another way may remember those it has fitted before. */
  fit?: Draw;
  /** Empty edge around the drawing, mm. */
  margin?: number;
  /** The drawing is a whole sheet of this size, mm, from its lower left corner; left out, it is as large as what is on it. */
  page?: { width: number; height: number } | undefined;
}

const MARGIN = 1;

/** mm by which outlines are grown so that the piece comes out as drawn; nothing where the cut runs on the line, or the machine sees to it. */
export function allowance({ stock, cut }: Pick<Piece, "stock" | "cut">, { kerfBy }: Pick<MachineProfile, "kerfBy">): number {
  return cut === "outside" && kerfBy === "file" ? stock.kerf / 2 : 0;
}

/** @param sheet what is cut and marked */
export function planCut(piece: Pick<Piece, "stock" | "cut">, sheet: Sheet, options: PlanOptions): CutPlan {
  const { profile, without = [], page, margin = page ? 0 : MARGIN } = options;
  const grown = allowance(piece, profile);
  const material = grown > 0 ? offset(sheet.material, grown, { tolerance: 0.002 }) : sheet.material;
  const box: Box = page
    ? { minX: 0, minY: 0, maxX: page.width, maxY: page.height }
    : (regionBox(material) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 });
  const [dx, dy] = [margin - box.minX, margin - box.minY];
  const here = (region: Region) => translateRegion(region, dx, dy);
  const wanted = (purpose: LinePurpose) => !without.includes(purpose);
  const cut = here(material);
  const draw: Draw = options.chords ? asLines : (options.fit ?? fitCurves);
  const drawn: Draw = (points, closed) => (closed && isCrumb(points) ? null : draw(points, closed));
  const [exactEngrave, exactScore] = [wanted("engrave") ? here(sheet.engrave) : [], wanted("score") ? here(sheet.score) : []];
  const engrave = exactEngrave.flatMap((ring) => drawn(ring, true) ?? []);
  const asFill = profile.engraveAs === "fill";
  const lines: CutLine[] = [
    ...(asFill ? [] : engrave.map((path): CutLine => ({ purpose: "engrave", path, role: "inside" }))),
    ...exactScore.flatMap((line): CutLine[] => {
      const path = drawn(line, false);
      return path ? [{ purpose: "score", path, role: "open" }] : [];
    }),
    ...(wanted("cut") ? cutLines(cut, drawn, options.tabs, piece.stock.kerf) : []),
  ];
  return {
    width: box.maxX - box.minX + 2 * margin,
    height: box.maxY - box.minY + 2 * margin,
    lines,
    fills: asFill ? engrave : [],
    cut: wanted("cut") ? cut : [],
    engrave: exactEngrave,
    score: exactScore,
    profile,
  };
}

/** @returns `null` for what is no line and no outline */
export type Draw = (points: Float64Array, closed: boolean) => CurvePath | null;

function cutLines(cut: Region, drawn: Draw, tabs: Tabs | undefined, kerf: number): CutLine[] {
  const outlines = nestOutlines(cut);
  const isClear = tabs && clearTest(cut);
  const paths = outlines.map(({ ring }) => pathsOf(ring, tabs ? withTabs(ring, tabs, kerf, isClear) : [], drawn));
  const starts = outlines.map(({ ring }, i): Point => paths[i]![0] ?? { x: ring[0]!, y: ring[1]! });
  const order = cuttingOrder(outlines, starts, { x: 0, y: 0 });
  const pieceOf = new Map<number, number>();
  for (const i of order) if (outlines[i]!.depth % 2 === 0) pieceOf.set(i, pieceOf.size);
  return order.flatMap((i) => {
    const { depth, parent } = outlines[i]!;
    const outside = depth % 2 === 0;
    const piece = pieceOf.get(outside ? i : parent);
    return paths[i]!.map(
      (path): CutLine => ({ purpose: "cut", path, piece, role: path.closed ? (outside ? "outside" : "inside") : "open" }),
    );
  });
}

/** @param parts open lines that the outline is cut in for its tabs; none where it has none */
function pathsOf(ring: Ring, parts: readonly Float64Array[], drawn: Draw): CurvePath[] {
  const lines = parts.length > 0 ? parts.map((line) => drawn(line, false)) : [drawn(ring, true)];
  return lines.filter((path) => path !== null);
}
