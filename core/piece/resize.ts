/**
 * Sizes of holders and shapes, changed by their edges.
 */
import { clampToBounds } from "./bounds";
import type { Part } from "./schema";

/** The edge that is in the hand. */
export type Side = "right" | "top" | "bottom";

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
    case "drawing":
      return ["top"];
    default:
      return [];
  }
}

/** So much of a loop stays around its hole, however far it is pushed in, mm across. */
const LEAST_WALL = 0.2;

/** @param out how far the edge goes outwards, mm; parts that lie about their middle grow by as much on the other side */
export function resizePart(part: Part, side: Side, out: number): Part {
  const across = side === "right";
  switch (part.kind) {
    case "bar":
      if (!across) return { ...part, height: clampToBounds(part.height + out, "bar", "height") };
      return part.length === "fit"
        ? { ...part, overhang: clampToBounds(part.overhang + out, "bar", "overhang") }
        : { ...part, length: clampToBounds(part.length + 2 * out, "bar", "length") };
    case "stick":
      return across
        ? { ...part, width: clampToBounds(part.width + 2 * out, "stick", "width") }
        : { ...part, length: clampToBounds(part.length + out, "stick", "length") };
    case "stake":
      return across
        ? { ...part, margin: clampToBounds(part.margin + out, "stake", "margin") }
        : { ...part, below: clampToBounds(part.below + out, "stake", "below") };
    case "backing":
      return { ...part, distance: clampToBounds(part.distance + out, "backing", "distance") };
    case "loop":
      return { ...part, outer: Math.max(part.hole + LEAST_WALL, clampToBounds(part.outer + 2 * out, "loop", "outer")) };
    case "ornament":
      return { ...part, height: clampToBounds(part.height + 2 * out, "ornament", "height") };
    case "drawing":
      return { ...part, height: clampToBounds(part.height + 2 * out, "drawing", "height") };
    case "shape": {
      const { size } = part;
      if (size.by === "fit")
        return { ...part, size: { ...size, margin: clampToBounds(size.margin + out, "shape", "size", "fit", "margin") } };
      const grown = (mm: number) => clampToBounds(mm + 2 * out, "shape", "size", "own", "width");
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
