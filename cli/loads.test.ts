/**
 * check FILE --loads / --push: the load test from a terminal.
 */
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoPiece } from "@mend-joint/demo";
import { describe, expect, it } from "vitest";
import { checkFile } from "./checking";
import { outcomeOf, outcomeOfProcess } from "./tests/outcome";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-loads-"));
const file = (name: string, content: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, typeof content === "string" ? content : JSON.stringify(content));
  return path;
};
const strip = file(
  "strip.svg",
  '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50"><rect id="strip" x="10" y="20" width="60" height="4"/></svg>',
);
/** The same, and a square that lies apart. */
const apart = file(
  "apart.svg",
  '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50"><rect id="strip" x="10" y="20" width="60" height="4"/><rect x="85" y="35" width="10" height="10"/></svg>',
);
const MATERIAL = ["--young", "3000", "--poisson", "0.35", "--thickness", "3"];
const run = async (...args: string[]) => {
  const { status, stdout, stderr } = await outcomeOf(checkFile, args);
  return { status, out: stdout.toString(), said: stderr.trim() };
};

describe("a push of anybody's own", () => {
  it("bends a strip in an SVG as F·l³/3EI says, in the file's own directions", async () => {
    const held = ["--support", "9,19,12,25", ...MATERIAL, "--json", "--min-width", "1"];
    const { status, out } = await run(strip, ...held, "--push", "70,22,0,2,0", "--push", "70,22,0,0,-1", "--push", "70,22,5,0,0");
    expect(status).toBe(0);
    const { pushes } = JSON.parse(out);
    const [plane, outOf, along] = pushes;
    const l = 58;
    const shear = l / ((5 / 6) * (3000 / 2.7) * 12);
    // Down in the file is down in the answer.
    expect(plane.displacement[1] / (2 * (l ** 3 / (3 * 3000 * 16) + shear))).toBeCloseTo(1, 1.7);
    expect(plane.worst.stress / ((6 * 2 * l) / (3 * 16))).toBeCloseTo(1, 1.7);
    expect(plane.worst.at[0]).toBeCloseTo(12, 0);
    expect(plane.worst.at[1]).toBeCloseTo(22, 0);
    expect(plane.worst.width).toBeCloseTo(4, 1);
    expect(outOf.displacement[2] / -(l ** 3 / (3 * 3000 * 9) + shear)).toBeCloseTo(1, 1.7);
    expect(along.displacement[0] / ((5 * l) / (3000 * 12))).toBeCloseTo(1, 1);
    expect(pushes.map(({ at }: { at: number[] }) => at)).toEqual(Array(3).fill([70, 22]));
  });

  it("takes figures below zero, with and without an equals sign", async () => {
    const args = [...MATERIAL, "--json", "--min-width", "1", "--push", "70,22,0,1,0"];
    const [one, other, third] = await Promise.all([
      run(strip, ...args, "--support", "-5,-3,12,25"),
      run(strip, ...args, "--support=-5,-3,12,25"),
      run(strip, ...args, "--support", "12,25,-5,-3"),
    ]);
    expect(JSON.parse(one.out).pushes[0].displacement[1]).toBeGreaterThan(0);
    expect([other.out, third.out]).toEqual([one.out, one.out]);
  });

  it.each([
    ["figures that are none", ["--push", "1,2,3"], "is not 5 numbers"],
    ["a support of three", ["--push", "1,1,0,1,0", "--support", "1,2,3"], "is not 4 numbers"],
    ["a push on what hangs on nothing", ["--push", "90,40,0,1,0", "--support", "9,19,12,25"], "hangs on nothing"],
    ["held beside the material", ["--push", "70,22,0,1,0", "--support", "90,40,95,45"], "No material lies where"],
    ["a Poisson number of a half", ["--push", "70,22,0,1,0", "--support", "9,19,12,25", "--poisson", "0.5"], "--poisson"],
    ["no stiffness", ["--push", "70,22,0,1,0", "--support", "9,19,12,25", "--young", "0"], "--young"],
  ])("%s: exit 2 and a sentence", async (_, args, says) => {
    const { status, said } = await run(says === "hangs on nothing" ? apart : strip, ...args);
    expect([status, said.split("\n").length]).toEqual([2, 1]);
    expect(said).toContain(says);
  });
});

describe("what letters take", () => {
  it("of a topper on its stick: each letter once, the weakest first, and no figure that is none", async () => {
    const { out } = await run(file("topper.json", demoPiece("boat-naming")), "--loads", "--json");
    const { loads, uses, parts, grams } = JSON.parse(out) as {
      grams: number;
      loads: { letter: string; takes: number; gets: number }[];
      uses: { use: string; takes: number; gets: number }[];
      parts: { id: string }[];
    };
    expect(loads.length).toBeGreaterThan(5);
    expect(new Set(loads.map(({ letter }) => letter)).size).toBe(loads.length);
    expect(loads.map(({ takes }) => takes)).toEqual(loads.map(({ takes }) => takes).sort((a, b) => a - b));
    expect(uses.map(({ use, gets }) => [use, gets])).toEqual([
      ["at the far end", 5],
      ["planting", 20],
      ["peeling", expect.closeTo(1.3, 0)],
      // Fifty times its weight.
      ["dropping", expect.closeTo(50 * (grams / 1000) * 9.80665, 3)],
    ]);
    // The far end of the piece is that of a letter.
    expect(uses[0]!.takes / loads[0]!.takes).toBeCloseTo(1, 1);
    for (const { letter, takes, gets } of loads) {
      expect(Number.isFinite(takes) && takes > 0).toBe(true);
      expect(gets).toBe(5);
      expect(parts.some(({ id }) => id === letter)).toBe(true);
    }
  });

  it("is said in lines for people, from a terminal too", () => {
    const path = file("stake.json", demoPiece("sea-kale"));
    const { stdout } = outcomeOfProcess("check", [path, "--loads"]);
    expect(stdout.toString()).toMatch(/(takes|gives way at) \d+\.\d N/);
    expect(stdout.toString()).toContain("Pushed into the soil with 20 N, a little askew, it ");
  });

  it("twice the strength takes twice the force", async () => {
    const piece = demoPiece("sea-kale");
    const strong = { ...piece, stock: { ...piece.stock, strength: 2 * piece.stock.strength } };
    const [one, two] = await Promise.all([
      run(file("one.json", piece), "--loads", "--json"),
      run(file("two.json", strong), "--loads", "--json"),
    ]);
    const takes = (out: string) => (JSON.parse(out) as { loads: { takes: number }[] }).loads.map(({ takes }) => takes);
    takes(two.out).forEach((force, i) => {
      expect(force / takes(one.out)[i]!).toBeCloseTo(2, 3);
    });
  });

  it("an outline that does not say how it is held is asked about; a holder of it is one", async () => {
    const { status, said } = await run(strip, "--push", "70,22,0,1,0");
    expect([status, said]).toEqual([2, "Say where it is held: --support X0,Y0,X1,Y1"]);
    const two = file(
      "two.svg",
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 20" width="60mm" height="20mm"><rect id="a" width="30" height="8"/><rect id="b" x="28" width="30" height="6"/></svg>',
    );
    const held = await run(two, "--holder", "a", "--push", "55,3,0,0,1", "--json");
    expect(JSON.parse(held.out).pushes[0].displacement[2]).toBeGreaterThan(0);
  });
});
