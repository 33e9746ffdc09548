/**
 * Ways to mend a finding, each a function of one amount: how a copy of the piece looks when it is done by so much.
 */
import type { Examination, Solid } from "../examine";
import { joinBoxes, type Point, regionBox } from "../geometry";
import type { Finding } from "../judge";
import { applyMove, type Bar, freeId, type Part, type Piece, parsePiece, type Stick, type Tie, type Word } from "../piece";

export type MendKind = "lower-dot" | "move" | "closer" | "overlap" | "tie" | "bar" | "holder" | "thicken" | "larger";

export interface Attempt {
  kind: MendKind;
  /** What is done, in words; `say` writes lengths in the maker's units. */
  title(amount: number, say: (mm: number) => string): string;
  /** Amounts to try lie between these, in mm (for `larger`, a share). */
  least: number;
  most: number;
  apply(piece: Piece, amount: number): Piece;
}

/** Furthest that a letter is moved to mend something, mm: beyond that it is another piece. */
const FURTHEST = 15;
/** Furthest that a holder reaches into the letters, mm. */
const DEEPEST = 6;
/** Ties are a little wider than they need to be, so that their round ends do not decide. */
const TIE_SHARE = 1.15;

interface Scene {
  piece: Piece;
  examination: Examination;
  finding: Finding;
  /** Solids that hang loose or thin. */
  hanging: Solid[];
}

export function attemptsFor(piece: Piece, examination: Examination, finding: Finding): Attempt[] {
  const solids = new Map(examination.solids.map((solid) => [solid.id, solid]));
  const ids = finding.kind === "loose" ? finding.parts : hangingIds(examination, finding);
  const hanging = ids.flatMap((id) => solids.get(id) ?? []);
  const scene: Scene = { piece, examination, finding, hanging };
  switch (finding.kind) {
    case "loose":
      return [lowerDot(scene), ...moveTowards(scene), deepenOverlap(scene), tieAcrossGap(scene), addBar(scene)].filter(isAttempt);
    case "thin-joint":
      return [deepenOverlap(scene), ...moveTogether(scene), tieAcrossJoint(scene), thicken(scene), larger(scene)].filter(
        isAttempt,
      );
    case "thin-stroke":
      return [growHolder(scene), thicken(scene), larger(scene), tieAcrossJoint(scene)].filter(isAttempt);
    default:
      return [];
  }
}

const isAttempt = (attempt: Attempt | null): attempt is Attempt => attempt !== null;

/** The parts whose hold this place decides. */
function hangingIds({ solids, holds }: Examination, { at, width }: Finding): string[] {
  const same = (i: number) =>
    !holds[i]!.falls &&
    Math.abs(holds[i]!.width - width) < 1e-6 &&
    Math.hypot(holds[i]!.at.x - at.x, holds[i]!.at.y - at.y) < 1e-6;
  return [...solids.keys()].filter((i) => same(i) && !holds[i]!.anchor).map((i) => solids[i]!.id);
}

const isDot = ({ label }: Solid) => label.kind === "dot" || label.kind === "accent" || label.kind === "speck";

const keyOf = (solid: Solid) => ({ wordId: solid.partId, key: solid.letterId!.slice(solid.partId.length + 1) });

/** A dot comes straight down until it bites. */
function lowerDot({ hanging }: Scene): Attempt | null {
  const [dot] = hanging;
  if (!dot?.letterId || hanging.length !== 1 || !isDot(dot)) return null;
  return {
    kind: "lower-dot",
    title: (amount, say) => `Lower it ${say(amount)}`,
    least: 0,
    most: FURTHEST,
    apply: (piece, amount) => applyMove(piece, { what: "dots", ...keyOf(dot), dx: 0, dy: -amount }),
  };
}

/** What is loose goes the shortest way to the nearest material. */
function moveTowards({ finding, hanging }: Scene): (Attempt | null)[] {
  const { gap } = finding;
  if (!gap || hanging.length === 0) return [];
  const own = joinBoxes(hanging.map((solid) => regionBox(solid.region)))!;
  const middle = { x: (own.minX + own.maxX) / 2, y: (own.minY + own.maxY) / 2 };
  // The end of the gap nearer to the loose part is where it starts.
  const fromIsOwn =
    Math.hypot(gap.from.x - middle.x, gap.from.y - middle.y) < Math.hypot(gap.to.x - middle.x, gap.to.y - middle.y);
  const [start, goal] = fromIsOwn ? [gap.from, gap.to] : [gap.to, gap.from];
  const way = unit(
    gap.width > 1e-6 ? { x: goal.x - start.x, y: goal.y - start.y } : { x: start.x - middle.x, y: start.y - middle.y },
  );
  // Straight down is what lowering a dot does already.
  if (!way || (way.y < -0.9 && hanging.length === 1 && isDot(hanging[0]!))) return [];
  const title: Attempt["title"] = (amount, say) => `Move ${hanging.length > 1 ? "them" : "it"} ${say(amount)} ${direction(way)}`;
  return [moveAlong(hanging, way, "move", title)];
}

/** Parts of one joint come closer. */
function moveTogether({ examination, finding, hanging }: Scene): (Attempt | null)[] {
  const meeting = finding.parts
    .slice(0, finding.meeting)
    .flatMap((id) => examination.solids.find((solid) => solid.id === id) ?? []);
  const fixed = meeting.filter((solid) => !hanging.includes(solid));
  const loose = hanging.filter((solid) => solid.letterId);
  if (fixed.length === 0 || loose.length === 0) return [];
  const [own, other] = [loose, fixed].map((list) => joinBoxes(list.map((solid) => regionBox(solid.region)))!);
  const chord = finding.chord;
  // Across the joint: at right angles to its chord, towards what stays.
  const across = chord && unit({ x: chord.to.y - chord.from.y, y: chord.from.x - chord.to.x });
  const towards = {
    x: (other!.minX + other!.maxX - own!.minX - own!.maxX) / 2,
    y: (other!.minY + other!.maxY - own!.minY - own!.maxY) / 2,
  };
  const way = across
    ? across.x * towards.x + across.y * towards.y < 0
      ? { x: -across.x, y: -across.y }
      : across
    : unit(towards);
  if (!way) return [];
  return [moveAlong(loose, way, "closer", (amount, say) => `Bring ${loose.length > 1 ? "them" : "it"} ${say(amount)} closer`)];
}

/** Dots move alone, letters with their dots; several parts one after the other. */
function moveAlong(solids: readonly Solid[], way: Point, kind: MendKind, title: Attempt["title"]): Attempt | null {
  if (solids.some((solid) => !solid.letterId)) return null;
  const letters = new Map(solids.filter((solid) => solid.id === solid.letterId).map((solid) => [solid.letterId, solid]));
  const alone = solids.filter((solid) => solid.id !== solid.letterId && !letters.has(solid.letterId));
  const dots = new Map(alone.map((solid) => [solid.letterId, solid]));
  return {
    kind,
    title,
    least: 0,
    most: FURTHEST,
    apply: (piece, amount) => {
      const shift = { dx: way.x * amount, dy: way.y * amount };
      const moved = [...letters.values()].reduce(
        (now, solid) => applyMove(now, { what: "letter", ...keyOf(solid), ...shift }),
        piece,
      );
      return [...dots.values()].reduce((now, solid) => applyMove(now, { what: "dots", ...keyOf(solid), ...shift }), moved);
    },
  };
}

/** The bar reaches higher, the stick bites deeper. */
function deepenOverlap({ piece, examination, finding, hanging }: Scene): Attempt | null {
  const meeting = finding.kind === "loose" ? [] : finding.parts.slice(0, finding.meeting);
  const holder = piece.parts.find(
    (part): part is Bar | Stick => (part.kind === "bar" || part.kind === "stick") && meeting.includes(part.id),
  );
  const bar =
    finding.kind === "loose" && hanging.some((solid) => solid.letterId && !isDot(solid))
      ? piece.parts.find((part): part is Bar => part.kind === "bar")
      : undefined;
  const chosen = holder ?? bar;
  if (!chosen || (finding.kind === "loose" && !liesAbove(examination, hanging, chosen.id))) return null;
  const grow = (part: Bar | Stick, amount: number): Part =>
    part.kind === "bar"
      ? { ...part, overlap: part.overlap + amount, height: part.height + amount }
      : { ...part, bite: part.bite + amount };
  return {
    kind: "overlap",
    title: (amount, say) =>
      chosen.kind === "bar" ? `Let the bar reach ${say(amount)} higher` : `Let the stick bite ${say(amount)} deeper`,
    least: 0,
    most: DEEPEST,
    apply: (now, amount) => ({
      ...now,
      parts: now.parts.map((part) => (part.id === chosen.id ? grow(part as Bar | Stick, round(amount)) : part)),
    }),
  };
}

/** A bar or stick that is too thin itself grows away from the letters. */
function growHolder({ piece, finding }: Scene): Attempt | null {
  const holder = piece.parts.find(
    (part): part is Bar | Stick => (part.kind === "bar" || part.kind === "stick") && part.id === finding.parts[0],
  );
  if (!holder) return null;
  const grow = (part: Bar | Stick, amount: number): Part =>
    part.kind === "bar" ? { ...part, height: round(part.height + amount) } : { ...part, width: round(part.width + amount) };
  return {
    kind: "holder",
    title: (amount, say) => `Make the ${holder.kind} ${say(amount)} ${holder.kind === "bar" ? "higher" : "wider"}`,
    least: 0,
    most: FURTHEST,
    apply: (now, amount) => ({
      ...now,
      parts: now.parts.map((part) => (part.id === holder.id ? grow(part as Bar | Stick, amount) : part)),
    }),
  };
}

function liesAbove({ solids }: Examination, hanging: readonly Solid[], holderId: string): boolean {
  const holder = solids.find(({ id }) => id === holderId);
  const below = holder && regionBox(holder.region);
  const own = joinBoxes(hanging.map((solid) => regionBox(solid.region)));
  return Boolean(below && own && own.minY > below.maxY - 0.01 && own.minX < below.maxX && own.maxX > below.minX);
}

/** A tie over the gap, its ends well inside both sides. */
function tieAcrossGap({ piece, examination, finding }: Scene): Attempt | null {
  const { gap } = finding;
  if (!gap) return null;
  const way = unit({ x: gap.to.x - gap.from.x, y: gap.to.y - gap.from.y });
  return way && tieBetween(piece, examination, gap.from, gap.to, way);
}

/** A tie laid over a thin place, along the material. */
function tieAcrossJoint({ piece, examination, finding }: Scene): Attempt | null {
  const { chord } = finding;
  if (!chord) return null;
  const across = unit({ x: chord.to.x - chord.from.x, y: chord.to.y - chord.from.y });
  if (!across) return null;
  const middle = { x: (chord.from.x + chord.to.x) / 2, y: (chord.from.y + chord.to.y) / 2 };
  return tieBetween(piece, examination, middle, middle, { x: -across.y, y: across.x });
}

/** The tie is tried ever deeper into both sides. */
function tieBetween(piece: Piece, examination: Examination, from: Point, to: Point, way: Point): Attempt {
  const width = round(examination.leastWidth * TIE_SHARE);
  const id = freeId(piece, "tie");
  return {
    kind: "tie",
    title: (_, say) => (from !== to ? `Tie it with a bar of ${say(width)}` : `Strengthen it with a tie of ${say(width)}`),
    least: width / 2,
    most: width / 2 + FURTHEST / 2,
    apply: (now, amount) => {
      const ends = [
        { x: from.x - way.x * amount, y: from.y - way.y * amount },
        { x: to.x + way.x * amount, y: to.y + way.y * amount },
      ].map((end) => anchorEnd(end, examination)) as Tie["ends"];
      return { ...now, parts: [...now.parts.filter((part) => part.id !== id), { kind: "tie", id, width, ends }] };
    },
  };
}

/** The end goes with the letter that it lies in, or next to. */
function anchorEnd(end: Point, { letters, solids }: Examination): Tie["ends"][number] {
  let best: { distance: number; letter: Examination["letters"][number] } | null = null;
  for (const letter of letters) {
    for (const i of letter.solids) {
      const box = regionBox(solids[i]!.region)!;
      const distance = Math.hypot(
        Math.max(box.minX - end.x, 0, end.x - box.maxX),
        Math.max(box.minY - end.y, 0, end.y - box.maxY),
      );
      if (!best || distance < best.distance) best = { distance, letter };
    }
  }
  if (!best) return { x: round(end.x), y: round(end.y) };
  const { wordId, key, origin } = best.letter;
  return { letter: { wordId, key }, x: round(end.x - origin.x), y: round(end.y - origin.y) };
}

/** Letters that hang on nothing get a bar under them. */
function addBar({ piece, examination, hanging }: Scene): Attempt | null {
  const loose = examination.holds.filter((hold) => hold.falls).length;
  if (piece.parts.some((part) => part.kind === "bar") || hanging.every(isDot) || loose === 0) return null;
  const id = freeId(piece, "bar");
  return {
    kind: "bar",
    title: (amount, say) => `Put a bar under the letters, ${say(amount)} into them`,
    least: 0.5,
    most: FURTHEST,
    apply: (now, amount) => {
      const overlap = round(amount);
      const document = { kind: "bar", id, overlap, height: round(Math.max(6, overlap + 4)), overhang: 2, corner: 1 };
      const [bar] = parsePiece({ ...now, parts: [document] }).parts;
      const words = now.parts.filter((part) => part.kind === "word");
      return { ...now, parts: [...words, bar!, ...now.parts.filter((part) => part.kind !== "word")] };
    },
  };
}

/** All strokes of the word grow. */
function thicken({ piece, hanging }: Scene): Attempt | null {
  const word = wordOf(piece, hanging);
  if (!word) return null;
  return {
    kind: "thicken",
    title: (amount, say) => `Thicken the word by ${say(amount)}`,
    least: 0,
    most: 3,
    apply: (now, amount) => changeWord(now, word.id, (old) => ({ ...old, thicken: round(Math.min(10, old.thicken + amount)) })),
  };
}

function larger({ piece, hanging }: Scene): Attempt | null {
  const word = wordOf(piece, hanging);
  if (!word) return null;
  return {
    kind: "larger",
    title: () => "Make the word larger",
    least: 0,
    most: 1,
    apply: (now, amount) =>
      changeWord(now, word.id, (old) => ({
        ...old,
        size: { ...old.size, mm: round(Math.min(old.size.by === "width" ? 1000 : 500, old.size.mm * (1 + amount))) },
      })),
  };
}

function wordOf(piece: Piece, hanging: readonly Solid[]): Word | undefined {
  return piece.parts.find((part): part is Word => part.kind === "word" && hanging.some((solid) => solid.partId === part.id));
}

function changeWord(piece: Piece, id: string, edit: (word: Word) => Word): Piece {
  return { ...piece, parts: piece.parts.map((part) => (part.id === id && part.kind === "word" ? edit(part) : part)) };
}

function unit({ x, y }: Point): Point | null {
  const length = Math.hypot(x, y);
  return length < 1e-9 ? null : { x: x / length, y: y / length };
}

function direction({ x, y }: Point): string {
  if (Math.abs(y) > 2 * Math.abs(x)) return y < 0 ? "down" : "up";
  if (Math.abs(x) > 2 * Math.abs(y)) return x < 0 ? "left" : "right";
  return `${y < 0 ? "down" : "up"} and ${x < 0 ? "left" : "right"}`;
}

function round(mm: number): number {
  return Math.round(mm * 100) / 100;
}
