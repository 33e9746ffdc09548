/**
 * Path data of an SVG as a region.
 */
import svgpath from "svgpath";
import { flattenPath, normalise, type PathCommand, type Region } from "../geometry";

/** @param data closed subpaths of lines and cubic curves; inside is decided by the nonzero rule */
export function pathRegion(data: string): Region {
  const commands: PathCommand[] = [];
  svgpath(data)
    .abs()
    .unshort()
    .iterate(([kind, ...v]) => {
      const n = v as unknown as number[];
      if (kind === "M" || kind === "L") commands.push({ type: kind, x: n[0]!, y: n[1]! });
      else if (kind === "C") commands.push({ type: "C", x1: n[0]!, y1: n[1]!, x2: n[2]!, y2: n[3]!, x: n[4]!, y: n[5]! });
      else if (kind === "Z") commands.push({ type: "Z" });
    });
  return normalise(flattenPath(commands).map(({ ring }) => ring));
}
