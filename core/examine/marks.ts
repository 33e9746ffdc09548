/**
 * What belongs to the piece as a whole and may be lost unseen: engraving and carving that lie beside the material, a pair without room
 * between, a piece larger than it may be, words that have gone.
 */
import { boxesMeet, difference, type Point, type Region, regionArea, regionBox, regionCentroid } from "../geometry";
import { capital, type Finding, listOf, nameOf } from "../judge";
import { formatLength, type Piece, type Units } from "../piece";
import type { Examination } from "./examine";
import type { Ghost } from "./solids";
import { remark } from "./words";

/** Less than this share of a mark beside the material, or less than this area (mm²), is lapping over an edge and nothing lost. */
const [LOST_SHARE, LOST_AREA] = [0.02, 0.05];

/** Findings that the verdict's sentence must tell. */
export function judgeWhole(piece: Piece, examination: Examination, units: Units): Finding[] {
  return [
    ...emptied(piece, examination),
    ...marksLost(examination),
    ...pairTouches(piece, units),
    ...tooLarge(piece, examination, units),
    ...holesTooLarge(piece, examination, units),
  ];
}

function emptied({ parts }: Piece, { words, box }: Examination): Finding[] {
  const asked = parts.filter(({ kind }) => kind === "word");
  if (asked.length === 0 || words.some(({ letters }) => letters.length > 0) || !box) return [];
  const ids = asked.map(({ id }) => id);
  return [
    remark(
      "empty",
      ids,
      { x: box.minX, y: box.maxY },
      "weak",
      "The words are empty: only what should hold them would be cut. Type a word.",
    ),
  ];
}

function marksLost({ ghosts, material }: Examination): Finding[] {
  const findings: Finding[] = [];
  const byPart = new Map<string, { ghost: Ghost; outside: Region }[]>();
  for (const ghost of ghosts) {
    const outside = lostOf(ghost, material);
    if (outside.length > 0) byPart.set(ghost.partId, [...(byPart.get(ghost.partId) ?? []), { ghost, outside }]);
  }
  for (const lost of byPart.values()) {
    const { ghost, outside } = lost[0]!;
    const names = [...new Set(lost.map((each) => nameOf(each.ghost.label)))];
    const all = lost.every((each) => regionArea(each.outside) > 0.98 * regionArea(each.ghost.region));
    const at: Point = regionCentroid(outside) ?? { x: 0, y: 0 };
    const are = names.length > 1 ? "are" : "is";
    const message =
      ghost.as === "engrave"
        ? `${capital(listOf(names))} ${are} engraved ${all ? "" : "partly "}beside the material${all ? "" : ", across the cut"}. Make the plate larger, or the words smaller.`
        : `${capital(listOf(names))} ${are} cut out where there is ${all ? "no material" : "not material all around"}: ${all ? "nothing of it will be seen" : "its shape is lost"}. Move it onto the material.`;
    const ids = lost.map((each) => each.ghost.id);
    findings.push(remark(ghost.as === "engrave" ? "mark-lost" : "carve-lost", ids, at, "weak", message));
  }
  return findings;
}

/** What of a mark lies beside the material. A shape that is cut out may reach beyond the edge: it is lost only where it takes nothing. */
function lostOf({ region, as, from, letterId }: Ghost, material: Region): Region {
  const under = as === "engrave" ? material : (from ?? []);
  const area = regionArea(region);
  const outside = under.length === 0 || !boxesMeet(regionBox(region), regionBox(under)) ? region : difference(region, under);
  const lost = regionArea(outside);
  const least = as === "carve" && !letterId ? 0.999 * area : Math.max(LOST_AREA, LOST_SHARE * area);
  return lost > least ? outside : [];
}

function pairTouches({ pair, stock }: Piece, units: Units): Finding[] {
  const least = Math.max(stock.kerf, 0.1);
  if (!pair || pair.gap >= least) return [];
  const message = `The two of the pair lie ${formatLength(pair.gap, units, 2)} apart, less than the cut takes: their edges would be cut twice. Leave ${formatLength(Math.max(1, least), units)} or more.`;
  return [remark("pair-touches", [], { x: 0, y: 0 }, "weak", message)];
}

function tooLarge({ limit }: Piece, { box }: Examination, units: Units): Finding[] {
  if (!limit || !box) return [];
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  if (width <= limit.width + 0.01 && height <= limit.height + 0.01) return [];
  const size = (w: number, h: number) => `${formatLength(w, units)} × ${formatLength(h, units)}`;
  const message = `It is ${size(width, height)}, larger than the ${size(limit.width, limit.height)} it may be. Make the words smaller, or the limit larger.`;
  return [remark("too-large", [], { x: box.maxX, y: box.maxY }, "weak", message)];
}

function holesTooLarge({ parts }: Piece, { box }: Examination, units: Units): Finding[] {
  return parts.flatMap((part): Finding[] => {
    if (part.kind !== "loop" || part.hole < part.outer) return [];
    const message = `The hole of the loop, ${formatLength(part.hole, units)}, is as large as the loop itself, ${formatLength(part.outer, units)}: no ring is left. Make the hole smaller.`;
    return [remark("hole-too-large", [part.id], { x: box?.minX ?? 0, y: box?.maxY ?? 0 }, "falls", message)];
  });
}
