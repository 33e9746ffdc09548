/**
 * Garden and wood.
 */
import { difference, type Region, rotation, transformRegion, union } from "../geometry";
import { disc, mirror, polar, polygon, radians, stroke, turn } from "./draw";
import { pathRegion } from "./path";

function leaf(): Region {
  const blade = pathRegion("M50 22C22 34 10 62 50 108C90 62 78 34 50 22Z");
  const upright = difference(union([blade, stroke([50, 30, 50, 4], 9)]), stroke([50, 46, 50, 82], 5));
  const [a, b, c, d] = rotation(radians(-24));
  return transformRegion(upright, [a * 0.94, b * 0.94, c * 0.94, d * 0.94, -14, 18]);
}

/** A fir of three tiers. */
const fir = () =>
  union([
    polygon(50, 102, 76, 66, 24, 66),
    polygon(50, 84, 84, 42, 16, 42),
    polygon(50, 62, 92, 16, 8, 16),
    polygon(42, 0, 58, 0, 58, 20, 42, 20),
  ]);

/** A broad crown on a trunk that spreads into roots. */
function tree(): Region {
  const crown = [disc(50, 76, 25), disc(26, 62, 21), disc(74, 62, 21), disc(36, 50, 18), disc(64, 50, 18)];
  return union([...crown, pathRegion("M41 50C43 24 38 10 26 0L74 0C62 10 57 24 59 50Z")]);
}

/** Six petals round an open middle. */
function flower(): Region {
  const petals = Array.from({ length: 6 }, (_, i) => disc(...polar(50, 50, 31, 60 * i + 30), 19));
  return difference(union([...petals, disc(50, 50, 30)]), disc(50, 50, 10));
}

function tulip(): Region {
  const side = pathRegion("M50 4C58 14 86 20 84 52C70 48 54 34 50 16Z");
  return union([
    pathRegion("M50 48C26 48 18 70 24 100L38 84L50 102L62 84L76 100C82 70 74 48 50 48Z"),
    stroke([50, 54, 50, 7], 13),
    side,
    mirror(side),
  ]);
}

/** Four leaves, each a heart, on a bent stalk. */
function clover(): Region {
  const heart = pathRegion("M50 50C42 66 28 72 28 86C28 97 45 101 50 88C55 101 72 97 72 86C72 72 58 66 50 50Z");
  const leaves = [45, 135, 225, 315].map((angle) => turn(heart, angle, 50, 54));
  return union([...leaves, disc(50, 54, 14), stroke([50, 50, 54, 22, 66, 7], 13)]);
}

const mushroom = () =>
  union([
    pathRegion("M4 46C4 80 26 100 50 100C74 100 96 80 96 46C96 38 88 36 82 36L18 36C12 36 4 38 4 46Z"),
    pathRegion("M38 40C40 24 34 14 30 4C34 0 66 0 70 4C66 14 60 24 62 40Z"),
  ]);

function apple(): Region {
  return union([
    pathRegion("M50 70C36 82 8 76 8 44C8 18 26 -2 50 6C74 -2 92 18 92 44C92 76 64 82 50 70Z"),
    stroke([50, 66, 53, 92], 13),
    pathRegion("M52 78C58 96 74 102 90 98C88 84 72 74 52 78Z"),
  ]);
}

const pear = () =>
  union([
    pathRegion("M50 84C38 84 36 70 32 56C28 44 14 40 14 24C14 8 30 0 50 0C70 0 86 8 86 24C86 40 72 44 68 56C64 70 62 84 50 84Z"),
    stroke([50, 76, 60, 97], 13),
  ]);

function cherries(): Region {
  return union([
    disc(24, 20, 20),
    disc(76, 24, 20),
    stroke([26, 30, 40, 66, 58, 92], 13),
    stroke([74, 34, 70, 66, 58, 92], 13),
    pathRegion("M56 94C40 106 18 102 8 90C22 78 44 78 56 94Z"),
  ]);
}

const acorn = () =>
  union([
    pathRegion("M18 58C18 30 34 14 50 0C66 14 82 30 82 58Z"),
    pathRegion("M10 62C10 54 16 52 22 52L78 52C84 52 90 54 90 62C88 78 72 88 50 88C28 88 12 78 10 62Z"),
    stroke([50, 82, 54, 97], 13),
  ]);

/** A feather, slit twice along its edge. */
function feather(): Region {
  const vane = pathRegion("M22 26C10 60 34 96 92 102C96 66 72 30 34 20Z");
  const slits = union([stroke([92, 52, 62, 60], 4), stroke([78, 34, 50, 44], 4)]);
  return union([difference(vane, slits), stroke([10, 6, 40, 40], 13)]);
}

export const GARDEN = { leaf, fir, tree, flower, tulip, clover, mushroom, apple, pear, cherries, acorn, feather };
