/**
 * From widths to holds: how wide every part is joined, where it would break, how often it is held, what goes with it.
 */
import Flatbush from "flatbush";
import { boxHolds, insideTest, type Point, type Region, regionArea, regionBox } from "../geometry";
import { type Neck, poleOf, type WidthField } from "../measure";
import { minimumCuts } from "./cuts";
import { buildGraph, type JointGraph, lostWithEdge, narrowestOf, netOf } from "./graph";
import { buildMergeTree } from "./tree";

export { classify, GRACE, isNarrower, type WidthState } from "./classify";
export { type Component, CRUMB, findComponents } from "./components";
export { minimumCuts } from "./cuts";
export { type GraphEdge, type JointGraph, lostWithEdge } from "./graph";
export { findLimbs, type Limb, WORTH_SHARE, WORTH_SQUARES } from "./limbs";

export interface JointPart {
  region: Region;
  /** True for bars, sticks and all else that holds letters. */
  holder: boolean;
  /** Middle of the part on its own and the width there, where the caller knows it already. */
  pole?: (Point & { width: number }) | null | undefined;
}

export interface Hold {
  /** Diameter in mm of the largest disc that can travel from the part's middle to a holder's; 0 where no path leads there. */
  width: number;
  falls: boolean;
  /** The narrowest chord on that path; across the part itself where nothing on the path is narrower. `null` where the part falls. */
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
  /** Indices of the parts that have no path left to a holder when this joint breaks. */
  takes: number[];
}

export interface Joints {
  holds: Hold[];
  joints: Joint[];
  /** Index of the part that stands in for a holder where there is none, else −1. */
  standIn: number;
  /** Body of each part's middle, −1 for parts without material. */
  bodies: number[];
  /** Index of the part that everything hangs on, −1 for none; and of all that hold. */
  main: number;
  anchors: number[];
  /** Width in mm of the widest path through the material between the middles of two parts; 0 where there is none. */
  widestPath(a: number, b: number): number;
}

/**
 * The paths between the middles of all parts, widest first.
 *
 * @param ties whether ties are asked for too: else no body counts as one of a holder's
 */
function findPaths(parts: readonly JointPart[], field: WidthField, ties: boolean) {
  const poles = parts.map((part) => (part.pole === undefined ? poleOf(part.region) : part.pole));
  const places = poles.map((pole) => (pole ? field.middle(pole.x, pole.y) : null));
  const terminals = places.map((place) => place?.body ?? -1);
  const { anchors, main, standIn } = chooseAnchors(parts);
  // Holds are measured to the middle of a holder, ties to any place in it: two graphs of the same necks.
  const none = new Uint8Array(field.bodies.length);
  const held = ties ? bodiesOfHolders(field, parts, anchors, terminals) : none;
  const net = netOf(field, terminals, held);
  const toMiddles = buildGraph(net, none);
  const clearance = places.map((place) => place?.clearance ?? 0);
  const tree = buildMergeTree(toMiddles, clearance);
  const deciderOf = (i: number) => tree.decider(i, anchors.includes(i) ? [main] : anchors);
  return { poles, places, terminals, anchors, main, standIn, held, net, toMiddles, clearance, tree, deciderOf };
}

/** How wide every part is held, mm, 0 for what falls: all that is asked while a mend is looked for. */
export function findHoldWidths(parts: readonly JointPart[], field: WidthField): number[] {
  const { poles, clearance, toMiddles, deciderOf } = findPaths(parts, field, false);
  return parts.map((_, i) => {
    const decider = deciderOf(i);
    if (!decider || !poles[i]) return 0;
    return "edge" in decider ? field.exact(toMiddles.edges[decider.edge]!.narrowest).width : clearance[decider.middleOf]!;
  });
}

/** @param parts in the order that `Neck.parts` refers to */
export function findJoints(parts: readonly JointPart[], field: WidthField): Joints {
  const { poles, places, terminals, anchors, main, standIn, held, net, toMiddles, clearance, tree, deciderOf } = findPaths(
    parts,
    field,
    true,
  );
  const graph = buildGraph(net, held);
  const necksToCut = minimumCuts(graph, () => 1, graph.nodeOf);
  const widthToCut = minimumCuts(graph, ({ width }) => width, graph.nodeOf);

  // One neck per middle, so that all that hangs on it can be seen to hang on the same place.
  const middles = places.map(
    (place, part): Neck | null => place && { width: place.clearance, from: place.from, to: place.to, parts: [part] },
  );

  const holds = parts.map((_, i): Hold => {
    const decider = deciderOf(i);
    const pole = poles[i];
    if (!decider || !pole) {
      return {
        width: 0,
        falls: true,
        neck: null,
        at: { x: pole?.x ?? 0, y: pole?.y ?? 0 },
        ties: 0,
        tieWidth: 0,
        anchor: i === main,
      };
    }
    const neck = "edge" in decider ? field.exact(toMiddles.edges[decider.edge]!.narrowest) : middles[decider.middleOf]!;
    const { width } = neck;
    const ties = necksToCut[graph.nodeOf[i]!]!;
    return {
      width,
      falls: width <= 0,
      neck,
      at: { x: (neck.from.x + neck.to.x) / 2, y: (neck.from.y + neck.to.y) / 2 },
      // A part that lies wholly in a holder has no neck of its own: its own width is what would have to break.
      ties: ties || 1,
      tieWidth: ties ? widthToCut[graph.nodeOf[i]!]! : width,
      anchor: i === main,
    };
  });

  const widestPath = (a: number, b: number) => {
    const decider = tree.decider(a, [b]);
    if (!decider) return 0;
    return "edge" in decider ? toMiddles.edges[decider.edge]!.width : clearance[decider.middleOf]!;
  };
  return { holds, joints: listJoints(field, graph), standIn, bodies: terminals, main, anchors, widestPath };
}

function chooseAnchors(parts: readonly JointPart[]): { anchors: number[]; main: number; standIn: number } {
  const areas = parts.map((part) => regionArea(part.region));
  const largest = (indices: number[]) => indices.reduce((best, i) => (areas[i]! > (areas[best] ?? -1) ? i : best), -1);
  const holders = [...parts.keys()].filter((i) => parts[i]!.holder && areas[i]! > 0);
  if (holders.length > 0) return { anchors: holders, main: largest(holders), standIn: -1 };
  const standIn = largest([...parts.keys()]);
  return { anchors: standIn === -1 ? [] : [standIn], main: standIn, standIn };
}

/** Bodies that belong to the holders alone, and the middles of the holders: where other parts overlap a holder, they may still break off. */
function bodiesOfHolders(
  field: WidthField,
  parts: readonly JointPart[],
  anchors: readonly number[],
  terminals: readonly number[],
): Uint8Array {
  const boxes = parts.map((part) => regionBox(part.region));
  const tests: ((x: number, y: number) => boolean)[] = [];
  const lies = (i: number, x: number, y: number) => {
    if (!boxes[i] || !boxHolds(boxes[i], x, y)) return false;
    tests[i] ??= insideTest(parts[i]!.region);
    return tests[i]!(x, y);
  };
  const held = new Uint8Array(field.bodies.length);
  if (anchors.length === 0) return held;
  const holders = new Set(anchors);
  const tree = new Flatbush(parts.length);
  for (const box of boxes) tree.add(box?.minX ?? 0, box?.minY ?? 0, box?.maxX, box?.maxY);
  tree.finish();
  for (const anchor of anchors) {
    for (let b = 0; b < held.length; b++) {
      const { x, y } = field.bodies[b]!;
      if (held[b] === 1 || !lies(anchor, x, y)) continue;
      if (!tree.search(x, y, x, y).some((i) => !holders.has(i) && lies(i, x, y))) held[b] = 1;
    }
  }
  for (const i of anchors) if (terminals[i]! >= 0) held[terminals[i]!] = 1;
  return held;
}

/** Along each edge of the graph, the narrowest neck for each set of parts that meet there. */
function listJoints(field: WidthField, graph: JointGraph): Joint[] {
  const lost = lostWithEdge(graph);
  const joints: Joint[] = [];
  graph.edges.forEach((edge, w) => {
    const meeting = new Map<string, number[]>();
    for (const k of edge.necks) {
      const parts = field.partsAt(k);
      if (!parts || parts.length < 2) continue;
      const key = parts.join(" ");
      const known = meeting.get(key);
      if (known) known.push(k);
      else meeting.set(key, [k]);
    }
    if (meeting.size === 0) return;
    const takes = lost(w);
    for (const necks of meeting.values()) {
      const { parts, width, from, to } = field.exact(narrowestOf(field, necks).narrowest);
      if (parts.length > 1) joints.push({ parts, width, from, to, takes });
    }
  });
  return joints.sort((a, b) => a.width - b.width);
}
