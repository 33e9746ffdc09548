/**
 * Random DXF files that ezdxf wrote, as we read them and as it reads them itself: all curves, blocks in blocks, mirrored, stretched and in
 * rows, weights, layers that are off.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, it } from "vitest";
import { freshSeed } from "../../tests/seed";
import { readDxf } from ".";

const COUNT = 25;
const SCRIPT = join(import.meta.dirname, "../../tests/randomDxf.py");
const python = (...words: string[]) => execFileSync("/usr/bin/python3", [SCRIPT, ...words], { encoding: "utf8", maxBuffer: 1e9 });

it("every line lies within 0.02 mm of where ezdxf has it, and every outline is closed", () => {
  const seed = freshSeed("random DXF files");
  const folder = mkdtempSync(join(tmpdir(), "mend-joint-dxf-"));
  try {
    python("make", folder, String(seed % 1e9), String(COUNT));
    const open: string[] = [];
    const read = [...Array(COUNT).keys()].map((i) => {
      const layers: Record<string, number[][][]> = {};
      for (const { layer, subpaths } of readDxf(readFileSync(join(folder, `${i}.dxf`), "utf8")).shapes) {
        for (const { ring, closed } of subpaths) {
          if (!closed) open.push(`file ${i}: ${layer}`);
          // y runs downwards in what was read.
          const places = Array.from({ length: ring.length / 2 + 1 }, (_, k) => (2 * k) % ring.length);
          const line = places.map((at) => [ring[at]!, -ring[at + 1]!]);
          layers[layer!] = [...(layers[layer!] ?? []), line];
        }
      }
      return layers;
    });
    writeFileSync(join(folder, "read.json"), JSON.stringify(read));
    const faults: string[][] = JSON.parse(python("compare", folder));
    expect(faults.flatMap((each, i) => each.map((fault) => `file ${i}: ${fault}`))).toEqual([]);
    expect(open).toEqual([]);
    // The comparison has something to compare.
    expect(read.filter((layers) => Object.keys(layers).length > 1).length).toBeGreaterThan(COUNT / 2);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
