/**
 * Too much of a good thing: letters that sink into what they touch, and outlines that lie on each other.
 */
import { type Bite, biteOf, boxesMeet, intersection, type Region, regionArea, regionBox } from "../geometry";
import { formatLength, type Units } from "../piece";
import { type Finding, type JudgedPart, partLabels } from "./findings";
import { capital, nameOf } from "./wording";

/** Of a part's outline less than this share is left to be seen: it is swallowed. */
const SWALLOWED = 0.02;
/** Of a letter's outline less than this share is left: the letter loses its look. Common practice, no published source. */
const SUNK = 0.5;

type Shape = JudgedPart & { region: Region };

/** @param visible for each part the share of its own outline that is outline of the piece, 0 to 1 */
export function judgeHidden(parts: readonly Shape[], visible: readonly number[], units: Units = "mm"): Finding[] {
  const labels = partLabels(parts);
  const boxes = parts.map((part) => regionBox(part.region));
  const findings: Finding[] = [];
  parts.forEach((part, i) => {
    const share = visible[i]!;
    const limit = part.label.kind === "letter" ? SUNK : SWALLOWED;
    // A filling lies between others by its nature.
    if (share >= limit || !boxes[i] || part.label.kind === "fill") return;
    const deepest = deepestBite(parts, boxes, i);
    if (!deepest) return;
    const { other, bite } = deepest;
    const [name, around] = [capital(nameOf(part.label)), nameOf(labels.get(parts[other]!.id))];
    const message =
      share < SWALLOWED
        ? `${name} is swallowed by ${around}: nothing of its outline is left. Move it out, or leave it out.`
        : `${name} sits ${formatLength(bite.depth, units)} deep in ${around}; ${Math.round(share * 100)} % of its outline is left, so it loses its look. Move it out a little.`;
    const at = { x: (boxes[i]!.minX + boxes[i]!.maxX) / 2, y: (boxes[i]!.minY + boxes[i]!.maxY) / 2 };
    const kind = share < SWALLOWED ? "swallowed" : "sunk";
    findings.push({ kind, parts: [part.id, parts[other]!.id], meeting: 2, at, width: bite.depth, means: "note", message });
  });
  return findings;
}

function deepestBite(
  parts: readonly Shape[],
  boxes: readonly ReturnType<typeof regionBox>[],
  i: number,
): { other: number; bite: Bite } | null {
  let deepest: { other: number; bite: Bite } | null = null;
  parts.forEach((part, k) => {
    if (k === i || !boxesMeet(boxes[k]!, boxes[i]!)) return;
    const bite = biteOf(parts[i]!.region, part.region);
    if (bite && (!deepest || bite.area > deepest.bite.area)) deepest = { other: k, bite };
  });
  return deepest;
}

/** The same outline lying twice on itself: some machines cut twice and burn, others refuse. (Common practice, no published source.) */
export function judgeTwice(parts: readonly Shape[]): Finding[] {
  const seen = parts
    .filter((part) => part.region.length > 0)
    .map((part) => ({ part, area: regionArea(part.region), box: regionBox(part.region)! }))
    .sort((a, b) => a.area - b.area);
  const findings: Finding[] = [];
  seen.forEach((first, i) => {
    for (let k = i + 1; k < seen.length && seen[k]!.area - first.area < 0.01; k++) {
      const second = seen[k]!;
      const sameBox = (["minX", "minY", "maxX", "maxY"] as const).every(
        (side) => Math.abs(first.box[side] - second.box[side]) < 0.02,
      );
      if (!sameBox || !sameShape(first.part.region, second.part.region, first.area)) continue;
      const [one, other] = [nameOf(first.part.label), nameOf(second.part.label)];
      const names =
        one === other
          ? `${capital(one)} is there twice, one exactly on the other`
          : `${capital(one)} and ${other} are the same outline, one on the other`;
      findings.push({
        kind: "duplicate",
        parts: [first.part.id, second.part.id],
        meeting: 2,
        at: { x: first.box.minX, y: first.box.maxY },
        width: 0,
        means: "weak",
        message: `${names}. Remove one.`,
      });
    }
  });
  return findings;
}

function sameShape(a: Region, b: Region, area: number): boolean {
  return area - regionArea(intersection(a, b)) < Math.max(0.001, area * 0.001);
}
