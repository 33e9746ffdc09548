/**
 * Sizes of holders and shapes, changed by their edges.
 */
import { LIMITS, type Part } from "./schema";

/** The edge that is in the hand. */
export type Side = "right" | "top" | "bottom";

const round = (mm: number) => Math.round(mm * 100) / 100;
const within = (mm: number, least: number, most: number) => Math.min(most, Math.max(least, round(mm)));

/** Which edges of a part can be taken in the hand. */
export function sidesOf(part: Part): Side[] {
  switch (part.kind) {
    case "bar":
    case "stick":
      return ["right", "bottom"];
    case "shape":
      // A disc has one size, and what goes by the lettering has one margin.
      return part.size.by === "fit" || part.form === "disc" ? ["right"] : ["right", "top"];
    case "stake":
      return ["right", "bottom"];
    case "backing":
    case "loop":
      return ["right"];
    case "ornament":
      return ["top"];
    default:
      return [];
  }
}

/** @param out how far the edge goes outwards, mm; parts that lie about their middle grow by as much on the other side */
export function resizePart(part: Part, side: Side, out: number): Part {
  const across = side === "right";
  switch (part.kind) {
    case "bar":
      if (!across) return { ...part, height: within(part.height + out, 0.5, 500) };
      return part.length === "fit"
        ? { ...part, overhang: within(part.overhang + out, -500, 500) }
        : { ...part, length: within(part.length + 2 * out, 1, 1000) };
    case "stick":
      return across
        ? { ...part, width: within(part.width + 2 * out, 0.5, 200) }
        : { ...part, length: within(part.length + out, 1, 1000) };
    case "stake":
      return across
        ? { ...part, margin: within(part.margin + out, 0.5, 500) }
        : { ...part, below: within(part.below + out, 1, 200) };
    case "backing":
      return { ...part, distance: within(part.distance + out, 0.2, 100) };
    case "loop":
      return { ...part, outer: within(part.outer + 2 * out, Math.max(1, part.hole + 0.2), 200) };
    case "ornament":
      return { ...part, height: within(part.height + 2 * out, 1, 500) };
    case "shape": {
      const { size } = part;
      if (size.by === "fit") return { ...part, size: { ...size, margin: within(size.margin + out, -200, 200) } };
      const grown = (mm: number) => within(mm + 2 * out, 2, LIMITS.reach);
      if (part.form === "disc") {
        const width = grown(Math.min(size.width, size.height));
        return { ...part, size: { ...size, width, height: width } };
      }
      return { ...part, size: across ? { ...size, width: grown(size.width) } : { ...size, height: grown(size.height) } };
    }
    default:
      return part;
  }
}
