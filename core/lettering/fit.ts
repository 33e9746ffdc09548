/**
 * How large letters must be so that the finished word has the asked size.
 */
import type { Box } from "../geometry";
import type { WordSize } from "../piece";

/** mm per font unit, sideways and upwards. */
export interface Scale {
  sx: number;
  sy: number;
}

/** A finished size is met to within this, mm. */
const EXACT = 0.001;
const ROUNDS = 24;
/** Rounds without coming nearer after which the rest is left: sizes of rounded letters jump a little. */
const PATIENCE = 4;
/** A size farther off than this is told to the maker, mm. */
const MISSED = 0.05;

export interface Bounds {
  /** In font units. */
  capHeight: number;
  /** Scale that is not gone below. */
  least: number;
  /** Where the search begins; capitals of 20 mm if it is not said. */
  start?: Scale | undefined;
  /** About how large the word is at a scale: how it grows there is a better first step than growing in proportion. */
  guess?: ((scale: Scale) => Box | null) | undefined;
}

/** @param boxAt the finished word at a scale, `null` when it is empty */
export function fitScale(size: WordSize, { capHeight, least, start, guess }: Bounds, boxAt: (scale: Scale) => Box | null): Scale {
  const alike = (s: number): Scale => ({ sx: s, sy: s });
  if (size.by === "cap-height") return alike(size.mm / capHeight);
  const from = start ?? alike(20 / capHeight);
  if (!boxAt(from)) return from;
  const width = (scale: Scale) => extentOf(boxAt(scale), "x");
  const height = (scale: Scale) => extentOf(boxAt(scale), "y");
  const slope = (axis: "x" | "y", s: number) =>
    guess && (extentOf(guess(alike(s * (1 + NUDGE))), axis) - extentOf(guess(alike(s)), axis)) / (s * NUDGE);
  const byWidth = (mm: number) => solve((s) => width(alike(s)), mm, { start: from.sx, least, slope: slope("x", from.sx) });
  const byHeight = (mm: number) => solve((s) => height(alike(s)), mm, { start: from.sy, least, slope: slope("y", from.sy) });
  switch (size.by) {
    case "width":
      return alike(byWidth(size.mm));
    case "height":
      return alike(byHeight(size.mm));
    case "within":
      return alike(Math.min(byWidth(size.mm), byHeight(size.height)));
    case "both":
      return solveBoth(width, height, size, { sx: byWidth(size.mm), sy: byHeight(size.height) }, least);
  }
}

/** @returns the asked size and the one there is, mm, where they differ by more than the tolerance (mm) */
export function findMissedSize(
  size: WordSize,
  box: Box | null,
  tolerance = MISSED,
): { asked: [number, number]; got: [number, number] } | null {
  if (size.by === "cap-height" || !box) return null;
  const got: [number, number] = [extentOf(box, "x"), extentOf(box, "y")];
  const height = "height" in size ? size.height : size.mm;
  const asked: [number, number] = [size.by === "height" ? got[0] : size.mm, size.by === "width" ? got[1] : height];
  const over = [got[0] - asked[0], got[1] - asked[1]] as const;
  // Inside a box only one side is met.
  const missed = size.by === "within" ? Math.abs(Math.max(...over)) > tolerance : Math.max(...over.map(Math.abs)) > tolerance;
  return missed ? { asked, got } : null;
}

const extentOf = (box: Box | null, axis: "x" | "y") => (!box ? 0 : axis === "x" ? box.maxX - box.minX : box.maxY - box.minY);

/** By so much the scale is changed to see how a word grows, as a share. */
const NUDGE = 0.01;

interface Solving {
  start: number;
  least: number;
  /** How the size grows with the scale there, where that is known. */
  slope?: number | undefined;
}

/**
 * Secant method; the sizes of words grow with the scale, nearly in proportion. Where spacing and moved letters alone are larger
 * than what is asked, the least scale remains.
 */
function solve(measure: (s: number) => number, wanted: number, { start, least, slope: first = Number.NaN }: Solving): number {
  let [s, size] = [start, measure(start)];
  let [lastS, lastSize] = [0, Number.NaN];
  let best = { s, error: Math.abs(size - wanted) };
  for (let round = 0, stale = 0; round < ROUNDS && best.error > EXACT && stale < PATIENCE; round++, stale++) {
    const slope = round === 0 ? first : (size - lastSize) / (s - lastS);
    const step = Number.isFinite(slope) && slope > 0 ? (wanted - size) / slope : s * (wanted / Math.max(size, 1e-6) - 1);
    const next = Math.max(least, s / 8, Math.min(s * 8, s + step));
    if (next === s) break;
    [lastS, lastSize] = [s, size];
    [s, size] = [next, measure(next)];
    const error = Math.abs(size - wanted);
    if (error < best.error) [best, stale] = [{ s, error }, -1];
  }
  return best.s;
}

/**
 * Width and height at once, by Broyden's method (C. G. Broyden, "A class of methods for solving nonlinear simultaneous equations",
 * 1965): on a curve each depends on both scales.
 */
function solveBoth(
  width: (scale: Scale) => number,
  height: (scale: Scale) => number,
  size: { mm: number; height: number },
  start: Scale,
  least: number,
): Scale {
  const faults = (scale: Scale): [number, number] => [width(scale) - size.mm, height(scale) - size.height];
  let scale = start;
  let fault = faults(scale);
  // To begin with, width grows with the one scale and height with the other, in proportion.
  let [a, b, c, d] = [(fault[0] + size.mm) / scale.sx, 0, 0, (fault[1] + size.height) / scale.sy];
  let best = { scale, error: Math.hypot(...fault) };
  for (let round = 0, stale = 0; round < ROUNDS && best.error > EXACT && stale < PATIENCE; round++, stale++) {
    const determinant = a * d - b * c;
    if (Math.abs(determinant) < 1e-9) break;
    const step = [(b * fault[1] - d * fault[0]) / determinant, (c * fault[0] - a * fault[1]) / determinant] as const;
    const within = (value: number, by: number) => Math.max(least, value / 3, Math.min(value * 3, value + by));
    const next: Scale = { sx: within(scale.sx, step[0]), sy: within(scale.sy, step[1]) };
    const moved = [next.sx - scale.sx, next.sy - scale.sy] as const;
    const length2 = moved[0] ** 2 + moved[1] ** 2;
    if (length2 === 0) break;
    const now = faults(next);
    const off = [now[0] - fault[0] - a * moved[0] - b * moved[1], now[1] - fault[1] - c * moved[0] - d * moved[1]] as const;
    a += (off[0] * moved[0]) / length2;
    b += (off[0] * moved[1]) / length2;
    c += (off[1] * moved[0]) / length2;
    d += (off[1] * moved[1]) / length2;
    [scale, fault] = [next, now];
    const error = Math.hypot(...fault);
    if (error < best.error) [best, stale] = [{ scale, error }, -1];
  }
  return best.scale;
}
