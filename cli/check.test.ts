import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoPiece } from "@mend-joint/demo";
import { expect, it } from "vitest";
import { checkFile } from "./checking";
import { outcomeOf, outcomeOfProcess } from "./tests/outcome";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-"));

const told = <Told extends { stdout: Buffer }>(outcome: Told) => ({ ...outcome, stdout: outcome.stdout.toString("utf8") });
const check = async (...args: string[]) => told(await outcomeOf(checkFile, args));
const checkFromTerminal = (...args: string[]) => told(outcomeOfProcess("check", args));

function file(name: string, content: string): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

const drawing = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20">${body}</svg>`;
const DISCS = '<circle id="A" cx="6" cy="8" r="5"/><circle id="B" cx="15.5" cy="8" r="5"/>';

it("exits with 0 for what holds and prints one JSON document", () => {
  const { status, stdout, stderr } = checkFromTerminal(
    file("holds.svg", drawing(DISCS)),
    "--min-width",
    "2",
    "--holder",
    "A",
    "--json",
  );
  expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
  const report = JSON.parse(stdout);
  expect(report).toMatchObject({ verdict: "holds", minWidth: 2, solids: 1, findings: [] });
  expect(report.parts.find((part: { id: string }) => part.id === "B").hold).toBeCloseTo(3.1225, 2);
});

it("exits with 1 for what is weak or falls, and says it in words", async () => {
  const weak = checkFromTerminal(file("weak.svg", drawing(DISCS)), "--min-width", "4mm", "--holder", "A");
  expect(weak.status).toBe(1);
  expect(weak.stdout).toContain("The joint A–B is only 3.1 mm; it wants 4.0 mm.");
  const falls = await check(file("falls.svg", drawing(`${DISCS}<circle id="C" cx="30" cy="8" r="3"/>`)));
  expect(falls.status).toBe(1);
  expect(falls.stdout).toContain("C is not joined.");
});

it("examines piece files, with another sheet if told so", async () => {
  const [nameplate, topper] = [demoPiece("harbour-office"), demoPiece("boat-naming")];
  const plate = file("nameplate.json", JSON.stringify(nameplate));
  expect((await check(plate)).status).toBe(0);
  expect((await check(plate, "--min-width", "9", "--stock", "mdf-3")).status).toBe(1);
  const { status, stdout } = await check(file("topper.json", JSON.stringify(topper)), "--json");
  expect(status).toBe(1);
  const kinds = JSON.parse(stdout).findings.map((finding: { kind: string }) => finding.kind);
  expect(kinds.slice(0, 2)).toEqual(["loose", "loose"]);
});

it.each([
  ["no file named", [], "Usage"],
  ["a file that is not there", ["nowhere.svg"], "no such file"],
  ["a folder", ["/"], "folder"],
  ["an unknown option", ["x.svg", "--loud"], "--loud"],
  ["a width that is none", [file("a.svg", drawing(DISCS)), "--min-width", "thick"], "thick"],
  ["a width of zero", [file("a.svg", drawing(DISCS)), "--min-width", "0"], "between 0 and 100"],
  ["an unknown stock", [file("a.svg", drawing(DISCS)), "--stock", "jelly"], "jelly"],
  ["an unknown holder", [file("a.svg", drawing(DISCS)), "--holder", "Z"], '"Z"'],
  ["a broken SVG", [file("b.svg", '<svg><path d="M0'), "--json"], "well-formed"],
  ["an SVG without shapes", [file("c.svg", drawing("<text>Kit</text>"))], "no shapes"],
  ["a broken piece file", [file("d.json", '{"name":')], "neither"],
  ["a DXF damaged beyond recognition", [file("f.dxf", "SECTION\n2\n")], "nor a DXF in text form"],
  ["a piece file with a fault", [file("e.json", '{"name":"x","stock":{},"parts":[]}')], "stock"],
])(
  "exits with 2 and one clear line for %s",
  async (_, args, says) => {
    const { status, stdout, stderr } = await check(...args);
    expect(status).toBe(2);
    expect(stdout).toBe("");
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).toContain(says);
  },
  30_000,
);

it("exits with 2 from a terminal too", () => {
  const { status, stdout, stderr } = checkFromTerminal("nowhere.svg");
  expect([status, stdout]).toEqual([2, ""]);
  expect(stderr).toContain("no such file");
});

it("examines outlines of 100,000 corners, and tells on the error stream how far it is", async () => {
  const wave = (cx: number) => {
    const points = Array.from({ length: 10_000 }, (_, i) => {
      const angle = (i / 10_000) * 2 * Math.PI;
      const r = 12 + Math.sin(17 * angle) + 0.02 * Math.sin(211 * angle);
      return `${(cx + r * Math.cos(angle)).toFixed(4)} ${(20 + r * Math.sin(angle)).toFixed(4)}`;
    });
    return `<path id="p${cx}" d="M${points.join("L")}Z"/>`;
  };
  const body = Array.from({ length: 10 }, (_, k) => wave(20 + 18 * k)).join("");
  const { status, stdout, stderr } = await check(file("large.svg", drawing(body)), "--json");
  expect(status).toBe(0);
  expect(JSON.parse(stdout).parts).toHaveLength(10);
  expect(stderr).toContain("measure …");
});

it("takes white over a filled shape as a hole, and asks whether shapes that are only drawn as lines are to be cut", async () => {
  const ring = '<circle cx="10" cy="10" r="9"/><circle cx="10" cy="10" r="6" fill="white"/>';
  expect((await check(file("ring.svg", drawing(ring)))).status).toBe(0);
  const island = await check(file("island.svg", drawing(`${ring}<circle id="dot" cx="10" cy="10" r="3"/>`)));
  expect(island.status).toBe(1);
  expect(island.stdout).toMatch(/Dot is not joined[\s\S]*Note: White that is painted over a filled shape is taken as a hole/);
  const lines = file("lines.svg", drawing(`<g fill="none" stroke="red">${DISCS}</g>`));
  expect((await check(lines)).stdout).toContain("say --lines");
  expect((await check(lines, "--lines")).stdout).not.toContain("say --lines");
});
