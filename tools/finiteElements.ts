/**
 * npm run solids: the solids that the load test's frames are compared with, by finite elements. Needs Debian's python3-gmsh and
 * calculix-ccx, and some twenty minutes. Its results are kept, so that tests need neither.
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { measureWidths } from "../core/measure";
import { solidCases } from "../core/tests/solids/cases";

const FOLDER = join(import.meta.dirname, "../core/tests/solids");
const [wanted] = process.argv.slice(2);

const cases = solidCases()
  .filter(({ name }) => wanted === undefined || name.includes(wanted))
  .map((each) => {
    const { x, y, width } = measureWidths(each.region).medial();
    return { ...each, region: each.region.map((ring) => [...ring]), widths: x.map((_, i) => [x[i], y[i], width[i]]) };
  });
const { status, stdout, error } = spawnSync("/usr/bin/python3", [join(FOLDER, "finiteElements.py")], {
  input: JSON.stringify(cases),
  encoding: "utf8",
  maxBuffer: 1e9,
  stdio: ["pipe", "pipe", "inherit"],
});
if (status !== 0) throw error ?? new Error("The finite elements could not be worked out; see the lines above.");
const round = (_: string, value: unknown) => (typeof value === "number" ? Number(value.toPrecision(5)) : value);
const results = JSON.stringify(JSON.parse(stdout), round, 1);
if (wanted === undefined) writeFileSync(join(FOLDER, "results.json"), `${results}\n`);
else console.log(results);
