/**
 * An ornament put where it joins the most of what is loose or weak.
 */
import { type Examination, examine, type Library } from "../examine";
import { farthestCorner, joinBoxes, type Point, regionBox } from "../geometry";
import { type Finding, isNarrower, openFindings } from "../judge";
import type { Ornament, Piece } from "../piece";
import { round, unit } from "./scene";
import { anchorEnd } from "./ties";

/** Places that are tried at most. */
const TRIED = 24;

/**
 * @returns where the ornament's middle should be, with the letter it follows: where it joins the most of what is loose or weak, else between
 *   two lines, both of which it holds, where it relieves the most of what hangs by one joint; else the nearest place where it is joined itself;
 *   `null` where there is none, or it is joined already
 */
export function bridgePlace(piece: Piece, ornamentId: string, library: Library): Ornament["at"] | null {
  const ornament = piece.parts.find((part): part is Ornament => part.kind === "ornament" && part.id === ornamentId);
  if (!ornament) return null;
  const without = examine({ ...piece, parts: piece.parts.filter((part) => part !== ornament) }, library);
  const none = joined(without);
  const others = new Set(piece.parts.filter(({ kind }) => kind === "ornament").map(({ id }) => id));
  const lines = betweenLines(without, ornament.height);
  const places = [...gapsIn(without), ...lines, ...betweenNeighbours(without)].slice(0, TRIED);
  const tried = places.map((place) => {
    const at = anchorEnd({ x: round(place.x), y: round(place.y) }, without);
    const parts = piece.parts.map((part): Piece["parts"][number] =>
      part === ornament ? { ...ornament, meets: "add", at } : part,
    );
    const examination = examine({ ...piece, parts }, library, { base: without });
    const bridges = lines.includes(place) && joined(examination) >= none && joinsLines(examination, ornamentId, others);
    return { at, joined: joined(examination), relieved: bridges ? relieved(examination) : -Infinity };
  });
  /** The place that is worth the most, if it is worth more than so much. */
  const bestBy = (worth: "joined" | "relieved", least: number) =>
    tried.reduce<(typeof tried)[number] | null>((best, each) => (each[worth] > (best?.[worth] ?? least) ? each : best), null)?.at;
  return bestBy("joined", none) ?? bestBy("relieved", -Infinity) ?? placeBeside(piece, ornament, library);
}

/** Steps beyond the gap, as shares of the least width, in which it is tried whether the ornament holds; and how many. */
const DEEPER = 0.25;
const MOST_STEPS = 24;

/** The shortest way to the material, and into it until the joint is wide enough. */
function placeBeside(piece: Piece, ornament: Ornament, library: Library): Ornament["at"] | null {
  const moved = (at: Ornament["at"]): Piece => ({
    ...piece,
    parts: piece.parts.map((part) => (part === ornament ? { ...ornament, meets: "add", at } : part)),
  });
  const examination = examine(moved(ornament.at), library);
  const own = examination.solids.findIndex(({ id }) => id === ornament.id);
  // Where nothing else holds, it may be the ornament that all else is loose from.
  const isIts = ({ kind, parts }: Finding) => kind === "loose" && (examination.standIn === own || parts.includes(ornament.id));
  const gap = examination.findings.find(isIts)?.gap;
  const box = own === -1 ? null : regionBox(examination.solids[own]!.region);
  if (!gap || !box) return null;
  const away = ({ x, y }: Point) => Math.hypot(x - (box.minX + box.maxX) / 2, y - (box.minY + box.maxY) / 2);
  const [from, to] = away(gap.from) < away(gap.to) ? [gap.from, gap.to] : [gap.to, gap.from];
  const direction = unit({ x: to.x - from.x, y: to.y - from.y });
  if (!direction) return null;
  for (let k = 1; k <= MOST_STEPS; k++) {
    const by = gap.width + k * DEEPER * examination.leastWidth;
    const at = { ...ornament.at, x: round(ornament.at.x + by * direction.x), y: round(ornament.at.y + by * direction.y) };
    const { joints, leastWidth } = examine(moved(at), library, { notes: false, base: examination });
    // What it is joined to may be loose itself.
    if (joints.some(({ parts, width }) => parts.includes(own) && !isNarrower(width, leastWidth))) return at;
  }
  return null;
}

/** Fewer separate pieces, then fewer findings. */
const joined = ({ cutouts, findings }: Examination) => -1000 * cutouts.length - openFindings(findings).length;

/** As little as possible that hangs far out by one joint: how far each such joint's parts reach. */
function relieved({ solids, holds }: Examination): number {
  const farthest = new Map<object, number>();
  holds.forEach(({ falls, anchor, neck, ties, at }, i) => {
    if (falls || anchor || solids[i]!.holder || !neck || ties > 1) return;
    const away = farthestCorner(solids[i]!.region, at)?.away ?? 0;
    farthest.set(neck, Math.max(away, farthest.get(neck) ?? 0));
  });
  return -[...farthest.values()].reduce((sum, away) => sum + away, 0);
}

/** Does a part hold letters of two lines, and no other ornament? */
function joinsLines({ joints, solids, words, leastWidth }: Examination, id: string, ornaments: ReadonlySet<string>): boolean {
  const own = solids.findIndex((solid) => solid.id === id);
  const held = joints
    .filter(({ parts, width }) => parts.includes(own) && !isNarrower(width, leastWidth))
    .flatMap(({ parts }) => parts.filter((part) => part !== own).map((part) => solids[part]!));
  const lines = new Set(held.map(({ partId }) => partId).filter((partId) => words.some(({ wordId }) => wordId === partId)));
  return lines.size > 1 && held.every(({ partId }) => !ornaments.has(partId));
}

const boxesOf = ({ letters, solids }: Examination) =>
  letters.flatMap(({ wordId, solids: own }) => {
    const box = joinBoxes(own.map((i) => regionBox(solids[i]!.region)));
    return box ? [{ wordId, box }] : [];
  });

/** Spaces between letters of different lines that are no wider than the ornament is high, the narrowest first. */
function betweenLines(examination: Examination, height: number): Point[] {
  const boxes = boxesOf(examination);
  const found = boxes.flatMap(({ wordId, box: upper }) =>
    boxes.flatMap(({ wordId: other, box: lower }) => {
      const [left, right] = [Math.max(upper.minX, lower.minX), Math.min(upper.maxX, lower.maxX)];
      const space = upper.minY - lower.maxY;
      if (wordId === other || left >= right || space < -height || space > height || upper.minY < lower.minY) return [];
      return [{ x: (left + right) / 2, y: (upper.minY + lower.maxY) / 2, space }];
    }),
  );
  return found.sort((a, b) => Math.abs(a.space) - Math.abs(b.space));
}

/** Gaps of what is loose, and thin joints. */
function gapsIn({ findings }: Examination): Point[] {
  const middle = (from: Point, to: Point): Point => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
  return findings.flatMap(({ gap, chord }) => (gap ? [middle(gap.from, gap.to)] : chord ? [middle(chord.from, chord.to)] : []));
}

/** Low, in the middle and high between a letter and the next one. */
function betweenNeighbours(examination: Examination): Point[] {
  const boxes = boxesOf(examination);
  return boxes.flatMap(({ box }, i): Point[] => {
    const next = boxes[i + 1]?.box;
    if (!next) return [];
    const x = (box.maxX + next.minX) / 2;
    const [low, high] = [Math.max(box.minY, next.minY), Math.min(box.maxY, next.maxY)];
    return [0.2, 0.5, 0.8].map((share) => ({ x, y: low + (high - low) * share }));
  });
}
