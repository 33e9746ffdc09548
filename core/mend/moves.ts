/**
 * Mends that move letters and dots.
 */
import type { Solid } from "../examine";
import { joinBoxes, type Point, regionBox } from "../geometry";
import { applyMove, changeLetter, type Part, type Piece } from "../piece";
import { type Attempt, FURTHEST, isDot, keyOf, type MendKind, round, type Scene, unit } from "./scene";

/** Kinds of parts that go where they are put. */
const LIE_BY_THEMSELVES: ReadonlySet<Part["kind"]> = new Set(["shape", "ornament", "drawing", "tie"]);

/** A dot comes straight down to its letter until it bites. */
export function lowerDot({ examination, hanging }: Scene): Attempt | null {
  const [dot] = hanging;
  if (!dot?.letterId || hanging.length !== 1 || !isDot(dot)) return null;
  const angle = examination.letters.find(({ id }) => id === dot.letterId)?.angle ?? 0;
  return {
    kind: "lower-dot",
    action: (by) => ({ does: "lower dot", by }),
    least: 0,
    most: FURTHEST,
    apply: (piece, amount) =>
      applyMove(piece, { what: "dots", ...keyOf(dot), dx: amount * Math.sin(angle), dy: -amount * Math.cos(angle) }),
  };
}

/** A letter that is short of the bar below it is stretched down to it. */
export function reachDown({ piece, examination, hanging }: Scene): Attempt | null {
  const [letter] = hanging;
  const own = letter && regionBox(letter.region);
  if (!letter?.letterId || hanging.length !== 1 || isDot(letter) || !own) return null;
  const below = examination.solids.some(({ partId, region }) => {
    const box = regionBox(region);
    const bar = piece.parts.some(({ id, kind }) => id === partId && (kind === "bar" || kind === "stake"));
    return bar && box && box.minX < own.maxX && own.minX < box.maxX && box.minY < own.minY;
  });
  if (!below) return null;
  return {
    kind: "reach",
    action: (by) => ({ does: "stretch down", by }),
    least: 0,
    most: FURTHEST,
    apply: (now, amount) => {
      const { wordId, key } = keyOf(letter);
      return changeLetter(now, wordId, key, (old) => ({ ...old, reach: round((old.reach ?? 0) + amount) }));
    },
  };
}

/** What is loose goes the shortest way to the nearest material. */
export function moveTowards({ piece, finding, hanging }: Scene): (Attempt | null)[] {
  const { gap } = finding;
  if (!gap || hanging.length === 0) return [];
  const own = joinBoxes(hanging.map((solid) => regionBox(solid.region)))!;
  const middle = { x: (own.minX + own.maxX) / 2, y: (own.minY + own.maxY) / 2 };
  // The end of the gap nearer to the loose part is where it starts.
  const fromIsOwn =
    Math.hypot(gap.from.x - middle.x, gap.from.y - middle.y) < Math.hypot(gap.to.x - middle.x, gap.to.y - middle.y);
  const [start, goal] = fromIsOwn ? [gap.from, gap.to] : [gap.to, gap.from];
  const direction = unit(
    gap.width > 1e-6 ? { x: goal.x - start.x, y: goal.y - start.y } : { x: start.x - middle.x, y: start.y - middle.y },
  );
  // Straight down is what lowering a dot does already.
  if (!direction || (direction.y < -0.9 && hanging.length === 1 && isDot(hanging[0]!))) return [];
  const action: Attempt["action"] = (by) => ({ does: "move", by, many: hanging.length > 1, direction });
  return [moveAlong(piece, hanging, direction, "move", action)];
}

/** Parts of one joint come closer. */
export function moveTogether({ piece, examination, finding, hanging }: Scene): (Attempt | null)[] {
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
  const direction = across
    ? across.x * towards.x + across.y * towards.y < 0
      ? { x: -across.x, y: -across.y }
      : across
    : unit(towards);
  if (!direction) return [];
  return [moveAlong(piece, loose, direction, "closer", (by) => ({ does: "bring closer", by, many: loose.length > 1 }))];
}

/** Dots move alone, letters with their dots, what lies by itself as a whole; several parts one after the other. */
function moveAlong(
  piece: Piece,
  solids: readonly Solid[],
  direction: Point,
  kind: MendKind,
  action: Attempt["action"],
): Attempt | null {
  const others = solids.filter((solid) => !solid.letterId);
  const goesAlong = ({ id, partId }: Solid) =>
    id === partId && piece.parts.some((part) => part.id === id && LIE_BY_THEMSELVES.has(part.kind));
  if (!others.every(goesAlong)) return null;
  const letters = new Map(solids.filter(({ id, letterId }) => id === letterId).map((solid) => [solid.letterId, solid]));
  const alone = solids.filter(({ id, letterId }) => letterId && id !== letterId && !letters.has(letterId));
  const dots = new Map(alone.map((solid) => [solid.letterId, solid]));
  return {
    kind,
    action,
    least: 0,
    most: FURTHEST,
    apply: (still, amount) => {
      const shift = { dx: direction.x * amount, dy: direction.y * amount };
      const along = others.reduce((now, { id }) => applyMove(now, { what: "holder", id, ...shift }), still);
      const moved = [...letters.values()].reduce(
        (now, solid) => applyMove(now, { what: "letter", ...keyOf(solid), ...shift }),
        along,
      );
      return [...dots.values()].reduce((now, solid) => applyMove(now, { what: "dots", ...keyOf(solid), ...shift }), moved);
    },
  };
}
