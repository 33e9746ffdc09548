/**
 * Harbour and sea.
 */
import { difference, type Region, union } from "../geometry";
import { arc, disc, ellipse, mirror, polar, polygon, stroke } from "./draw";
import { pathRegion } from "./path";

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

/** Two sails with a mast between them on one hull. */
function boat(): Region {
  return union([
    pathRegion("M4 28L96 28C92 12 82 2 70 2L30 2C18 2 8 12 4 28Z"),
    pathRegion("M50 100C70 84 84 62 88 38L50 38Z"),
    pathRegion("M42 88C34 66 26 52 12 38L42 38Z"),
    stroke([46, 24, 46, 84], 13),
  ]);
}

function lighthouse(): Region {
  return union([
    polygon(34, 12, 66, 12, 60, 66, 40, 66),
    pathRegion("M14 0L86 0C84 10 76 18 66 18L34 18C24 18 16 10 14 0Z"),
    polygon(30, 62, 70, 62, 70, 75, 30, 75),
    polygon(39, 70, 61, 70, 61, 88, 39, 88),
    pathRegion("M30 84L70 84C66 92 58 98 50 102C42 98 34 92 30 84Z"),
  ]);
}

/** A steering wheel: spokes run out beyond the rim. */
function helm(): Region {
  const spokes = Array.from({ length: 4 }, (_, i) =>
    stroke([...polar(50, 50, 45, 45 * i), ...polar(50, 50, 45, 45 * i + 180)], 13),
  );
  return union([difference(disc(50, 50, 39), disc(50, 50, 25)), ...spokes, disc(50, 50, 14)]);
}

function whale(): Region {
  return difference(
    union([
      pathRegion(
        "M2 34C2 62 24 72 52 70C78 68 92 52 98 62C98 72 92 78 84 84C98 86 106 82 112 76C118 82 126 86 138 84C128 74 122 66 120 54C114 22 92 6 54 6C22 6 2 14 2 34Z",
      ),
      stroke([34, 62, 34, 90], 13),
      stroke([34, 90, 22, 96], 13),
      stroke([34, 90, 46, 96], 13),
    ]),
    disc(24, 42, 5),
  );
}

function crab(): Region {
  const half = union([
    stroke([64, 34, 88, 26, 92, 10], 13),
    stroke([58, 26, 74, 10, 72, 4], 13),
    stroke([70, 44, 98, 50, 94, 66], 14),
    difference(disc(88, 78, 19), polygon(88, 76, 80, 104, 104, 100)),
  ]);
  return union([ellipse(50, 40, 33, 23), half, mirror(half), stroke([42, 58, 38, 72], 13), stroke([58, 58, 62, 72], 13)]);
}

/** A drop, standing on its round end. */
const drop = () => pathRegion("M40 100C32 74 8 58 8 32C8 14 22 0 40 0C58 0 72 14 72 32C72 58 48 74 40 100Z");

export const SEA = { anchor, wave, fish, shell, boat, lighthouse, helm, whale, crab, drop };
