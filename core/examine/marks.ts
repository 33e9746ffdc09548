/**
 * What belongs to the piece as a whole and may be lost unseen: engraving and carving that lie beside the material, a pair without room
 * between, a piece larger than it may be, words that have gone.
 */
import {
  boxesMeet,
  difference,
  type Matrix,
  type Point,
  type Region,
  regionArea,
  regionBox,
  regionCentroid,
  transformRegion,
} from "../geometry";
import type { Finding } from "../judge";
import type { Piece } from "../piece";
import type { Examination } from "./examination";
import type { Ghost } from "./solids";
import { remark } from "./words";

/** Less than this share of a mark beside the material, or less than this area (mm²), is lapping over an edge and nothing lost. */
const [LOST_SHARE, LOST_AREA] = [0.02, 0.05];

/** Findings that the verdict's sentence must tell. */
export function judgeWhole(piece: Piece, examination: Examination): Finding[] {
  return [
    ...findEmptied(piece, examination),
    ...marksLost(examination),
    ...twinMarksLost(piece, examination),
    ...pairTouches(piece),
    ...tooLarge(piece, examination),
    ...holesTooLarge(piece, examination),
  ];
}

function findEmptied({ parts }: Piece, { words, box }: Examination): Finding[] {
  const asked = parts.filter(({ kind }) => kind === "word");
  if (asked.length === 0 || words.some(({ letters }) => letters.length > 0) || !box) return [];
  // Where letters or their font are missing, that is told, and why nothing is there.
  if (words.length < asked.length || words.some(({ missing, vanished }) => missing.length + vanished.length > 0)) return [];
  const ids = asked.map(({ id }) => id);
  return [remark("empty", ids, { x: box.minX, y: box.maxY }, "weak", { why: "words are empty" })];
}

function marksLost({ ghosts, material }: Pick<Examination, "ghosts" | "material">): Finding[] {
  const findings: Finding[] = [];
  const byPart = new Map<string, { ghost: Ghost; outside: Region }[]>();
  for (const ghost of ghosts) {
    const outside = lostOf(ghost, material);
    if (outside.length > 0) byPart.set(ghost.partId, [...(byPart.get(ghost.partId) ?? []), { ghost, outside }]);
  }
  for (const lost of byPart.values()) {
    const { ghost, outside } = lost[0]!;
    const whole = lost.every((each) => regionArea(each.outside) > 0.98 * regionArea(each.ghost.region));
    const at: Point = regionCentroid(outside) ?? { x: 0, y: 0 };
    const ids = lost.map((each) => each.ghost.id);
    findings.push(remark(ghost.as === "carve" ? "carve-lost" : "mark-lost", ids, at, "weak", { whole }));
  }
  return findings;
}

/**
 * What is engraved readable on the mirrored one of a pair lies there as it would mirrored, turned over about its own middle: on an outline
 * that follows the letters, beside the material. It is told where it lies in the piece itself.
 */
function twinMarksLost({ pair }: Piece, { ghosts, material }: Examination): Finding[] {
  if (pair?.engraving !== "readable") return [];
  const engraved = ghosts.filter(({ as }) => as === "engrave");
  const box = regionBox(engraved.flatMap(({ region }) => region));
  if (!box) return [];
  const overturned: Matrix = [-1, 0, 0, 1, box.minX + box.maxX, 0];
  const there = engraved
    // What is beside the first one too is told of that.
    .filter((ghost) => lostOf(ghost, material).length === 0)
    .map((ghost) => ({ ...ghost, region: transformRegion(ghost.region, overturned) }));
  return marksLost({ ghosts: there, material }).map((finding) =>
    remark("twin-mark-lost", finding.parts, finding.at, "weak", { whole: "whole" in finding && finding.whole }),
  );
}

/** What of a mark lies beside the material. A shape that is cut out may reach beyond the edge: it is lost only where it takes nothing. */
function lostOf({ region, as, from, letterId }: Ghost, material: Region): Region {
  const under = as === "carve" ? (from ?? []) : material;
  const area = regionArea(region);
  const outside = under.length === 0 || !boxesMeet(regionBox(region), regionBox(under)) ? region : difference(region, under);
  const lost = regionArea(outside);
  const least = as === "carve" && !letterId ? 0.999 * area : Math.max(LOST_AREA, LOST_SHARE * area);
  return lost > least ? outside : [];
}

function pairTouches({ pair, stock }: Piece): Finding[] {
  const least = Math.max(stock.kerf, 0.1);
  if (!pair || pair.gap >= least) return [];
  return [remark("pair-touches", [], { x: 0, y: 0 }, "weak", { apart: pair.gap, wanted: Math.max(1, least) })];
}

function tooLarge({ limit }: Piece, { box }: Examination): Finding[] {
  if (!limit || !box) return [];
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  if (width <= limit.width + 0.01 && height <= limit.height + 0.01) return [];
  const facts = { size: [width, height], most: [limit.width, limit.height] } as const;
  return [remark("too-large", [], { x: box.maxX, y: box.maxY }, "weak", facts)];
}

function holesTooLarge({ parts }: Piece, { box }: Examination): Finding[] {
  return parts.flatMap((part): Finding[] => {
    if (part.kind !== "loop" || part.hole < part.outer) return [];
    const at = { x: box?.minX ?? 0, y: box?.maxY ?? 0 };
    return [remark("hole-too-large", [part.id], at, "falls", { hole: part.hole, outer: part.outer })];
  });
}
