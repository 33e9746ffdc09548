/**
 * Ornaments: silhouettes of our own, each one piece, drawn in a box 100 high with y up.
 */
import {
  arcPoints,
  circleRing,
  difference,
  type Matrix,
  normalise,
  type Region,
  rotation,
  strokeRegion,
  transformRegion,
  union,
} from "../geometry";
import type { SymbolName } from "../piece";
import { pathRegion } from "./path";

/** Height that the outlines are drawn for. */
export const DRAWN = 100;

const disc = (x: number, y: number, r: number): Region => [circleRing(x, y, r)];
const polygon = (...points: number[]): Region => normalise([Float64Array.from(points)]);
const stroke = (points: readonly number[], width: number) => strokeRegion(Float64Array.from(points), width);
const radians = (degrees: number) => (degrees * Math.PI) / 180;
const polar = (x: number, y: number, r: number, degrees: number): [number, number] => [
  x + r * Math.cos(radians(degrees)),
  y + r * Math.sin(radians(degrees)),
];
const arc = (x: number, y: number, r: number, from: number, to: number) => arcPoints(x, y, r, radians(from), radians(to));
const ellipse = (x: number, y: number, rx: number, ry: number, turned = 0): Region => {
  const [a, b, c, d] = rotation(radians(turned));
  const matrix: Matrix = [(a * rx) / 50, (b * rx) / 50, (c * ry) / 50, (d * ry) / 50, x, y];
  return transformRegion(disc(0, 0, 50), matrix);
};

function star(points: number, outer: number, inner: number): Region {
  const ring: number[] = [];
  for (let i = 0; i < 2 * points; i++) ring.push(...polar(50, 50, i % 2 === 0 ? outer : inner, 90 + (180 * i) / points));
  return polygon(...ring);
}

function sun(): Region {
  const rays = Array.from({ length: 8 }, (_, i) => stroke([50, 50, ...polar(50, 50, 45, 45 * i)], 10));
  return union([disc(50, 50, 27), ...rays]);
}

function anchor(): Region {
  const fluke = (side: 1 | -1) => polygon(50 + side * 48, 46, 50 + side * 24, 36, 50 + side * 47, 20);
  return union([
    difference(disc(50, 84, 15), disc(50, 84, 6.5)),
    stroke([50, 72, 50, 8], 12),
    stroke([29, 62, 71, 62], 10),
    stroke(arc(50, 44, 37, 192, 348), 12),
    fluke(1),
    fluke(-1),
  ]);
}

function wave(): Region {
  const line: number[] = [];
  for (let x = 0; x <= 132; x += 1) line.push(10 + x, 50 + 16 * Math.sin((2 * Math.PI * x) / 66));
  return stroke(line, 18);
}

function fish(): Region {
  return difference(pathRegion("M104 50C88 80 50 86 24 56L0 80C8 60 8 40 0 20L24 44C50 14 88 20 104 50Z"), disc(82, 57, 5));
}

function shell(): Region {
  const ribs = [30, 54, 78, 102, 126, 150].map((angle) => disc(...polar(50, 14, 60, angle), 16));
  const fan = polygon(50, 6, ...arc(50, 14, 62, 22, 158));
  const grooves = [66, 90, 114].map((angle) => stroke([...polar(50, 14, 32, angle), ...polar(50, 14, 58, angle)], 5));
  return difference(union([fan, ...ribs, polygon(34, 0, 66, 0, 72, 16, 28, 16)]), union(grooves));
}

function leaf(): Region {
  const blade = pathRegion("M50 22C22 34 10 62 50 108C90 62 78 34 50 22Z");
  const upright = difference(union([blade, stroke([50, 30, 50, 4], 9)]), stroke([50, 46, 50, 82], 5));
  const [a, b, c, d] = rotation(radians(-24));
  return transformRegion(upright, [a * 0.94, b * 0.94, c * 0.94, d * 0.94, -14, 18]);
}

function crown(): Region {
  const balls = [8, 50, 92].map((x, i) => disc(x, i === 1 ? 92 : 74, 8));
  return union([polygon(10, 6, 90, 6, 96, 76, 70, 42, 50, 94, 30, 42, 4, 76), ...balls]);
}

function paw(): Region {
  const toes = [
    ellipse(15, 52, 14, 18, 24),
    ellipse(37, 78, 14, 20, 8),
    ellipse(63, 78, 14, 20, -8),
    ellipse(85, 52, 14, 18, -24),
  ];
  const webs = [
    [20, 46],
    [40, 66],
    [60, 66],
    [80, 46],
  ].map(([x, y]) => stroke([50, 30, x!, y!], 13));
  return union([
    pathRegion("M50 52C32 52 18 30 20 16C22 2 38 4 50 8C62 4 78 2 80 16C82 30 68 52 50 52Z"),
    disc(50, 50, 19),
    ...toes,
    ...webs,
  ]);
}

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

const DRAWINGS: Record<SymbolName, () => Region> = {
  heart: () =>
    pathRegion(
      "M50 2C20 30 -2 48 -2 72C-2 90 12 100 26 100C38 100 46 93 50 83C54 93 62 100 74 100C88 100 102 90 102 72C102 48 80 30 50 2Z",
    ),
  star: () => star(5, 55, 26),
  disc: () => disc(28, 50, 28),
  ring: () => difference(disc(50, 50, 50), disc(50, 50, 29)),
  diamond: () => polygon(40, 2, 78, 50, 40, 98, 2, 50),
  sun,
  moon: () => difference(disc(50, 50, 50), disc(72, 56, 42)),
  anchor,
  wave,
  fish,
  shell,
  leaf,
  crown,
  paw,
  arrow,
  flourish,
};

const drawn = new Map<SymbolName, Region>();

/** @returns the silhouette, one piece, about 100 high, standing on y = 0; the same object every time */
export function ornament(name: SymbolName): Region {
  let region = drawn.get(name);
  if (!region) {
    region = DRAWINGS[name]();
    drawn.set(name, region);
  }
  return region;
}

/** Only the ring has a hole that is there to be used: nothing may close it. */
export const keepsHoleFree = (name: SymbolName) => name === "ring";
