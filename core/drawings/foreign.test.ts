/**
 * What lies on the bench against what other libraries make of the same files: ezdxf flattens its own curves; what librsvg and cairo wrote is
 * compared with the plane geometry of the shapes that they were given.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { readDrawing } from "../formats";
import { normalise, type Region, regionBox, translateRegion } from "../geometry";
import { drawingShape } from "../holders";
import { outlineDistance } from "../tests/distance";
import { chooseOutlines, findOutlines } from "./bringIn";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-foreign-"));
/** Hausdorff distance that is allowed, mm. */
const NEAR = 0.01;

/** The file as a part of a piece, at its own size, about the middle of its box. */
async function onTheBench(file: Uint8Array): Promise<Region> {
  const found = findOutlines(await readDrawing(file));
  const { outline, height } = chooseOutlines(found, [...found.outlines.keys()]);
  return drawingShape({ outline, height, turn: 0, mirror: false, thicken: 0, round: 0 });
}

/** @param rings y upwards */
function centred(rings: readonly (readonly number[])[]): Region {
  const region = normalise(
    rings.map((ring) => Float64Array.from(ring)),
    "evenodd",
  );
  const { minX, minY, maxX, maxY } = regionBox(region)!;
  return translateRegion(region, -(minX + maxX) / 2, -(minY + maxY) / 2);
}

describe("DXF written and flattened by ezdxf", () => {
  const WRITE = `
import sys, json, ezdxf
from ezdxf import units
doc = ezdxf.new("R2010")
doc.units = units.MM
m = doc.modelspace()
m.add_lwpolyline([(10, 0, 0, 0, 0), (0, 10, 0, 0, -0.41421356), (0, 60, 0, 0, -0.3), (20, 75, 0, 0, 0), (110, 75, 0, 0, -0.6), (130, 40, 0, 0, 0), (120, 0, 0, 0, 0)], close=True)
m.add_circle((30, 40), 12.3)
m.add_ellipse((75, 45), major_axis=(17, 6), ratio=0.4)
s = m.add_spline(dxfattribs={"degree": 3})
s.set_open_uniform([(100, 20, 0), (108, 12, 0), (118, 22, 0), (112, 32, 0), (102, 28, 0), (100, 20, 0)], degree=3)
b = doc.blocks.new("leaf", base_point=(2, 1))
b.add_lwpolyline([(0, 0, 0, 0, 0.5), (10, 0, 0, 0, 0.5)], close=True)
m.add_blockref("leaf", (150, 30), dxfattribs={"xscale": 2, "yscale": 2, "rotation": 33})
doc.saveas(sys.argv[1])
def points(e):
    """Places on the entity itself (its path would be Bézier curves, 0.03 % of a radius beside an arc)."""
    if e.dxftype() == "LINE": return [e.dxf.start, e.dxf.end]
    if e.dxftype() != "LWPOLYLINE": return list(e.flattening(0.0003))
    chain = []
    for side in e.virtual_entities():
        own = points(side)
        if chain and (own[-1] - chain[-1]).magnitude < (own[0] - chain[-1]).magnitude: own.reverse()
        chain += own if not chain else own[1:]
    return chain
rings = []
for e in m:
    for each in (e.virtual_entities() if e.dxftype() == "INSERT" else [e]):
        rings.append([c for v in points(each) for c in (v.x, v.y)])
print(json.dumps(rings))
`;

  it("lies within 0.01 mm of it: bulges, circles, ellipses, splines, turned and scaled blocks", async () => {
    const file = join(folder, "written.dxf");
    const rings = JSON.parse(execFileSync("/usr/bin/python3", ["-c", WRITE, file], { encoding: "utf8" })) as number[][];
    expect(rings).toHaveLength(5);
    expect(outlineDistance(await onTheBench(readFileSync(file)), centred(rings))).toBeLessThan(NEAR);
  });
});

describe("drawings written by librsvg with cairo", () => {
  const turned =
    (degrees: number, cx: number, cy: number) =>
    (x: number, y: number): [number, number] => {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      return [cx + c * (x - cx) - s * (y - cy), cy + s * (x - cx) + c * (y - cy)];
    };
  const round = (at: (angle: number) => [number, number]) => Array.from({ length: 4000 }, (_, i) => at((2 * Math.PI * i) / 4000));
  const corners = (x: number, y: number, w: number, h: number): [number, number][] => [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
  /** The shapes as they are drawn, and by their formulas, mm, y downwards. */
  const DRAWN = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="160mm" height="100mm" viewBox="0 0 160 100">
    <defs><g id="pin"><circle cx="5" cy="5" r="4"/></g></defs>
    <g transform="rotate(20 50 50)"><path fill-rule="evenodd" d="M20 30H80V70H20ZM30 40V60H70V40Z"/></g>
    <g transform="translate(100 10) scale(2.5 1.5)"><use xlink:href="#pin"/></g>
    <path d="M110 60A15 15 0 0 1 140 60L140 85L110 85Z"/></svg>`;
  const lean = turned(20, 50, 50);
  const SHAPES: [number, number][][] = [
    corners(20, 30, 60, 40).map(([x, y]) => lean(x, y)),
    corners(30, 40, 40, 20).map(([x, y]) => lean(x, y)),
    round((angle) => [100 + 2.5 * (5 + 4 * Math.cos(angle)), 10 + 1.5 * (5 + 4 * Math.sin(angle))]),
    [
      ...Array.from({ length: 2001 }, (_, i): [number, number] => {
        const angle = Math.PI + (Math.PI * i) / 2000;
        return [125 + 15 * Math.cos(angle), 60 + 15 * Math.sin(angle)];
      }),
      [140, 85],
      [110, 85],
    ],
  ];
  const expected = centred(SHAPES.map((ring) => ring.flatMap(([x, y]) => [x, -y])));

  it("by hand, as the SVG that they were given", async () => {
    expect(outlineDistance(await onTheBench(new TextEncoder().encode(DRAWN)), expected)).toBeLessThan(NEAR);
  });

  it.each(["svg", "pdf"])("as %s lies within 0.01 mm of the formulas", async (format) => {
    const file = execFileSync("rsvg-convert", ["--format", format], { input: DRAWN, maxBuffer: 1e8 });
    expect(outlineDistance(await onTheBench(file), expected)).toBeLessThan(NEAR);
  });
});
