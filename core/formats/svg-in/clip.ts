/**
 * Clipping: of what is drawn only that shows which lies within the clip (CSS Masking 1, W3C Candidate Recommendation 2021, chapter 5;
 * SVG 2, section 3.5 for viewports).
 */
import type { Element } from "domhandler";
import { intersection, type Matrix, multiply, type Region, type Ring, regionBox, union } from "../../geometry";
import { clipOf } from "../shown";
import { outlineOf, SHAPES } from "./shapes";
import type { Styles } from "./style";
import { type Attributes, type SvgTree, targetOf } from "./tree";
import { moveOf, type Size, transformOf } from "./view";

/** Where an element is drawn, and what cuts it off. */
export interface Place {
  /** User units to mm. */
  matrix: Matrix;
  /** What percentages are of, in user units. */
  viewport: Size;
}

const NOT_APPLIED = "clip-path: one of the clips cannot be read, and what it hides is read too";

/** The clips of one file. */
export class Clips {
  private readonly known = new Map<string, Region>();

  /** @param say takes sentences about what cannot be read */
  constructor(
    private readonly tree: SvgTree,
    private readonly styles: Styles,
    private readonly say: (note: string) => void,
  ) {}

  /**
   * What an element's `clip-path` leaves of everything, mm, y downwards.
   *
   * @param box the element's own box in user units, where it is a shape
   * @returns `null` where nothing is cut off
   */
  of(style: Attributes, place: Place, box: () => Ring | null, within: readonly string[] = []): Region | null {
    const said = style["clip-path"]?.trim();
    if (!said || said === "none") return null;
    const id = /^url\(\s*["']?#([^"')]+?)["']?\s*\)/.exec(said)?.[1];
    const clip = id === undefined ? undefined : this.tree.byId.get(id);
    if (!id || clip?.name.toLowerCase() !== "clippath" || within.includes(id)) {
      this.say(NOT_APPLIED);
      return null;
    }
    let { matrix } = place;
    if (clip.attribs.clipPathUnits?.trim() === "objectBoundingBox") {
      const own = regionBox([box() ?? new Float64Array()]);
      if (!own) {
        this.say(NOT_APPLIED);
        return null;
      }
      matrix = multiply(matrix, [own.maxX - own.minX, 0, 0, own.maxY - own.minY, own.minX, own.minY]);
    }
    const { width, height } = place.viewport;
    const key = [id, ...matrix, width, height].join(" ");
    let region = this.known.get(key);
    if (region === undefined) {
      region = this.make(id, { ...place, matrix }, [...within, id]);
      this.known.set(key, region);
    }
    return region;
  }

  private make(id: string, place: Place, within: readonly string[]): Region {
    const clip = this.tree.byId.get(id)!;
    const style = this.styles.of(clip);
    const inner = this.placed(style, place);
    const parts: Region[] = [];
    for (const child of clip.childNodes) {
      const part = this.part(child as Element, { ...inner, rule: style["clip-rule"] }, within);
      if (part) parts.push(part);
    }
    const region = union(parts);
    const outer = this.of(style, inner, () => null, within);
    return outer ? intersection(region, outer) : region;
  }

  private part(element: Element, place: Place & { rule: string | undefined }, within: readonly string[]): Region | null {
    const style = this.styles.of(element);
    const name = element.name.toLowerCase();
    if (style.display === "none" || style.visibility === "hidden") return null;
    const inner = { ...this.placed(style, place), rule: style["clip-rule"] ?? place.rule };
    let region: Region | null = null;
    if (name === "use") {
      const target = this.tree.byId.get(targetOf(element.attribs) ?? "");
      const matrix = multiply(inner.matrix, moveOf(style, inner.viewport));
      if (target && SHAPES.has(target.name.toLowerCase())) region = this.part(target, { ...inner, matrix }, within);
    } else if (SHAPES.has(name)) {
      const commands = outlineOf(name, { style, ...inner, place: `<${name}> in a clip`, reach: Number.MAX_VALUE });
      region = clipOf(commands, inner.rule?.trim() === "evenodd" ? "evenodd" : "nonzero");
    } else if (name === "text") {
      this.say(NOT_APPLIED);
    }
    const outer = region && this.of(style, inner, () => null, within);
    return region && outer ? intersection(region, outer) : region;
  }

  private placed(style: Attributes, { matrix, viewport }: Place): Place {
    const own = transformOf(style, viewport, "<clipPath>");
    return { matrix: own ? multiply(matrix, own) : matrix, viewport };
  }
}
