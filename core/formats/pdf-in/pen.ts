/**
 * What the operators of a page draw (ISO 32000-1, 8.4 "Graphics State" and 8.5 "Path Construction and Painting").
 */
import { intersection, type Matrix, multiply, type PathCommand, type Point, type Region, transformPoint } from "../../geometry";
import { DrawingError, type DrawnShape } from "../drawing";
import { clipOf } from "../shown";
import { byCount, type Colour } from "./colours";
import { type Operand, Operator, tokens } from "./tokens";

/** The graphics state, as far as outlines go. */
export interface State {
  matrix: Matrix;
  fill: string;
  stroke: string;
  /** How numbers of the present colour spaces look. */
  fillColours: Colour;
  strokeColours: Colour;
  /** Nothing is seen of what is painted with 0. */
  fillAlpha: number;
  strokeAlpha: number;
  /** pt, before the matrix. */
  width: number;
  /** Ends and corners, as their operators number them. */
  cap: number;
  join: number;
  miterLimit: number;
  dashed: boolean;
  /** What is painted shows only within all of these, mm. */
  clips: readonly Region[];
}

/** Where a page begins. */
export const FIRST_STATE: Omit<State, "matrix"> = {
  fill: "#000000",
  stroke: "#000000",
  fillColours: byCount,
  strokeColours: byCount,
  fillAlpha: 1,
  strokeAlpha: 1,
  width: 1,
  cap: 0,
  join: 0,
  miterLimit: 10,
  dashed: false,
  clips: [],
};

/** More clips than this are made one: every shape is held against all of them. */
const MOST_CLIPS = 8;

/** How a path is painted. */
export interface Painting {
  fills: boolean;
  strokes: boolean;
  rule: DrawnShape["fillRule"];
}

export interface Layer {
  name: string | null;
  /** Switched off: nothing on it is seen. */
  off: boolean;
}

/** Who takes what a pen draws, and knows the rest of the page. */
export interface Paper {
  paint(path: PathCommand[], state: State, how: Painting, layer: string | null): void;
  /** The layer that a mark stands for. */
  layerOf(key: Operand | undefined): Layer;
  coloursOf(key: Operand | undefined): Colour;
  /** What a named graphics state changes. */
  changes(key: Operand | undefined): Partial<State>;
  /** A drawing within the drawing. */
  draw(key: Operand | undefined, state: State): void;
  note(text: string): void;
}

/** Graphics states nested more deeply than this are a damaged file, or one that means harm. */
const DEEPEST_STATE = 500;

/** Draws what the operators of one stream say. */
class Pen {
  private readonly stack: State[] = [];
  private readonly layers: Layer[] = [];
  private path: PathCommand[] = [];
  private at = { x: 0, y: 0 };
  /** The path is to clip what comes after it, once it is painted. */
  private clipping: Painting["rule"] | null = null;

  constructor(
    public state: State,
    readonly paper: Paper,
  ) {}

  save(): void {
    if (this.stack.length > DEEPEST_STATE) throw new DrawingError(`Graphics states are nested more than ${DEEPEST_STATE} deep`);
    this.stack.push(this.state);
  }

  restore(): void {
    this.state = this.stack.pop() ?? this.state;
  }

  set(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
  }

  transform(matrix: Matrix): void {
    this.set({ matrix: multiply(this.state.matrix, matrix) });
  }

  place(x: number, y: number): Point {
    return transformPoint(this.state.matrix, { x, y });
  }

  begin(to: Point): void {
    this.path.push({ type: "M", ...to });
    this.at = to;
  }

  line(to: Point): void {
    this.path.push({ type: "L", ...to });
    this.at = to;
  }

  /** @param one the first handle; where the pen is unless it is given */
  curve(one: Point | null, two: Point, to: Point): void {
    const { x, y } = one ?? this.at;
    this.path.push({ type: "C", x1: x, y1: y, x2: two.x, y2: two.y, ...to });
    this.at = to;
  }

  close(): void {
    this.path.push({ type: "Z" });
  }

  rectangle(x: number, y: number, w: number, h: number): void {
    const [first, ...others] = [this.place(x, y), this.place(x + w, y), this.place(x + w, y + h), this.place(x, y + h)] as const;
    this.begin(first);
    for (const corner of others) this.line(corner);
    this.close();
    this.at = first;
  }

  /** Paints the path, or drops it. */
  paint(how?: Painting): void {
    const layer = this.layers.findLast(({ name }) => name !== null)?.name ?? null;
    if (this.path.length > 0 && how && this.isSeen) this.paper.paint(this.path, this.state, how, layer);
    if (this.path.length > 0 && this.clipping) this.clip(this.clipping);
    this.clipping = null;
    this.path = [];
  }

  /** After the next painting, the path clips. */
  willClip(rule: Painting["rule"]): void {
    this.clipping = rule;
  }

  private clip(rule: Painting["rule"]): void {
    const clips = [...this.state.clips, clipOf(this.path, rule)];
    const together = clips.length > MOST_CLIPS ? [clips.reduce((left, clip) => intersection(left, clip))] : clips;
    this.set({ clips: together });
  }

  /** Whether no layer that is switched off lies around it. */
  get isSeen(): boolean {
    return this.layers.every(({ off }) => !off);
  }

  note(text: string): void {
    if (this.isSeen) this.paper.note(text);
  }

  beginLayer(layer: Layer): void {
    this.layers.push(layer);
  }

  endLayer(): void {
    this.layers.pop();
  }

  draw(key: Operand | undefined): void {
    if (this.isSeen) this.paper.draw(key, this.state);
  }
}

type Operation = (pen: Pen, operands: readonly Operand[]) => void;

/** The first numbers that stand before an operator. */
function numbers(operands: readonly Operand[], count: number): number[] {
  const found = operands.slice(0, count);
  if (found.length < count || !found.every((each) => typeof each === "number"))
    throw new DrawingError("A drawing operator lacks its numbers: the PDF is damaged");
  return found as number[];
}

/** Places, as many as there are pairs of numbers. */
function places(pen: Pen, operands: readonly Operand[], count: number): Point[] {
  const all = numbers(operands, 2 * count);
  return Array.from({ length: count }, (_, i) => pen.place(all[2 * i]!, all[2 * i + 1]!));
}

const fill = (rule: Painting["rule"]): Painting => ({ fills: true, strokes: false, rule });
const both = (rule: Painting["rule"]): Painting => ({ fills: true, strokes: true, rule });
const LINE_ONLY: Painting = { fills: false, strokes: true, rule: "nonzero" };

const painting =
  (how?: Painting, closes = false): Operation =>
  (pen) => {
    if (closes) pen.close();
    pen.paint(how);
  };
const colouring =
  (what: "fill" | "stroke", colours?: Colour): Operation =>
  (pen, operands) => {
    const numbers = operands.filter((each): each is number => typeof each === "number");
    if (colours) pen.set({ [`${what}Colours`]: colours });
    pen.set({ [what]: pen.state[`${what}Colours`](numbers) });
  };
const spacing =
  (what: "fill" | "stroke"): Operation =>
  (pen, operands) => {
    const colours = pen.paper.coloursOf(operands[0]);
    pen.set({ [`${what}Colours`]: colours, [what]: colours([]) });
  };
const clipping =
  (rule: Painting["rule"]): Operation =>
  (pen) =>
    pen.willClip(rule);
const marking: Operation = (pen, operands) =>
  pen.beginLayer(operands[0] === "/OC" ? pen.paper.layerOf(operands[1]) : { name: null, off: false });
const textNote: Operation = (pen) => pen.note("Text is not an outline: turn it into paths first");

/** What is read of a page; all other operators change nothing of its outlines (ISO 32000-1, annex A). */
const OPERATORS: ReadonlyMap<string, Operation> = new Map(
  Object.entries<Operation>({
    q: (pen) => pen.save(),
    Q: (pen) => pen.restore(),
    cm: (pen, operands) => pen.transform(numbers(operands, 6) as unknown as Matrix),
    w: (pen, operands) => pen.set({ width: numbers(operands, 1)[0]! }),
    J: (pen, operands) => pen.set({ cap: numbers(operands, 1)[0]! }),
    j: (pen, operands) => pen.set({ join: numbers(operands, 1)[0]! }),
    M: (pen, operands) => pen.set({ miterLimit: numbers(operands, 1)[0]! }),
    m: (pen, operands) => pen.begin(places(pen, operands, 1)[0]!),
    l: (pen, operands) => pen.line(places(pen, operands, 1)[0]!),
    c: (pen, operands) => {
      const [one, two, to] = places(pen, operands, 3);
      pen.curve(one!, two!, to!);
    },
    v: (pen, operands) => {
      const [two, to] = places(pen, operands, 2);
      pen.curve(null, two!, to!);
    },
    y: (pen, operands) => {
      const [one, to] = places(pen, operands, 2);
      pen.curve(one!, to!, to!);
    },
    h: (pen) => pen.close(),
    re: (pen, operands) => {
      const [x, y, w, h] = numbers(operands, 4);
      pen.rectangle(x!, y!, w!, h!);
    },
    S: painting(LINE_ONLY),
    s: painting(LINE_ONLY, true),
    f: painting(fill("nonzero")),
    F: painting(fill("nonzero")),
    "f*": painting(fill("evenodd")),
    B: painting(both("nonzero")),
    "B*": painting(both("evenodd")),
    b: painting(both("nonzero"), true),
    "b*": painting(both("evenodd"), true),
    n: painting(),
    W: clipping("nonzero"),
    "W*": clipping("evenodd"),
    d: (pen, operands) => pen.set({ dashed: Array.isArray(operands[0]) && operands[0].some((each) => each !== 0) }),
    gs: (pen, operands) => pen.set(pen.paper.changes(operands[0])),
    g: colouring("fill", byCount),
    rg: colouring("fill", byCount),
    k: colouring("fill", byCount),
    cs: spacing("fill"),
    sc: colouring("fill"),
    scn: colouring("fill"),
    G: colouring("stroke", byCount),
    RG: colouring("stroke", byCount),
    K: colouring("stroke", byCount),
    CS: spacing("stroke"),
    SC: colouring("stroke"),
    SCN: colouring("stroke"),
    BDC: marking,
    BMC: marking,
    EMC: (pen) => pen.endLayer(),
    Do: (pen, operands) => pen.draw(operands[0]),
    Tj: textNote,
    TJ: textNote,
    "'": textNote,
    '"': textNote,
    sh: (pen) => pen.note("Shadings have no outline"),
  }),
);

/** Draws all of a stream. */
export function drawStream(text: string, state: State, paper: Paper): void {
  const pen = new Pen(state, paper);
  const operands: Operand[] = [];
  for (const token of tokens(text)) {
    if (!(token instanceof Operator)) {
      operands.push(token);
      continue;
    }
    OPERATORS.get(token.name)?.(pen, operands);
    operands.length = 0;
  }
}
