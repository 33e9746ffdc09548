/**
 * How long the way to the cutter takes: files, fitted curves, the check of a large file, a pattern of many pages.
 */
import { checkDrawing, examine } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import { makeFile, readDrawing, writePattern } from "@mend-joint/core/formats";
import { circleRing, fitCurves, type Region, regionBox } from "@mend-joint/core/geometry";
import { STOCKS } from "@mend-joint/core/piece";
import { sheetOf } from "@mend-joint/core/report";
import type { shippedLibrary } from "@mend-joint/library";
import { median } from "./clock";
import { threeLines } from "./pieces";

type Report = (text: string, value: number, most: number, unit: string) => void;

export async function cutting(library: ReturnType<typeof shippedLibrary>, bar: Report): Promise<void> {
  const profile = PROFILES[0]!;
  const sheet = sheetOf(threeLines, examine(threeLines, library, { notes: false }));
  for (const format of ["svg", "dxf", "pdf"] as const) {
    bar(`three lines as ${format}`, await median(() => makeFile(threeLines, sheet, format, { profile }), 9, 3), 150, "ms");
  }

  // Twice as many corners of the same kind may take little more than twice as long.
  const wave = (n: number): Float64Array => {
    const points: number[] = [];
    for (let i = 0; i < n; i++) {
      const angle = (2 * Math.PI * i) / n;
      const r = n / 25 + Math.sin((angle * n) / 20);
      points.push(r * Math.cos(angle), r * Math.sin(angle));
    }
    return Float64Array.from(points);
  };
  const [small, large] = [
    await median(() => fitCurves(wave(4000), true), 7, 2),
    await median(() => fitCurves(wave(32_000), true), 7, 2),
  ];
  bar("fitting curves, growth from 4,000 to 32,000 corners over linear", large / small / 8, 2, "×");

  const rings = Array.from({ length: 500 }, (_, k) => {
    const [x, y] = [(k % 25) * 14 + 10, Math.floor(k / 25) * 14 + 10];
    return `<path d="M${Array.from({ length: 100 }, (_, i) => {
      const angle = (2 * Math.PI * i) / 100;
      const r = 5 + 0.6 * Math.sin(angle * 7);
      return `${(x + r * Math.cos(angle)).toFixed(3)} ${(y + r * Math.sin(angle)).toFixed(3)}`;
    }).join("L")}Z"/>`;
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="370mm" height="300mm" viewBox="0 0 370 300"><g fill="none" stroke="#f00" stroke-width="0.1"><path d="M0 0H370V300H0Z"/>${rings.join("")}</g></svg>`;
  const bytes = new TextEncoder().encode(svg);
  const check = async () => checkDrawing(await readDrawing(bytes), { stock: STOCKS[0]!, profile });
  bar("checking a file of 50,000 nodes", (await median(check, 3, 1)) / 1000, 3, "s");

  const large40: Region = sheet.material.map((ring) => ring.map((v) => v * 7));
  const box = regionBox(large40)!;
  const round = [...large40, circleRing((box.minX + box.maxX) / 2, box.minY - 90, 80)];
  bar("a pattern of forty pages and more", (await median(() => writePattern(round), 3, 1)) / 1000, 5, "s");
}
