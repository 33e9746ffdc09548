/**
 * Animals.
 */
import { difference, type Region, union } from "../geometry";
import { arc, disc, ellipse, mirror, polar, polygon, stroke } from "./draw";
import { pathRegion } from "./path";

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

/** A sitting cat from behind, its tail beside it. */
function cat(): Region {
  return union([
    pathRegion("M24 2C14 30 26 44 36 56L68 56C78 44 90 30 80 2Z"),
    disc(52, 70, 22),
    polygon(31, 76, 33, 104, 52, 88),
    polygon(73, 76, 71, 104, 52, 88),
    stroke([70, 9, ...arc(88, 25, 16, -90, 60), 92, 46], 13),
  ]);
}

function rabbit(): Region {
  return union([disc(50, 30, 30), ellipse(34, 76, 11, 28, 8), ellipse(66, 76, 11, 28, -8)]);
}

function bird(): Region {
  return difference(
    union([
      pathRegion("M22 66C22 84 36 94 50 92C66 90 72 78 76 66C84 50 104 42 122 40C110 22 92 12 66 12C38 12 22 34 22 66Z"),
      polygon(26, 80, 2, 66, 24, 58),
      stroke([58, 16, 58, 4], 13),
      stroke([50, 6.5, 68, 6.5], 13),
    ]),
    disc(42, 74, 4.5),
  );
}

function duck(): Region {
  return difference(
    union([
      disc(30, 76, 22),
      polygon(16, 84, -8, 72, 16, 64),
      pathRegion("M16 70C24 50 8 44 10 26C12 8 30 2 60 2C96 2 108 26 114 56C98 48 84 48 70 50C54 52 50 60 46 70Z"),
    ]),
    disc(28, 80, 4.5),
  );
}

function butterfly(): Region {
  const wing = union([
    pathRegion("M52 54C62 88 92 104 100 90C106 74 92 52 54 46Z"),
    pathRegion("M52 50C74 56 90 40 86 22C82 4 62 10 52 40Z"),
  ]);
  return union([wing, mirror(wing), ellipse(50, 50, 8, 36), stroke([50, 80, 42, 98], 12.5), stroke([50, 80, 58, 98], 12.5)]);
}

function snail(): Region {
  const groove: number[] = [];
  for (let t = 0; t <= 1; t += 1 / 40) groove.push(...polar(62, 50, 21 - 15 * t, 20 + 420 * t));
  const body = pathRegion(
    "M6 22C6 8 14 2 26 2L122 2C114 16 100 24 80 26L46 26C36 28 34 40 34 52C34 68 26 76 16 74C4 72 0 62 4 50C6 44 6 34 6 22Z",
  );
  return difference(
    union([disc(62, 50, 36), body, stroke([14, 66, 4, 92], 12.5), stroke([22, 66, 30, 92], 12.5)]),
    stroke(groove, 5),
  );
}

function bear(): Region {
  const face = union([disc(50, 44, 40), disc(20, 80, 19), disc(80, 80, 19)]);
  return difference(face, union([disc(35, 54, 5), disc(65, 54, 5), ellipse(50, 32, 10, 7)]));
}

function bone(): Region {
  return union([
    disc(18, 64, 17),
    disc(18, 36, 17),
    disc(122, 64, 17),
    disc(122, 36, 17),
    polygon(14, 36, 126, 36, 126, 64, 14, 64),
  ]);
}

/** A swan's neck would be thin: a hen has none. */
function hen(): Region {
  return union([
    pathRegion(
      "M14 74C14 88 24 94 34 92C46 90 48 76 58 64C66 56 78 62 92 86C104 72 104 44 92 26C82 12 66 10 54 10C30 10 16 30 16 52Z",
    ),
    polygon(18, 82, -2, 72, 18, 64),
    disc(22, 92, 8),
    disc(34, 95, 8),
    stroke([56, 14, 56, 6], 13),
    stroke([44, 6.5, 66, 6.5], 13),
  ]);
}

export const ANIMALS = { paw, cat, rabbit, bird, duck, hen, butterfly, snail, bear, bone };
