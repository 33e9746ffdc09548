/**
 * run DESIGN --list: from a list of names to checked pieces and sheets, as the README says.
 */
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readSvg } from "@mend-joint/core/formats";
import { islandsOf, normalise, type Region, regionBox } from "@mend-joint/core/geometry";
import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import DistanceOp from "jsts/org/locationtech/jts/operation/distance/DistanceOp.js";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { checkFile } from "./checking";
import { runList } from "./running";
import { outcomeOf, outcomeOfProcess } from "./tests/outcome";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-run-"));
let lists = 0;
const listOf = (text: string) => {
  const path = join(folder, `list-${++lists}.csv`);
  writeFileSync(path, text);
  return path;
};
const run = async (design: string, list: string, ...more: string[]) => {
  const out = join(folder, `out-${++lists}`);
  const { status, stdout, stderr } = await outcomeOf(runList, [design, "--list", list, "--out", out, "--seconds", "0", ...more]);
  return { status, out, said: stderr, told: stdout.toString() };
};

interface Facts {
  rows: {
    row: number;
    texts: string[];
    verdict: string;
    before: string;
    thinnest: number | null;
    file: string | null;
    mends: string[];
    problems: string[];
    places: { sheet: number; place: number }[];
  }[];
  sheets: { file: string; pieces: number }[];
}
const factsIn = (out: string): Facts => JSON.parse(readFileSync(join(out, "verdicts.json"), "utf8"));
const csv = (path: string) =>
  Papa.parse<Record<string, string>>(readFileSync(path, "utf8"), { header: true, skipEmptyLines: true }).data;

const NAMES = "Name,How many,Note\r\nIsolde,2,\r\nJiří,1,\r\nZoë,1,gate\r\nBjørn,1,\r\nKit,1,\r\nÁngela,1,\r\n";

/** Separate pieces of what is cut on a sheet, mm. */
function piecesOn(svg: string): Region[] {
  const { shapes } = readSvg(svg);
  return islandsOf(
    normalise(
      shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)),
      "evenodd",
    ),
  );
}

describe("a list of names", () => {
  it("becomes checked pieces on sheets: none is lost, none nearer than the gap (by the JTS Topology Suite), each as it is alone", async () => {
    const { status, out, said, told } = await run(
      "plant-stake",
      listOf(NAMES),
      "--mend",
      "--sheet",
      "200x150",
      "--gap",
      "2.5",
      "--margin",
      "4",
    );
    expect([status, said]).toEqual([0, ""]);
    const { rows, sheets } = factsIn(out);
    expect(told).toContain(`6 of 6 hold. ${sheets.length} sheets`);
    expect(rows.map(({ places }) => places.length)).toEqual([2, 1, 1, 1, 1, 1]);
    for (const { file, verdict, mends, before } of rows) {
      const alone = await outcomeOf(checkFile, [join(out, file!), "--json"]);
      expect(JSON.parse(alone.stdout.toString()).verdict).toBe(verdict);
      if (before !== "holds") expect(mends.length).toBeGreaterThan(0);
    }
    const reader = new GeoJSONReader();
    let count = 0;
    for (const { file, pieces } of sheets) {
      const svg = readFileSync(join(out, file), "utf8");
      expect(svg).toMatch(/width="200mm" height="150mm"/);
      const cut = piecesOn(svg);
      expect(cut).toHaveLength(pieces);
      count += cut.length;
      const shapes = cut.map((piece) => {
        const { minX, minY, maxX, maxY } = regionBox(piece)!;
        expect(Math.min(minX, 200 - maxX)).toBeGreaterThan(4 - 0.03);
        expect(Math.min(Math.abs(minY), Math.abs(maxY))).toBeGreaterThan(4 - 0.03);
        const coordinates = piece.map((ring) => {
          const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!]);
          return [...points, points[0]!];
        });
        return reader.read({ type: "Polygon", coordinates });
      });
      shapes.forEach((shape, i) => {
        // Curves in files lie within 0.02 mm of what was measured, on both sides.
        for (const other of shapes.slice(0, i)) expect(DistanceOp.distance(shape, other)).toBeGreaterThan(2.5 - 0.05);
      });
    }
    expect(count).toBe(7);
    const list = csv(join(out, "cut-list.csv"));
    expect(list).toHaveLength(7);
    expect(list.find(({ name }) => name === "Zoë")).toMatchObject({ note: "gate", verdict: "holds" });
  });

  it("what fails is listed and not cut; formulas come back as text", async () => {
    const list = listOf('name,count\nJiří,1\n"=HYPERLINK(""x"")",1\nKit,1\n');
    const bare = await run("plant-stake", list);
    expect(bare.status).toBe(1);
    expect(bare.said).toContain("Row 2");
    expect(bare.said).toContain("is a formula");
    const { rows, sheets } = factsIn(bare.out);
    for (const { verdict, places } of rows) expect(places.length).toBe(verdict === "holds" ? 1 : 0);
    expect(sheets.reduce((sum, { pieces }) => sum + pieces, 0)).toBe(rows.filter(({ verdict }) => verdict === "holds").length);
    expect(csv(join(bare.out, "verdicts.csv"))[1]!["line 1"]).toBe('\'=HYPERLINK("x")');
    expect(readdirSync(join(bare.out, "pieces"))).toHaveLength(2);
  });

  it("larger than the sheet is told with its size", async () => {
    const { status, out, told } = await run("nameplate", listOf("Kit\n"), "--sheet", "100x90");
    const { rows, sheets } = factsIn(out);
    expect(sheets).toEqual([]);
    expect(rows[0]!.problems.join()).toMatch(/larger than the sheet of 100 × 90 mm/);
    expect([status, told]).toEqual([1, expect.stringContaining("0 sheets")]);
  });

  it.each([
    ["no design", ["nowhere.json"], "there is no such file; beginnings are topper"],
    ["no list", ["topper", "--list", "nowhere.csv"], "there is no such file"],
    ["a sheet of no size", ["topper", "--sheet", "0x400"], "is not a size"],
    ["a margin without room", ["topper", "--sheet", "50x50", "--margin", "30"], "leaves no room"],
    ["an unknown format", ["topper", "--format", "png"], "is none of svg, dxf, pdf"],
  ])("%s: exit 2 and a sentence", async (_, args, says) => {
    const usual = ["--list", listOf("Kit\n"), "--out", join(folder, "none")];
    const { status, stderr } = await outcomeOf(runList, [...usual, ...args]);
    expect([status, stderr.trim().split("\n").length]).toEqual([2, 1]);
    expect(stderr).toContain(says);
  });

  it("from a terminal, as DXF", () => {
    const out = join(folder, "terminal");
    const { status, stdout } = outcomeOfProcess("run", [
      "key-ring",
      "--list",
      listOf("Kit\nFfion\n"),
      "--mend",
      "--format",
      "dxf",
      "--seconds",
      "0",
      "--out",
      out,
    ]);
    expect([status, stdout.toString()]).toEqual([0, expect.stringContaining("2 of 2 hold. 1 sheet")]);
    expect(readFileSync(join(out, "sheet-1.dxf"), "latin1")).toContain("SECTION");
  });

  it("holding tabs are left on every outline of the sheets, where they are asked for", async () => {
    const { status, out } = await run("key-ring", listOf("Kit\n"), "--mend", "--tabs", "3");
    expect(status).toBe(0);
    const cut = /<g id="cut"[\s\S]*?<\/g>/.exec(readFileSync(join(out, "sheet-1.svg"), "utf8"))![0];
    expect(cut.split("M").length).toBeGreaterThan(2 * cut.split("Z").length);
    expect((await run("key-ring", listOf("Kit\n"), "--tabs", "many")).said).toContain(
      '--tabs "many" is not a number from 0 to 20',
    );
  });
});
