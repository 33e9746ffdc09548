/**
 * House and feast.
 */
import { difference, type Region, union } from "../geometry";
import { arc, disc, ellipse, mirror, polygon, stroke } from "./draw";
import { pathRegion } from "./path";

function crown(): Region {
  const balls = [8, 50, 92].map((x, i) => disc(x, i === 1 ? 92 : 74, 8));
  return union([polygon(10, 6, 90, 6, 96, 76, 70, 42, 50, 94, 30, 42, 4, 76), ...balls]);
}

const house = () =>
  difference(
    union([polygon(14, 0, 86, 0, 86, 52, 14, 52), polygon(50, 102, 104, 46, -4, 46), polygon(68, 60, 84, 60, 84, 94, 68, 94)]),
    polygon(42, -1, 58, -1, 58, 28, 42, 28),
  );

function bell(): Region {
  return union([
    pathRegion(
      "M8 22C20 30 20 44 22 58C24 78 34 90 50 90C66 90 76 78 78 58C80 44 80 30 92 22C94 16 88 14 84 14L16 14C12 14 6 16 8 22Z",
    ),
    disc(50, 12, 12),
    disc(50, 92, 9),
  ]);
}

function key(): Region {
  return union([
    difference(disc(40, 78, 24), disc(40, 78, 10)),
    stroke([40, 60, 40, 6.5], 13),
    stroke([40, 8, 60, 8], 13),
    stroke([40, 30, 58, 30], 13),
  ]);
}

function gift(): Region {
  const loop = difference(ellipse(31, 86, 21, 14, -24), ellipse(29, 86.5, 7, 3.5, -24));
  return union([
    polygon(8, 0, 92, 0, 92, 46, 8, 46),
    polygon(2, 46, 98, 46, 98, 68, 2, 68),
    loop,
    mirror(loop),
    disc(50, 74, 11),
  ]);
}

function balloon(): Region {
  return union([ellipse(50, 68, 28, 34), polygon(50, 46, 67, 22, 33, 22), stroke([50, 28, 50, 6.5], 13)]);
}

function cup(): Region {
  return union([
    pathRegion("M10 60L78 60C78 34 72 16 60 14L28 14C16 16 10 34 10 60Z"),
    difference(ellipse(80, 42, 23, 19), ellipse(81, 42, 8, 6)),
    polygon(2, 2, 86, 2, 86, 14, 2, 14),
    pathRegion("M30 58C26 70 40 76 34 92L47 96C54 76 40 72 44 58Z"),
    pathRegion("M52 58C48 70 62 76 56 92L69 96C76 76 62 72 66 58Z"),
  ]);
}

function cupcake(): Region {
  return union([
    polygon(24, 2, 76, 2, 86, 44, 14, 44),
    pathRegion(
      "M4 46C4 62 16 64 22 66C22 80 36 86 50 86C64 86 78 80 78 66C84 64 96 62 96 46C96 38 84 38 76 38L24 38C16 38 4 38 4 46Z",
    ),
    disc(50, 92, 11),
  ]);
}

function note(): Region {
  return union([
    ellipse(24, 14, 21, 14, 18),
    ellipse(82, 22, 21, 14, 18),
    stroke([38, 16, 38, 84], 13),
    stroke([96, 24, 96, 92], 13),
    polygon(32, 72, 102, 82, 102, 100, 32, 90),
  ]);
}

function bow(): Region {
  const loop = pathRegion("M50 60C66 88 96 100 104 88C110 74 110 52 104 40C96 28 66 40 50 56Z");
  const tail = pathRegion("M44 56L58 52L86 8L70 12L64 0Z");
  return union([loop, mirror(loop), tail, mirror(tail), disc(50, 58, 14)]);
}

function candle(): Region {
  return union([
    polygon(32, 8, 64, 8, 64, 58, 32, 58),
    pathRegion("M10 0L86 0C88 12 78 16 70 16L26 16C18 16 8 12 10 0Z"),
    stroke([48, 56, 48, 72], 13),
    pathRegion("M48 104C42 92 34 86 34 77C34 69 40 64 48 64C56 64 62 69 62 77C62 86 54 92 48 104Z"),
  ]);
}

function umbrella(): Region {
  return union([
    difference(
      pathRegion("M2 50C4 78 24 96 50 96C76 96 96 78 98 50Z"),
      union([ellipse(18, 49, 10, 6), ellipse(50, 49, 14, 6), ellipse(82, 49, 10, 6)]),
    ),
    stroke([50, 92, 50, 16, ...arc(38, 16, 12, 0, -170)], 13),
    stroke([50, 90, 50, 98], 12.5),
  ]);
}

function gear(): Region {
  const teeth = Array.from({ length: 8 }, (_, i) => {
    const [cos, sin] = [Math.cos((Math.PI * i) / 4), Math.sin((Math.PI * i) / 4)];
    return polygon(
      ...[
        [30, -11],
        [51, -8],
        [51, 8],
        [30, 11],
      ].flatMap(([u, v]) => [50 + u! * cos - v! * sin, 50 + u! * sin + v! * cos]),
    );
  });
  return difference(union([disc(50, 50, 37), ...teeth]), disc(50, 50, 16));
}

export const HOME = { crown, house, bell, key, gift, balloon, cup, cupcake, note, bow, candle, umbrella, gear };
