/**
 * Flat stakes: a body with a pointed end, and a notch in which the letters stand free.
 */
import { type Box, difference, normalise, type Region } from "../geometry";
import type { Stake } from "../piece";
import { roundedRectangle } from "./shapes";

const NO_LETTERING: Box = { minX: -30, minY: 0, maxX: 30, maxY: 15 };

/**
 * The body reaches from below the letters up to their heads; behind them it is cut away as far as the gap, so that they are read
 * against nothing. They stand on what is left below.
 *
 * @param baseline of the letters
 */
export function stakeOutline(
  { below, gap, clear, bite, margin, point, total, corner }: Stake,
  lettering: Box | null,
  baseline: number,
): Region {
  const box = lettering ?? NO_LETTERING;
  // Where nothing is clear the letters reach into the body, as they do below.
  const [before, after] = [clear === "right" ? -bite : gap, clear === "left" ? -bite : gap];
  const [left, right] = [box.minX - before - margin, box.maxX + after + margin];
  const tip = left - (total === undefined ? point : Math.max(0, total - (right - left)));
  const [bottom, top] = [baseline - below, box.maxY];
  const body = normalise([
    roundedRectangle({ minX: left, minY: bottom, maxX: right, maxY: top }, corner),
    // The point goes into the soil on the left: as high as the body, down to its lower edge.
    Float64Array.from([left + corner, bottom, left + corner, top, left, top, tip, bottom + (top - bottom) * TIP, tip, bottom]),
  ]);
  const notch = { minX: box.minX - before, minY: baseline + bite, maxX: box.maxX + after, maxY: top + 1 };
  return difference(body, [roundedRectangle(notch, 0)]);
}

/** Height of the blunt tip, as a share of the body. */
const TIP = 0.12;
