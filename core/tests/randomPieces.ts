/**
 * Random pieces of every kind and heaps of plain polygons, for tests against other libraries.
 */
import { CATALOGUE } from "@mend-joint/library";
import { type Piece, parsePiece, SHAPE_FORMS, STOCKS, SYMBOL_NAMES } from "../piece";
import { Draw } from "./draw";

const NAMES = [
  "Isolde",
  "Jiří",
  "Zoë",
  "Bjørn",
  "Wilhelmina",
  "Kit",
  "Ffion",
  "Ángela",
  "Ñandú",
  "naïve",
  "HILL",
  "Mia Leo",
  "i!?",
  "Å&B",
];

/** @returns the same piece for the same seed */
export function randomPiece(seed: number): Piece {
  const draw = new Draw(seed);
  const parts: object[] = [];
  const words = draw.chance(0.2) ? 2 : 1;
  for (let w = 1; w <= words; w++) parts.push(randomWord(draw, w));
  const holders = draw.chance(0.15) ? 0 : draw.chance(0.6) ? 1 : 2;
  for (let h = 1; h <= holders; h++) parts.splice(draw.chance(0.5) ? 0 : parts.length, 0, randomHolder(draw, h));
  if (draw.chance(0.25)) parts.push(randomTie(draw));
  if (draw.chance(0.15)) parts.push(randomOrnament(draw));
  // With numbers of their own: the pieces of seeds that have been cases stay what they were but for them.
  const drawings = new Draw(seed + 0x5eed);
  if (drawings.chance(0.2)) {
    parts.splice(drawings.chance(0.5) ? 0 : parts.length, 0, randomDrawing(drawings));
    const rounds = new Draw(seed + 0x0071);
    if (rounds.chance(0.3)) sendRound(rounds, parts);
  }
  return parsePiece({
    id: `r${seed}`,
    name: `R${seed}`,
    stock: draw.one(STOCKS),
    cut: draw.chance(0.75) ? "on-line" : "outside",
    parts,
    ...draw.maybe(0.05, () => ({ pair: { gap: draw.from(0, 10) } })),
  });
}

function randomWord(draw: Draw, number: number): object {
  const text = draw.one(NAMES);
  return {
    kind: "word",
    id: `w${number}`,
    text,
    // By the name, so that pieces of known seeds stay what they were.
    ...(NAMES.indexOf(text) % 2 === 1 && { bridges: { width: 1.2 + (NAMES.indexOf(text) % 4) } }),
    font: draw.one(CATALOGUE).id,
    size: draw.chance(0.7) ? { by: "cap-height", mm: draw.from(8, 32) } : { by: "width", mm: draw.from(30, 160) },
    ...draw.maybe(0.3, () => ({ tracking: draw.from(-2, 2) })),
    ...draw.maybe(0.3, () => ({ overlap: draw.from(-1, 3) })),
    dots: draw.one(["leave", "leave", "bite", "tie", "slanted", "neighbour"]),
    ...draw.maybe(0.2, () => ({ thicken: draw.from(0, 2) })),
    ...draw.maybe(0.15, () => ({ roundOuter: draw.from(0, 1) })),
    ...draw.maybe(0.1, () => ({ slant: draw.from(-20, 20) })),
    ...draw.maybe(0.1, () => ({ score: true })),
    meets: draw.one(["add", "add", "add", "engrave", "carve", "halo"]),
    at: { x: 0, y: number === 1 ? 0 : draw.from(-30, -10) },
    ...draw.maybe(0.25, () => ({ path: randomPath(draw) })),
  };
}

function randomPath(draw: Draw): object {
  const line = draw.maybe(0.5, () => ({ line: draw.from(1.5, 6) }));
  const distance = draw.from(-2, 1);
  switch (draw.one(["stacked", "arc", "curve", "spiral"])) {
    case "stacked":
      return { kind: "stacked", joint: draw.from(0.5, 4) };
    case "arc":
      return {
        kind: "arc",
        radius: draw.from(12, 90),
        angle: draw.from(0, 360),
        side: draw.one(["outside", "inside"]),
        reading: draw.one(["clockwise", "counter-clockwise"]),
        distance,
        ...line,
      };
    case "curve":
      return {
        kind: "curve",
        points: [
          { x: 0, y: 0 },
          { x: draw.from(30, 60), y: draw.from(-15, 15) },
          { x: draw.from(80, 140), y: draw.from(-15, 15) },
        ],
        distance,
        ...line,
      };
    default:
      return { kind: "spiral", radius: draw.from(6, 20), pitch: draw.from(12, 40), angle: draw.from(0, 360), distance, ...line };
  }
}

function randomHolder(draw: Draw, number: number): object {
  const id = `h${number}`;
  switch (draw.one(["bar", "bar", "stick", "loop", "backing", "backing", "shape", "shape", "stake"])) {
    case "bar":
      return {
        kind: "bar",
        id,
        height: draw.from(1, 10),
        overlap: draw.from(-0.5, 3),
        corner: draw.from(0, 2),
        overhang: draw.from(-5, 8),
      };
    case "stick":
      return {
        kind: "stick",
        id,
        width: draw.from(2, 9),
        length: draw.from(30, 90),
        bite: draw.from(-1, 9),
        dx: draw.from(-25, 25),
        tip: draw.one(["round", "pointed", "square"]),
      };
    case "loop":
      return {
        kind: "loop",
        id,
        outer: draw.from(8, 18),
        hole: draw.from(3, 8),
        angle: draw.from(-180, 180),
        bite: draw.from(0, 4),
      };
    case "backing":
      return {
        kind: "backing",
        id,
        distance: draw.from(0.5, 7),
        corners: draw.one(["round", "sharp", "bevelled"]),
        holes: draw.one(["fill", "keep", draw.from(0.5, 4)]),
      };
    case "stake":
      return { kind: "stake", id, bite: draw.from(0, 3), gap: draw.from(0, 4) };
    default:
      return {
        kind: "shape",
        id,
        form: draw.one(SHAPE_FORMS),
        size: draw.chance(0.6)
          ? { by: "fit", margin: draw.from(-4, 12) }
          : { by: "own", width: draw.from(20, 120), height: draw.from(15, 80) },
        corner: draw.from(0, 8),
        ...draw.maybe(0.4, () => ({ frame: draw.from(1, 8) })),
        ...draw.maybe(0.2, () => ({ dx: draw.from(-30, 30), dy: draw.from(-15, 15) })),
        meets: draw.one(["add", "add", "add", "carve", "halo", "set-in"]),
      };
  }
}

const randomTie = (draw: Draw): object => ({
  kind: "tie",
  id: "t1",
  width: draw.from(0.1, 5),
  ends: [
    { x: draw.from(-60, 20), y: draw.from(-10, 30) },
    { x: draw.from(-20, 60), y: draw.from(-10, 30) },
  ],
  ...draw.maybe(0.3, () => ({ bend: draw.from(-8, 8) })),
  square: draw.chance(0.3),
});

const randomOrnament = (draw: Draw): object => ({
  kind: "ornament",
  id: "o1",
  // Those that came first, so that pieces of known seeds stay what they were; the others are tested one by one.
  name: draw.one(SYMBOL_NAMES.slice(0, 16)),
  height: draw.from(5, 30),
  at: { x: draw.from(-50, 50), y: draw.from(-10, 30) },
  turn: draw.from(-90, 90),
  meets: draw.one(["add", "add", "carve", "halo"]),
});

/** An outline of lines, arcs and curves, with a hole now and then. */
const randomDrawing = (draw: Draw): object => {
  const corners = 3 + Math.floor(draw.from(0, 9));
  const place = (i: number) => {
    const [angle, r] = [(2 * Math.PI * i) / corners, draw.from(12, 40)];
    return [r * Math.cos(angle), r * Math.sin(angle)].map((value) => value.toFixed(3)).join(" ");
  };
  const step = (i: number) =>
    draw.one([
      () => `L${place(i)}`,
      () => `C${place(i - 0.6)} ${place(i - 0.3)} ${place(i)}`,
      () => `A60 60 0 0 ${i % 2} ${place(i)}`,
    ])();
  const edge = `M${place(0)}${Array.from({ length: corners - 1 }, (_, i) => step(i + 1)).join("")}Z`;
  return {
    kind: "drawing",
    id: "d1",
    name: "outline",
    outline: edge + (draw.chance(0.4) ? "M6 0A6 6 0 1 0 -6 0A6 6 0 1 0 6 0Z" : ""),
    height: draw.from(10, 90),
    at: { x: draw.from(-40, 40), y: draw.from(-15, 30) },
    turn: draw.from(-180, 180),
    mirror: draw.chance(0.3),
    holder: draw.chance(0.4),
    ...draw.maybe(0.3, () => ({ frame: draw.from(1, 6), opening: draw.one(["none", "none", "behind", "bars"]) })),
    ...draw.maybe(0.2, () => ({ round: draw.from(0.2, 3) })),
    meets: draw.one(["add", "add", "add", "carve", "halo", "set-in", "engrave"]),
  };
};

/** The first word goes round the drawing. */
function sendRound(draw: Draw, parts: object[]): void {
  const at = parts.findIndex((part) => "kind" in part && part.kind === "word");
  const path = {
    kind: "outline",
    drawing: "d1",
    number: draw.chance(0.3) ? 1 : 0,
    angle: draw.from(0, 360),
    side: draw.one(["outside", "inside"]),
    reading: draw.one(["clockwise", "counter-clockwise"]),
    distance: draw.from(-4, 4),
  };
  parts[at] = { ...parts[at], path, size: { by: "cap-height", mm: draw.from(6, 20) } };
}

/** A heap of rectangles, triangles and polygons, some at whole millimetres, where everything touches everything. */
export function randomHeap(seed: number): Float64Array[] {
  const draw = new Draw(seed);
  const whole = draw.chance(0.3);
  const place = (value: number) => (whole ? Math.round(value) : value);
  const span = draw.one([5, 20, 60]);
  return Array.from({ length: 2 + Math.floor(draw.from(0, 28)) }, () => {
    const [x, y] = [place(draw.from(0, span)), place(draw.from(0, span))];
    const kind = draw.from(0, 1);
    if (kind < 0.35) {
      const [angle, length, width] = [draw.from(0, 6.283), draw.from(1, 21), draw.from(0.05, 2)];
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const corners = [0, 0, length, 0, length, width, 0, width];
      return Float64Array.from(corners, (_, i) => {
        const [u, v] = [corners[i - (i % 2)]!, corners[i - (i % 2) + 1]!];
        return i % 2 === 0 ? x + u * c - v * s : y + u * s + v * c;
      });
    }
    if (kind < 0.7) {
      const near = (value: number) => place(value + draw.from(-8, 8));
      return Float64Array.from([x, y, near(x), near(y), near(x), near(y)]);
    }
    const [corners, radius] = [5 + Math.floor(draw.from(0, 60)), draw.from(0.2, 6)];
    return Float64Array.from({ length: 2 * corners }, (_, i) => {
      const angle = (2 * Math.PI * Math.floor(i / 2)) / corners;
      return i % 2 === 0 ? x + radius * Math.cos(angle) : y + radius * Math.sin(angle);
    });
  });
}
