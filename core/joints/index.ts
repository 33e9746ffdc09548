/**
 * From widths to holds: how wide every part is joined, where it would break, how often it is held, what goes with it.
 */
import { type Box, type Point, type Region, regionArea, regionBox, regionContains } from "../geometry";
import { type Neck, poleOf, type WidthField } from "../measure";
import { buildGraph, type JointGraph, lostByWay, minimumCut, narrowestOf } from "./graph";
import { reachAnchors, widestWay } from "./tree";

export { type JointGraph, lostByWay, minimumCut, type Way } from "./graph";

export interface JointPart {
  region: Region;
  /** True for bars, sticks and all else that holds letters. */
  holder: boolean;
  /** Middle of the part on its own and the width there, where the caller knows it already. */
  pole?: (Point & { width: number }) | null;
}

export interface Hold {
  /** Diameter in mm of the largest disc that can travel from the part's middle to a holder's; 0 where no way leads there. */
  width: number;
  falls: boolean;
  /** The narrowest chord on that way; across the part itself where nothing on the way is narrower. `null` where the part falls. */
  neck: Neck | null;
  /** Where to point: the middle of the neck, else the middle of the part. */
  at: Point;
  /** How many necks must break before the part comes loose, and how many mm of material at least. 0 for parts that fall. */
  ties: number;
  tieWidth: number;
  /** True for the part that everything is measured to. */
  anchor: boolean;
}

export interface Joint {
  /** Indices of the parts that meet. */
  parts: number[];
  width: number;
  from: Point;
  to: Point;
  /** Indices of the parts that lose their way to a holder when this joint breaks. */
  takes: number[];
}

export interface Joints {
  holds: Hold[];
  joints: Joint[];
  /** Index of the part that stands in for a holder where there is none, else −1. */
  standIn: number;
  /** Body of the width field that each part sits in, −1 for none: parts in one body are one lump. */
  bodies: number[];
  /** Width in mm of the widest way through the material between the middles of two parts; 0 where there is none. */
  widestWay(a: number, b: number): number;
}

/** @param parts in the order that `Neck.parts` refers to */
export function findJoints(parts: readonly JointPart[], field: WidthField): Joints {
  const poles = parts.map((part) => (part.pole === undefined ? poleOf(part.region) : part.pole));
  const places = poles.map((pole) => (pole ? field.locate(pole.x, pole.y) : null));
  const terminals = places.map((place) => place?.body ?? -1);
  const { anchors, main, standIn } = chooseAnchors(parts);
  // Holds are measured to the middle of a holder, ties to any place in it: two graphs of the same necks.
  const toMiddles = buildGraph(field, terminals, new Uint8Array(field.bodies.length));
  const toAnchors = reachAnchors(toMiddles, anchors);
  const toMain = anchors.length > 1 ? reachAnchors(toMiddles, [main]) : toAnchors;
  const held = bodiesInside(
    field,
    anchors.map((i) => parts[i]!.region),
  );
  const graph = buildGraph(field, terminals, held);

  const holds = parts.map((_, i): Hold => {
    const way = (anchors.includes(i) ? toMain : toAnchors)[i]!;
    const place = places[i];
    const pole = poles[i];
    const middle = { x: pole?.x ?? 0, y: pole?.y ?? 0 };
    if (way === null || !place || !pole) {
      return { width: 0, falls: true, neck: null, at: middle, ties: 0, tieWidth: 0, anchor: i === main };
    }
    const neck = way === -1 ? null : field.exact(toMiddles.ways[way]!.narrowest);
    const own: Neck = { width: place.clearance, from: place.from, to: place.to, parts: [i] };
    const decides = neck && neck.width <= own.width ? neck : own;
    const { width } = decides;
    const ties = minimumCut(graph, graph.nodeOf[i]!, () => 1);
    return {
      width,
      falls: width <= 0,
      neck: decides,
      at: { x: (decides.from.x + decides.to.x) / 2, y: (decides.from.y + decides.to.y) / 2 },
      // A part that lies wholly in a holder has no neck of its own: its own width is what would have to break.
      ties: ties || 1,
      tieWidth: ties ? minimumCut(graph, graph.nodeOf[i]!, (each) => each.width) : width,
      anchor: i === main,
    };
  });

  return { holds, joints: listJoints(field, graph), standIn, bodies: terminals, widestWay: (a, b) => widestWay(toMiddles, a, b) };
}

function chooseAnchors(parts: readonly JointPart[]): { anchors: number[]; main: number; standIn: number } {
  const areas = parts.map((part) => regionArea(part.region));
  const largest = (indices: number[]) => indices.reduce((best, i) => (areas[i]! > (areas[best] ?? -1) ? i : best), -1);
  const holders = [...parts.keys()].filter((i) => parts[i]!.holder && areas[i]! > 0);
  if (holders.length > 0) return { anchors: holders, main: largest(holders), standIn: -1 };
  const standIn = largest([...parts.keys()]);
  return { anchors: standIn === -1 ? [] : [standIn], main: standIn, standIn };
}

function bodiesInside(field: WidthField, regions: Region[]): Uint8Array {
  const inside = new Uint8Array(field.bodies.length);
  for (const region of regions) {
    const box = regionBox(region);
    if (!box) continue;
    field.bodies.forEach(({ x, y }, b) => {
      if (inside[b] === 0 && within(box, x, y) && regionContains(region, x, y)) inside[b] = 1;
    });
  }
  return inside;
}

function within(box: Box, x: number, y: number): boolean {
  return x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
}

/** Along each way of the graph, the narrowest neck for each set of parts that meet there. */
function listJoints(field: WidthField, graph: JointGraph): Joint[] {
  const lost = lostByWay(graph);
  const joints: Joint[] = [];
  graph.ways.forEach((way, w) => {
    const meeting = new Map<string, number[]>();
    for (const k of way.necks) {
      const parts = field.partsAt(k);
      if (parts.length > 1) meeting.set(parts.join(" "), [...(meeting.get(parts.join(" ")) ?? []), k]);
    }
    const gone = new Set(lost[w]!);
    const takes = [...graph.nodeOf.keys()].filter((part) => gone.has(graph.nodeOf[part]!));
    for (const necks of meeting.values()) {
      const { parts, width, from, to } = field.exact(narrowestOf(field, necks).narrowest);
      if (parts.length > 1) joints.push({ parts, width, from, to, takes });
    }
  });
  return joints.sort((a, b) => a.width - b.width);
}
