/**
 * Lines that are drawn broad: as the shapes that they are seen as, with their ends and corners.
 */
import type { Drawing, DrawnShape } from "../formats";
import {
  drawnRegion,
  type FlatPath,
  intersection,
  invert,
  type Matrix,
  type Region,
  type StrokeStyle,
  transformRegion,
  transformRing,
} from "../geometry";

/** Thinner than this, a line says where to cut, mm. */
const BROAD = 0.5;

const isBroad = ({ stroke, strokeWidth, strokeStyle }: DrawnShape): boolean =>
  stroke !== null && strokeStyle !== undefined && strokeWidth !== null && strokeWidth >= BROAD;

/** The broadest line of a drawing, mm; `null` where all are thin, or nothing says how they are drawn. */
export function broadestLine({ shapes }: Drawing): number | null {
  const widths = shapes.filter(isBroad).map(({ strokeWidth }) => strokeWidth!);
  return widths.length === 0 ? null : widths.reduce((most, width) => Math.max(most, width));
}

/** The drawing with every broad line as a filled shape of its own, over what it goes around. */
export function asBroadAsDrawn(drawing: Drawing): Drawing {
  const shapes = drawing.shapes.flatMap((shape): DrawnShape[] => {
    if (!isBroad(shape)) return [shape];
    const { strokeStyle, commands, ...line } = shape;
    const rings = coveredBy(shape);
    const subpaths = rings.map((ring): FlatPath => ({ ring, closed: true }));
    const drawn: DrawnShape = { ...line, subpaths, fillRule: "nonzero", fill: shape.stroke, stroke: null, strokeWidth: null };
    if (shape.fill === null) return [drawn];
    return [
      { ...shape, stroke: null, strokeWidth: null },
      { ...drawn, id: `${shape.id}-line` },
    ];
  });
  return { ...drawing, shapes };
}

function coveredBy({ subpaths, strokeWidth, strokeStyle }: DrawnShape): Region {
  const style = strokeStyle!;
  const { stretched, cut } = style;
  const lines = (cut?.lines ?? subpaths).flatMap((line) => (line.ring.length > 2 ? [line] : dotOf(line, style)));
  const drawn = stretched ? stretchedLine(lines, strokeWidth!, style, stretched) : drawnRegion(lines, strokeWidth!, style);
  return cut ? cut.clips.reduce((left, clip) => intersection(left, clip), drawn) : drawn;
}

/** Hardly any length, mm, so that a place has two ends. */
const DOT = 1e-3;

/** A place alone is no line, unless it is closed and its ends reach out: then it is a dot. */
function dotOf({ ring, closed }: FlatPath, { cap }: StrokeStyle): FlatPath[] {
  const [x, y] = ring as unknown as [number, number];
  return closed && cap !== "butt" ? [{ ring: Float64Array.from([x - DOT / 2, y, x + DOT / 2, y]), closed: false }] : [];
}

/** A line has one width where it was drawn, before it was stretched. */
function stretchedLine(lines: readonly FlatPath[], width: number, style: StrokeStyle, stretched: Matrix): Region {
  const back = invert(stretched);
  const drawn = lines.map(({ ring, closed }) => ({ ring: transformRing(ring, back), closed }));
  return transformRegion(drawnRegion(drawn, width, style), stretched);
}
