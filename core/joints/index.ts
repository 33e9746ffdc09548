/**
 * From widths to holds: how wide every part is joined, where it would break, how often it is held, what goes with it.
 */
import { type Box, type Point, type Region, regionArea, regionBox, regionContains } from "../geometry";
import { type Neck, poleOf, type WidthField } from "../measure";
import { buildGraph, lostByEdge, minimumCut } from "./graph";
import { reachAnchors } from "./tree";

export { buildGraph, lostByEdge, minimumCut } from "./graph";
export { reachAnchors } from "./tree";

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
  /** The narrowest chord on that way; `null` where the part falls, or where nothing is narrower than the part itself. */
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
}

/** @param parts in the order that `Neck.parts` refers to */
export function findJoints(parts: readonly JointPart[], field: WidthField): Joints {
  const poles = parts.map((part) => (part.pole === undefined ? poleOf(part.region) : part.pole));
  const places = poles.map((pole) => (pole ? field.locate(pole.x, pole.y) : null));
  const terminals = places.map((place) => place?.body ?? -1);
  const { anchors, main, standIn } = chooseAnchors(parts);
  const bodiesOf = (indices: number[]) => indices.map((i) => terminals[i]!);

  const count = field.bodies.length;
  const toAnchors = reachAnchors(count, field.necks, terminals, bodiesOf(anchors));
  const toMain = anchors.length > 1 ? reachAnchors(count, field.necks, terminals, bodiesOf([main])) : toAnchors;
  const held = bodiesInside(
    field,
    anchors.map((i) => parts[i]!.region),
  );
  const graph = buildGraph(field.necks, terminals, held);

  const holds = parts.map((_, i): Hold => {
    const { neck: index } = (anchors.includes(i) ? toMain : toAnchors)[i]!;
    const place = places[i];
    const pole = poles[i];
    const middle = { x: pole?.x ?? 0, y: pole?.y ?? 0 };
    if (index === null || !place || !pole) {
      return { width: 0, falls: true, neck: null, at: middle, ties: 0, tieWidth: 0, anchor: false };
    }
    const neck = index === -1 ? null : field.necks[index]!;
    const own = place.clearance;
    const decides = neck && neck.width <= own ? neck : null;
    const width = decides ? decides.width : own;
    const ties = minimumCut(graph, graph.nodeOf[i]!, () => 1);
    return {
      width,
      falls: width <= 0,
      neck: decides,
      at: decides ? { x: (decides.from.x + decides.to.x) / 2, y: (decides.from.y + decides.to.y) / 2 } : middle,
      // A part that lies wholly in a holder has no neck of its own: its own width is what would have to break.
      ties: ties || 1,
      tieWidth: ties ? minimumCut(graph, graph.nodeOf[i]!, (edge) => edge.width) : width,
      anchor: i === main,
    };
  });

  return { holds, joints: listJoints(field.necks, graph), standIn };
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
function listJoints(necks: readonly Neck[], graph: ReturnType<typeof buildGraph>): Joint[] {
  const lost = lostByEdge(graph);
  const joints: Joint[] = [];
  graph.edges.forEach((edge, e) => {
    const narrowest = new Map<string, Neck>();
    for (const k of edge.necks) {
      const neck = necks[k]!;
      if (neck.parts.length < 2) continue;
      const key = neck.parts.join(" ");
      const known = narrowest.get(key);
      if (!known || neck.width < known.width) narrowest.set(key, neck);
    }
    const gone = new Set(lost[e]!);
    const takes = [...graph.nodeOf.keys()].filter((part) => gone.has(graph.nodeOf[part]!));
    for (const { parts, width, from, to } of narrowest.values()) joints.push({ parts, width, from, to, takes });
  });
  return joints.sort((a, b) => a.width - b.width);
}
