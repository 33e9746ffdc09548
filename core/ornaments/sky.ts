/**
 * Sky, and plain figures.
 */
import { difference, type Region, transformRegion, union } from "../geometry";
import { disc, polar, polygon, stroke, turn } from "./draw";
import { pathRegion } from "./path";

const heart = () =>
  pathRegion(
    "M50 2C20 30 -2 48 -2 72C-2 90 12 100 26 100C38 100 46 93 50 83C54 93 62 100 74 100C88 100 102 90 102 72C102 48 80 30 50 2Z",
  );

function star(): Region {
  const ring: number[] = [];
  for (let i = 0; i < 10; i++) ring.push(...polar(50, 50, i % 2 === 0 ? 55 : 26, 90 + 36 * i));
  return polygon(...ring);
}

function sun(): Region {
  const rays = Array.from({ length: 8 }, (_, i) => stroke([50, 50, ...polar(50, 50, 45, 45 * i)], 10));
  return union([disc(50, 50, 27), ...rays]);
}

const cloud = () => union([disc(28, 34, 26), disc(58, 52, 32), disc(92, 36, 28), polygon(28, 8, 92, 8, 92, 40, 28, 40)]);

/** Six arms, each with a pair of twigs. */
function snowflake(): Region {
  const arm = union([stroke([50, 50, 50, 94], 13), stroke([50, 68, 66, 82], 12.5), stroke([50, 68, 34, 82], 12.5)]);
  return union(Array.from({ length: 6 }, (_, i) => turn(arm, 60 * i)));
}

const mountain = () => union([polygon(-6, 0, 44, 92, 94, 0), polygon(36, 0, 84, 66, 128, 0)]);

const lightning = () => polygon(46, 102, 10, 42, 38, 42, 24, -2, 78, 60, 48, 60, 68, 102);

const flame = () =>
  pathRegion(
    "M44 102C50 78 20 66 14 38C10 14 28 0 48 0C70 0 86 16 84 38C82 54 74 62 70 78C64 72 62 66 62 60C60 76 54 90 44 102Z",
  );

function arrow(): Region {
  const feather = (x: number) => [stroke([x, 50, x - 12, 66], 8), stroke([x, 50, x - 12, 34], 8)];
  return union([
    stroke([14, 50, 120, 50], 9),
    pathRegion("M144 50L104 74C110 58 110 42 104 26Z"),
    ...feather(18),
    ...feather(34),
    ...feather(50),
  ]);
}

/** Two scrolls, one turned round, that run into each other. */
function flourish(): Region {
  const half: number[] = [];
  for (let t = 0; t <= 1; t += 1 / 90) {
    const r = 5 + 19 * t;
    half.push(...polar(30 - 2 * t, 60, r, 250 - 540 * (1 - t)));
  }
  const end: [number, number] = [half[half.length - 2]!, half[half.length - 1]!];
  const scroll = stroke([...half, end[0] + 30, end[1] + 6, 75, 50], 9);
  return union([scroll, transformRegion(scroll, [-1, 0, 0, -1, 150, 100])]);
}

export const SKY = {
  heart,
  star,
  disc: () => disc(28, 50, 28),
  ring: () => difference(disc(50, 50, 50), disc(50, 50, 29)),
  diamond: () => polygon(40, 2, 78, 50, 40, 98, 2, 50),
  sun,
  moon: () => difference(disc(50, 50, 50), disc(72, 56, 42)),
  cloud,
  snowflake,
  mountain,
  lightning,
  flame,
  arrow,
  flourish,
};
