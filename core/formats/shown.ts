/**
 * What shows of a shape that something cuts off: clips in SVG, clipping paths in PDF.
 */
import {
  type FillRuleName,
  type FlatPath,
  flattenPath,
  insideTest,
  intersection,
  normalise,
  offset,
  type PathCommand,
  type Point,
  type Region,
  type Ring,
  regionArea,
  regionBox,
} from "../geometry";
import { READ_FINELY } from "./drawing";

/** Less than this is not cut off, mm²: places are rounded. */
const NOTHING = 1e-4;
/** Lines on the edge of a clip show, mm. */
const EDGE = 0.01;
/** Clips are often drawn far around everything: they end here, mm. */
const FAR = 1e6;

const near = (mm: number) => Math.min(FAR, Math.max(-FAR, mm || 0));

/** What lies within a clipping path, mm. */
export function clipOf(commands: readonly PathCommand[], rule: FillRuleName): Region {
  const within = commands.map((command) => {
    const places = Object.entries(command).map(([key, value]) => [key, typeof value === "number" ? near(value) : value]);
    return Object.fromEntries(places) as PathCommand;
  });
  const rings = flattenPath(within, READ_FINELY).map(({ ring }) => ring);
  return normalise(rings, rule);
}

/** A clip with straight sides, by its corners. */
export const clipBetween = (corners: readonly Point[]): Region =>
  normalise([Float64Array.from(corners.flatMap(({ x, y }) => [near(x), near(y)]))]);

/** For the drawing's notes. */
export const CUT_LINE = "Lines that a clip cuts off are read whole";

export type Shown = { what: "all" | "nothing" | "cut line" } | { what: "part"; subpaths: FlatPath[] };

/**
 * @param rule by which the shape is filled; `null` where it is only drawn as a line
 * @param clips of what lies in all of these something shows, mm
 */
export function shownOf(subpaths: readonly FlatPath[], rule: FillRuleName | null, clips: readonly Region[]): Shown {
  const rings = subpaths.map(({ ring }) => ring);
  const cutting = clips.filter((clip) => !isAround(clip, rings));
  if (cutting.length === 0) return { what: "all" };
  if (rule === null) return shownLine(rings, cutting);
  const whole = normalise(rings, rule);
  const shown = cutting.reduce((left, clip) => intersection(left, clip), whole);
  if (regionArea(shown) < NOTHING) return { what: "nothing" };
  if (regionArea(whole) - regionArea(shown) < NOTHING) return { what: "all" };
  return { what: "part", subpaths: shown.map((ring) => ({ ring, closed: true })) };
}

function shownLine(rings: readonly Ring[], clips: readonly Region[]): Shown {
  const tests = clips.map((clip) => insideTest(offset(clip, EDGE)));
  let [inside, outside] = [0, 0];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      if (tests.every((test) => test(ring[i]!, ring[i + 1]!))) inside++;
      else outside++;
    }
  }
  return { what: outside === 0 ? "all" : inside === 0 ? "nothing" : "cut line" };
}

/** Whether a clip is an upright box around all of it, as the edge of a page is. */
function isAround(clip: Region, rings: readonly Ring[]): boolean {
  const [edge] = clip;
  const box = regionBox([...rings]);
  if (clip.length !== 1 || edge!.length !== 8 || !box) return false;
  const upright = [0, 2, 4, 6].every((i) => edge![i] === edge![(i + 2) % 8] || edge![i + 1] === edge![(i + 3) % 8]);
  const around = regionBox(clip)!;
  return upright && around.minX <= box.minX && around.minY <= box.minY && around.maxX >= box.maxX && around.maxY >= box.maxY;
}
