/**
 * The paper pattern: true size on every page, pages that fit together again, measured as another program draws them.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { circleRing, difference, fitCurves, flatten, type Region, regionBox, translateRegion, union } from "../geometry";
import { rectangle } from "../tests/shapes";
import { EDGE, FOOT, PAPERS, PatternError, patternLayout, writePattern } from "./index";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-pattern-"));
const DPI = 300;

async function drawn(name: string, region: Region, options: object): Promise<string> {
  const path = join(folder, `${name}.pdf`);
  writeFileSync(path, await writePattern(region, options));
  return path;
}

/**
 * Reads pages as poppler draws them, lays them together as the layout says, and measures every dark place of the outlines against the
 * exact ones; also the other way round, and the ruler on every page.
 */
const REASSEMBLE = `
import sys, json, subprocess, numpy as np
from scipy.spatial import cKDTree
from PIL import Image
pdf, spec = sys.argv[1], json.load(open(sys.argv[2]))
dpi = spec["dpi"]; mm = dpi / 25.4
subprocess.run(["pdftoppm", "-r", str(dpi), "-gray", "-aa", "no", pdf, pdf], check=True)
L = spec["layout"]; pages = L["columns"] * L["rows"]
W = L["window"]["width"] + (L["columns"] - 1) * L["step"]["x"]; H = L["window"]["height"] + (L["rows"] - 1) * L["step"]["y"]
sheet = np.zeros((int(H * mm) + 40, int(W * mm) + 40), bool)
import glob
files = sorted(glob.glob(pdf + "-*.pgm")); rulers = []
for k, f in enumerate(files):
    im = np.array(Image.open(f)) < 128
    row = L["rows"] - 1 - k // L["columns"]; col = k % L["columns"]
    e, foot = spec["edge"], spec["foot"]
    ph = im.shape[0]
    x0 = int(round(e * mm)); y1 = ph - int(round((e + foot) * mm)); y0 = y1 - int(round(L["window"]["height"] * mm)); x1 = x0 + int(round(L["window"]["width"] * mm))
    win = im[y0 + 4:y1 - 4, x0 + 4:x1 - 4]
    ty = int(round((H - row * L["step"]["y"] - L["window"]["height"]) * mm)) + 4; tx = int(round(col * L["step"]["x"] * mm)) + 4
    sheet[ty:ty + win.shape[0], tx:tx + win.shape[1]] |= win
    line = im[ph - int(round((e + 1) * mm)) - 3: ph - int(round((e + 1) * mm)) + 4]
    cols = np.where(line.any(axis=0))[0]
    best = 0; start = None; prev = None
    for c in cols:
        if prev is None or c != prev + 1: start = c
        best = max(best, c - start + 1); prev = c
    rulers.append(best / mm)
exact = np.zeros_like(sheet)
for ring in spec["rings"]:
    pts = np.array(ring).reshape(-1, 2); nxt = np.roll(pts, -1, axis=0)
    for a, b in zip(pts, nxt):
        n = max(2, int(np.hypot(*(b - a)) * mm * 2))
        t = np.linspace(0, 1, n)[:, None]; p = a + (b - a) * t
        xs = np.round((p[:, 0] - L["start"]["x"]) * mm).astype(int); ys = np.round((H - (p[:, 1] - L["start"]["y"])) * mm).astype(int)
        exact[np.clip(ys, 0, sheet.shape[0] - 1), np.clip(xs, 0, sheet.shape[1] - 1)] = True
dark, wanted = np.argwhere(sheet), np.argwhere(exact)
farthest = lambda these, those: float(cKDTree(those).query(these)[0].max() / mm)
print(json.dumps({"pages": len(files), "expected": pages, "rulers": rulers, "missing": farthest(wanted, dark), "strange": farthest(dark, wanted)}))
`;

interface Measured {
  pages: number;
  expected: number;
  rulers: number[];
  missing: number;
  strange: number;
}

function measured(pdf: string, region: Region, layout: object): Measured {
  const spec = `${pdf}.json`;
  const rings = region.flatMap((ring) => {
    const path = fitCurves(ring, true);
    return path ? [[...flatten(path, 0.005)]] : [];
  });
  writeFileSync(spec, JSON.stringify({ dpi: DPI, layout, rings, edge: EDGE, foot: FOOT }));
  const said = execFileSync("/usr/bin/python3", ["-c", REASSEMBLE, pdf, spec], { encoding: "utf8", maxBuffer: 1e8 });
  return JSON.parse(said) as Measured;
}

const atOrigin = (region: Region) => {
  const box = regionBox(region)!;
  return translateRegion(region, -box.minX, -box.minY);
};

describe("pages laid together again", () => {
  it("a sign over several pages: the outline is there, within a pixel of 300 dpi, and the rulers are 100 mm", async () => {
    const { material } = examine(demoPiece("harbour-gate"), shippedLibrary(), { notes: false });
    const box = regionBox(material)!;
    const large = atOrigin(material).map((ring) => ring.map((v) => v * 2));
    const [width, height] = [(box.maxX - box.minX) * 2, (box.maxY - box.minY) * 2];
    const layout = patternLayout(width, height, { landscape: true });
    expect(layout.columns * layout.rows).toBeGreaterThan(1);
    // Without joining marks' own lines nothing but the outline may be dark: they are looked for in the other test.
    const pdf = await drawn("gate", large, { landscape: true, hatch: false });
    const { pages, expected, rulers, missing } = measured(pdf, large, layout);
    expect(pages).toBe(expected);
    expect(missing).toBeLessThan(1.5 / (DPI / 25.4) + 0.05);
    for (const ruler of rulers) expect(Math.abs(ruler - 100)).toBeLessThan(0.25);
  });

  it("on a single page there is nothing but the outline", async () => {
    const plate = difference([rectangle(0, 0, 120, 80)], [circleRing(60, 40, 25)]);
    const layout = patternLayout(120, 80);
    expect([layout.columns, layout.rows]).toEqual([1, 1]);
    const { missing, strange } = measured(await drawn("plate", plate, { hatch: false }), plate, layout);
    expect(missing).toBeLessThan(0.2);
    expect(strange).toBeLessThan(0.25);
  });

  it("hatching lies in the voids alone; start holes stand in their middles", async () => {
    const plate = difference([rectangle(0, 0, 120, 80)], union([[circleRing(30, 40, 20)], [rectangle(70, 20, 40, 40)]]));
    const { strange } = measured(await drawn("hatched", plate, { hatch: true, drill: 2 }), plate, patternLayout(120, 80));
    // Dark places are now up to the middle of the voids, and not in the material.
    expect(strange).toBeGreaterThan(10);
    expect(strange).toBeLessThan(21);
  });
});

describe("layout", () => {
  it.each(["a4", "letter"] as const)("%s pages have their size for poppler, upright and across", async (paper) => {
    for (const landscape of [false, true]) {
      const info = execFileSync(
        "pdfinfo",
        [await drawn(`${paper}-${landscape}`, [rectangle(0, 0, 50, 50)], { paper, landscape })],
        { encoding: "utf8" },
      );
      const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
      const size = [PAPERS[paper].width, PAPERS[paper].height];
      if (landscape) size.reverse();
      expect(Number(width)).toBeCloseTo((size[0]! * 72) / 25.4, 1);
      expect(Number(height)).toBeCloseTo((size[1]! * 72) / 25.4, 1);
    }
  });

  it("neighbours show the same over the overlap, and all of the piece is on some page", () => {
    for (const [width, height] of [
      [10, 10],
      [188, 250],
      [400, 100],
      [900, 1200],
    ]) {
      const { columns, rows, step, window, start } = patternLayout(width!, height!, { overlap: 12 });
      expect(window.width - step.x).toBeCloseTo(12, 9);
      expect(start.x).toBeLessThan(0);
      expect(start.x + (columns - 1) * step.x + window.width).toBeGreaterThan(width!);
      expect(start.y + (rows - 1) * step.y + window.height).toBeGreaterThan(height!);
    }
  });

  it("says its name, page and scale in letters that every reader has; too many pages are refused", async () => {
    const pdf = await drawn("named", [rectangle(0, 0, 300, 50)], { title: "Jiří — Ελλάδα", note: "walnut 6 mm", grain: 0 });
    const text = execFileSync("pdftotext", [pdf, "-"], { encoding: "utf8" });
    expect(text).toContain("Jirí");
    expect(text).toContain("walnut 6 mm");
    expect(text).toContain("page 2 of 2");
    expect(text).toContain("100 mm");
    expect(text).toContain("4 in");
    expect(text).toContain("grain");
    expect(() => patternLayout(5000, 5000)).toThrow(PatternError);
    await expect(writePattern([])).rejects.toThrow("nothing to cut");
  });
});
