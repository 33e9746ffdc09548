/**
 * Nodes of a path that lie too close to each other, made one or drawn apart.
 */
import { arcAsCubics, type CurvePath, type CurveSegment } from "../curves";
import type { Point } from "../ring";
import { segmentDistance2 } from "../segment";

/** Nodes lie no closer than this, mm. */
const APART = 0.05;

/** A node, with all places that it stands for. */
interface Node extends Point {
  was: Point[];
}

/** A segment between two nodes; handles go along with the nodes that they belong to. */
interface Link {
  from: Node;
  to: Node;
  /** Handles of a curve, from its nodes. */
  handles?: [Point, Point];
  arc?: Extract<CurveSegment, { type: "A" }>;
}

/** Nodes that lie too close become one where little is lost by it, else they are drawn apart along the line before or after them. */
export function spaceNodes(path: CurvePath, most: number): CurvePath | null {
  const links = linksOf(path);
  for (let k = 0; k < links.length; ) {
    const link = links[k]!;
    if (lengthOf(link) >= APART || (links.length === 1 && !path.closed)) {
      k++;
      continue;
    }
    const [before, next] = path.closed
      ? [links[k - 1] ?? links[links.length - 1]!, links[k + 1] ?? links[0]!]
      : [links[k - 1], links[k + 1]];
    const { node, lost } = oneFor(link, before, next);
    const apart = lost > LOST ? drawnApart(link, before, next, most) : null;
    if (apart && apart.lost < lost) Object.assign(apart.node, apart.to);
    // Where nothing can be done without losing too much, the nodes stay as near to each other as they are.
    if (lost > most || (apart && apart.lost < lost)) {
      k++;
      continue;
    }
    Object.assign(link.from, node);
    links.splice(k, 1);
    const after = links[k] ?? (path.closed ? links[0] : undefined);
    if (after) after.from = link.from;
    else if (links[k - 1]) links[k - 1]!.to = link.from;
    if (links.length < 2 && path.closed) return null;
  }
  const start = links[0]!.from;
  return { x: start.x, y: start.y, segments: links.map(segmentOf), closed: path.closed };
}

const lengthOf = ({ from, to }: Link) => Math.hypot(to.x - from.x, to.y - from.y);

/** More than this, mm, may not be lost by making one node of two. */
const LOST = 0.012;
/** The node in place of both ends of a link from which their places, and all that they stood for before, are not far. */
function oneFor({ from, to }: Link, before: Link | undefined, next: Link | undefined): { node: Node; lost: number } {
  const was = [...from.was, ...to.was];
  const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
  // Beside the node a curve runs towards its handle; an arc is not followed at all.
  const towards = (node: Point, link: Link | undefined, far: Point, which: 0 | 1): Point | null => {
    if (!link) return null;
    const handle = link.handles?.[which];
    return handle ? { x: node.x + handle.x, y: node.y + handle.y } : link.arc ? node : far;
  };
  const lostBy = (node: Point) => {
    const [back, forth] = [towards(node, before, before?.from ?? node, 1), towards(node, next, next?.to ?? node, 0)];
    return Math.max(
      // A curve goes along with its node.
      before?.handles || before?.arc ? away(node, from) : 0,
      next?.handles || next?.arc ? away(node, to) : 0,
      ...was.map((old) => Math.min(back ? offLine(old, back, node) : Infinity, forth ? offLine(old, node, forth) : Infinity)),
    );
  };
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  // The ends of an open line stay.
  const choices: Point[] = !before ? [from] : !next ? [to] : [middle, from, to];
  let [best, least] = [choices[0]!, lostBy(choices[0]!)];
  for (const choice of choices.slice(1)) {
    const lost = lostBy(choice);
    if (lost < least - 1e-9) [best, least] = [choice, lost];
  }
  return { node: { x: best.x, y: best.y, was }, lost: least };
}

interface Apart {
  node: Node;
  to: Point;
  /** How far the place where the node was lies from the lines then, mm. */
  lost: number;
}

/** One end of a link moved along a long line beside it, until both are as far apart as nodes must be. */
function drawnApart(link: Link, before: Link | undefined, next: Link | undefined, most: number): Apart | null {
  const along = (line: Link | undefined, node: Node, other: Node, end: Node): Apart[] => {
    const length = line ? lengthOf(line) : 0;
    if (!line || line.handles || line.arc || length < 2.5 * APART) return [];
    const direction = { x: (other.x - node.x) / length, y: (other.y - node.y) / length };
    for (let by = 0.005; by < 2 * APART; by += 0.005) {
      const to = { x: node.x + direction.x * by, y: node.y + direction.y * by };
      if (Math.hypot(to.x - end.x, to.y - end.y) < APART) continue;
      const lost = Math.max(...node.was.map((old) => Math.min(offLine(old, to, end), offLine(old, to, other))));
      return lost <= most ? [{ node, to, lost }] : [];
    }
    return [];
  };
  const options = [
    ...along(before, link.from, before?.from ?? link.from, link.to),
    ...along(next, link.to, next?.to ?? link.to, link.from),
  ];
  return options.reduce<Apart | null>((best, each) => (best && best.lost <= each.lost ? best : each), null);
}

const offLine = (p: Point, a: Point, b: Point) => Math.sqrt(segmentDistance2(p.x, p.y, a.x, a.y, b.x, b.y));

/** Arcs beside nodes that will have to move are made into curves, which can follow. */
function linksOf(path: CurvePath): Link[] {
  const { segments, closed } = path;
  const nodeAt = ({ x, y }: Point): Node => ({ x, y, was: [{ x, y }] });
  const ends = [path, ...segments].map(nodeAt);
  const short = segments.map((_, k) => Math.hypot(ends[k + 1]!.x - ends[k]!.x, ends[k + 1]!.y - ends[k]!.y) < APART);
  const links: Link[] = [];
  let from = ends[0]!;
  const add = (segment: CurveSegment, keepArc: boolean) => {
    const to = nodeAt(segment);
    if (segment.type === "C") {
      const handles: [Point, Point] = [
        { x: segment.x1 - from.x, y: segment.y1 - from.y },
        { x: segment.x2 - to.x, y: segment.y2 - to.y },
      ];
      links.push({ from, to, handles });
    } else links.push(segment.type === "A" && keepArc ? { from, to, arc: segment } : { from, to });
    from = to;
  };
  segments.forEach((segment, k) => {
    const n = segments.length;
    const moves = [k - 1, k, k + 1].some((i) => short[closed ? (i + n) % n : i]);
    if (segment.type === "A" && moves) for (const cubic of arcAsCubics(segment, from)) add(cubic, false);
    else add(segment, true);
  });
  if (closed) {
    const last = links[links.length - 1]!;
    last.to = links[0]!.from;
  }
  return links;
}

function segmentOf({ from, to, handles, arc }: Link): CurveSegment {
  if (arc) return { ...arc, x: to.x, y: to.y };
  if (!handles) return { type: "L", x: to.x, y: to.y };
  const [one, two] = handles;
  return { type: "C", x1: from.x + one.x, y1: from.y + one.y, x2: to.x + two.x, y2: to.y + two.y, x: to.x, y: to.y };
}
