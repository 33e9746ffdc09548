/**
 * Mends that change or add holders.
 */
import type { Examination, Solid } from "../examine";
import { joinBoxes, regionBox } from "../geometry";
import type { Finding } from "../judge";
import {
  type Backing,
  type Bar,
  freeId,
  inBuildOrder,
  type Loop,
  type Part,
  type Piece,
  parsePiece,
  type Shape,
  type Stick,
  type Tie,
  withPart,
} from "../piece";
import { type Attempt, FURTHEST, isDot, type MendAction, round, type Scene, unit, wantedAt } from "./scene";

/** Furthest that a holder reaches into the letters, mm. */
const DEEPEST = 6;
/** By how much a backing is grown, mm: a slit closes when both its sides have come half its width closer. */
const GROWTH = [0.05, 0.1, 0.15, 0.25, 0.4, 0.6, 1, 1.5, 2.5];

/** The bar reaches higher, the stick bites deeper. */
export function deepenOverlap({ piece, examination, finding, hanging }: Scene): Attempt | null {
  const meeting = finding.kind === "loose" ? [] : finding.parts.slice(0, finding.meeting);
  const holder = piece.parts.find(
    (part): part is Bar | Stick | Tie =>
      (part.kind === "bar" || part.kind === "stick" || part.kind === "tie") && meeting.includes(part.id),
  );
  const bar =
    finding.kind === "loose" && hanging.some((solid) => solid.letterId && !isDot(solid))
      ? piece.parts.find((part): part is Bar => part.kind === "bar")
      : undefined;
  const chosen = holder ?? bar;
  if (!chosen || (finding.kind === "loose" && !liesAbove(examination, hanging, chosen.id))) return null;
  const grow = (part: Part, amount: number): Part => {
    if (part.kind === "bar") return { ...part, overlap: part.overlap + amount, height: part.height + amount };
    if (part.kind === "stick") return { ...part, bite: part.bite + amount };
    return part.kind === "tie" ? longerTie(part, examination, amount) : part;
  };
  return {
    kind: "overlap",
    action: (by) => ({ does: "overlap", by, part: chosen.kind }),
    least: 0,
    most: DEEPEST,
    apply: (now, amount) => ({
      ...now,
      parts: now.parts.map((part) => (part.id === chosen.id ? grow(part, round(amount)) : part)),
    }),
  };
}

/** Both ends go further the way they point; each stays with the letter that it goes by. */
function longerTie(tie: Tie, { letters }: Examination, amount: number): Tie {
  const places = tie.ends.map(({ letter, x, y }) => {
    const home = letter && letters.find(({ wordId, key }) => wordId === letter.wordId && key === letter.key);
    return { x: x + (home?.origin.x ?? 0), y: y + (home?.origin.y ?? 0) };
  });
  const direction = unit({ x: places[1]!.x - places[0]!.x, y: places[1]!.y - places[0]!.y });
  if (!direction) return tie;
  const further = (end: Tie["ends"][number], by: number) => ({
    ...end,
    x: round(end.x + direction.x * by),
    y: round(end.y + direction.y * by),
  });
  return { ...tie, ends: [further(tie.ends[0], -amount), further(tie.ends[1], amount)] };
}

/**
 * Holders that are too thin themselves grow: a bar away from the letters, a loop and a backing outwards, a frame inwards, lines and ties on
 * both sides.
 */
export function growHolders(scene: Scene, grows: "all" | "ties" = "all"): Attempt[] {
  const holders = thinHolders(scene).filter(({ holder }) => grows === "all" || holder.kind === "tie");
  return holders.map(
    ({ holder, grown, missing }): Attempt => ({
      kind: "holder",
      action: (by) => ({ does: "grow", by, part: grown.part }),
      least: 0,
      most: FURTHEST,
      amounts: GROWTHS.map((share) => growthBy(missing, grown, share)),
      apply: (now, amount) => ({
        ...now,
        parts: now.parts.map((part) => (part.id === holder.id ? grown.by(part, amount) : part)),
      }),
    }),
  );
}

/**
 * Ties that are too thin grow together, one at each thin place, by what it misses at its thinnest.
 *
 * @param share of what is missing
 * @returns `null` where there are not several
 */
export function growTies(
  piece: Piece,
  examination: Examination,
  findings: readonly Finding[],
  share: number,
): { piece: Piece; done: { action: MendAction; findings: Finding[] }[] } | null {
  const thinnest = new Map<string, ThinHolder & { finding: Finding }>();
  for (const finding of findings) {
    const thin = thinHolders({ piece, examination, finding }).find(({ holder }) => holder.kind === "tie");
    const known = thin && thinnest.get(thin.holder.id);
    if (thin && (!known || known.missing < thin.missing)) thinnest.set(thin.holder.id, { ...thin, finding });
  }
  if (thinnest.size < 2) return null;
  const parts = piece.parts.map((part) => {
    const thin = thinnest.get(part.id);
    return thin ? thin.grown.by(part, growthBy(thin.missing, thin.grown, share)) : part;
  });
  const done = [...thinnest.values()].map(({ grown, missing, finding }) => ({
    action: { does: "grow", by: growthBy(missing, grown, share), part: grown.part } as const,
    findings: [finding],
  }));
  return { piece: { ...piece, parts }, done };
}

/** A holder that is too thin, and by how much, mm. */
interface ThinHolder {
  holder: Part;
  grown: Growing;
  missing: number;
}

/** Where a tie is among them, ties alone: what they gain shows least. */
function thinHolders({ piece, finding, examination }: Pick<Scene, "piece" | "finding" | "examination">): ThinHolder[] {
  const holders = finding.parts.slice(0, finding.meeting).flatMap((id): ThinHolder[] => {
    const solid = examination.solids.find((each) => each.id === id);
    const holder = piece.parts.find((part) => part.id === solid?.partId);
    const grown = holder && solid && growing(holder, solid);
    return grown ? [{ holder, grown, missing: wantedAt(finding, examination) - finding.width }] : [];
  });
  const ties = holders.filter(({ holder }) => holder.kind === "tie");
  return ties.length > 0 ? ties : holders;
}

/** What is missing, and a little more, as shares of it. */
export const GROWTHS: readonly number[] = [1.02, 1.3, 2, 3];

/** On as many sides as it is missing. */
const growthBy = (missing: number, { sides }: Growing, share: number) => round(Math.max(0.02, missing) * share * sides);

/**
 * A loop whose hole leaves no ring: the hole is drawn smaller, or the loop larger, until the ring is wide enough. Of such a loop no width can
 * be measured: the finding has to be gone.
 */
export function restoreRing({ piece, examination, finding }: Scene): Attempt[] {
  const loop = piece.parts.find((part): part is Loop => part.kind === "loop" && finding.parts.includes(part.id));
  if (finding.kind !== "hole-too-large" || !loop) return [];
  const rings = GROWTHS.map((share) => share * 2 * examination.leastWidth);
  const limits = { least: 0, most: Infinity };
  return [
    {
      kind: "hole",
      action: (hole) => ({ does: "smaller hole", hole }),
      ...limits,
      amounts: rings.map((ring) => round(loop.outer - ring)),
      apply: (now, hole) => withPart<Loop>(now, loop.id, (old) => ({ ...old, hole })),
    },
    {
      kind: "holder",
      action: (by) => ({ does: "grow", by, part: "loop" }),
      ...limits,
      amounts: rings.map((ring) => round(loop.hole + ring - loop.outer)),
      apply: (now, by) => withPart<Loop>(now, loop.id, (old) => ({ ...old, outer: round(old.outer + by) })),
    },
  ];
}

interface Growing {
  part: Extract<MendAction, { does: "grow" }>["part"];
  /** A ring is as wide on both sides of its hole. */
  sides: number;
  by(part: Part, amount: number): Part;
}

function growing(holder: Part, solid: Solid): Growing | null {
  switch (holder.kind) {
    case "bar":
      return {
        part: "bar",
        sides: 1,
        by: (part, amount) => ({ ...(part as Bar), height: round((part as Bar).height + amount) }),
      };
    case "stick":
    case "tie":
      return {
        part: holder.kind,
        sides: 1,
        by: (part, amount) => ({ ...(part as Stick), width: round((part as Stick).width + amount) }),
      };
    case "loop":
      return {
        part: "loop",
        sides: 2,
        by: (part, amount) => ({ ...(part as Loop), outer: round((part as Loop).outer + amount) }),
      };
    case "backing":
      return {
        part: "backing",
        sides: 1,
        by: (part, amount) => ({ ...(part as Backing), distance: round(Math.min(100, (part as Backing).distance + amount)) }),
      };
    case "shape":
      return holder.frame === undefined
        ? null
        : {
            part: "frame",
            sides: 1,
            by: (part, amount) => ({ ...(part as Shape), frame: round(((part as Shape).frame ?? 0) + amount) }),
          };
    case "word":
      return solid.label.kind === "line" && holder.path && "line" in holder.path
        ? { part: "line", sides: 1, by: widerLine }
        : null;
    default:
      return null;
  }
}

function widerLine(part: Part, amount: number): Part {
  if (part.kind !== "word" || !part.path || !("line" in part.path) || part.path.line === undefined) return part;
  return { ...part, path: { ...part.path, line: round(part.path.line + amount) } };
}

/** A backing with a slit or a small hole is grown by the least that closes it. */
export function growBacking({ piece, finding }: Scene): Attempt | null {
  const backing = piece.parts.find((part): part is Backing => part.kind === "backing" && finding.parts.includes(part.id));
  if (!backing) return null;
  return {
    kind: "holder",
    action: (by) => ({ does: "grow", by, part: "backing" }),
    least: 0,
    most: FURTHEST,
    amounts: GROWTH,
    apply: (now, amount) => ({
      ...now,
      parts: now.parts.map((part) =>
        part.id === backing.id ? { ...backing, distance: round(backing.distance + amount) } : part,
      ),
    }),
  };
}

function liesAbove({ solids }: Examination, hanging: readonly Solid[], holderId: string): boolean {
  const holder = solids.find(({ id }) => id === holderId);
  const below = holder && regionBox(holder.region);
  const own = joinBoxes(hanging.map((solid) => regionBox(solid.region)));
  return Boolean(below && own && own.minY > below.maxY - 0.01 && own.minX < below.maxX && own.maxX > below.minX);
}

/** Letters that hang on nothing get a bar under them. */
export function addBar({ piece, examination, hanging }: Scene): Attempt | null {
  const loose = examination.holds.filter((hold) => hold.falls).length;
  if (piece.parts.some((part) => part.kind === "bar") || hanging.every(isDot) || loose === 0) return null;
  const id = freeId(piece, "bar");
  return {
    kind: "bar",
    action: (into) => ({ does: "add bar", into }),
    least: 0.5,
    most: FURTHEST,
    apply: (now, amount) => {
      const overlap = round(amount);
      const document = { kind: "bar", id, overlap, height: round(Math.max(6, overlap + 4)), overhang: 2, corner: 1 };
      const [bar] = parsePiece({ ...now, parts: [document] }).parts;
      return { ...now, parts: inBuildOrder([...now.parts, bar!]) };
    },
  };
}
