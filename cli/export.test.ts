/**
 * export FILE: every format from a terminal, as the README says.
 */
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { PROFILES } from "@mend-joint/core/cut";
import { demoPiece } from "@mend-joint/demo";
import { describe, expect, it } from "vitest";
import { exportFile } from "./exporting";
import { outcomeOf, outcomeOfProcess } from "./tests/outcome";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-export-"));
const file = (name: string, content: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, typeof content === "string" ? content : JSON.stringify(content));
  return path;
};
const key = file("key.json", demoPiece("ferry-key"));

const told = ({ status, stdout, stderr }: ReturnType<typeof outcomeOfProcess>) => ({
  code: status,
  out: stdout,
  err: stderr.trim(),
});
const run = async (...args: string[]) => told(await outcomeOf(exportFile, args));
const runFromTerminal = (...args: string[]) => told(outcomeOfProcess("export", args));

describe("formats", () => {
  it.each([
    ["svg", /^<svg[\s\S]*<g id="engrave"[\s\S]*<g id="cut"/],
    ["dxf", /^\s*0\r?\nSECTION[\s\S]*EOF/],
    ["pdf", /^%PDF-/],
    ["pattern", /^%PDF-/],
    ["png", /^\u0089PNG/],
  ])("%s goes to standard output", async (format, begins) => {
    const { code, out, err } = await run(key, "--format", format);
    expect([code, err]).toEqual([0, ""]);
    expect(out.toString("latin1")).toMatch(begins);
  });

  it("or into a file, with the piece in it, by a profile of one's own, as lines", async () => {
    const profile = file("shed.json", {
      ...PROFILES[1],
      id: "shed",
      lines: { ...PROFILES[1]!.lines, cut: { colour: "#00aa00", layer: "through" } },
    });
    const out = join(folder, "out.svg");
    const { code } = await run(key, "--format", "svg", "--out", out, "--source", "--profile", profile, "--tabs", "2");
    expect(code).toBe(0);
    const text = readFileSync(out, "utf8");
    expect(text).toContain('id="through" fill="none" stroke="#00aa00"');
    expect(text).toContain('<metadata id="mend-joint-piece">');
    expect(text).not.toContain('fill-rule="evenodd"');
  });
});

describe("refusals are one line", () => {
  it.each([
    [[], "Usage"],
    [[key], '--format ""'],
    [[key, "--format", "gif"], "none of svg"],
    [[join(folder, "none.json"), "--format", "svg"], "no such file"],
    [[file("broken.json", "{"), "--format", "svg"], "not a piece file"],
    [[key, "--format", "svg", "--profile", "nobody"], "There is no profile"],
    [[key, "--format", "pattern", "--paper", "a9"], "There is no paper"],
    [[key, "--format", "svg", "--tabs", "many"], "not a number"],
    [[key, "--format", "svg", "--out", join(folder, "no", "where.svg")], "cannot be written"],
  ])("%j", async (args, says) => {
    const { code, err } = await run(...args);
    expect(code).toBe(2);
    expect(err.split("\n")).toHaveLength(1);
    expect(err).toContain(says);
  });

  it("what falls is not written unless it is said so", async () => {
    const piece = demoPiece("sea-kale");
    const loose = file("loose.json", {
      ...piece,
      parts: piece.parts.filter(({ kind }) => kind === "word").map((part) => ({ ...part, tracking: 9 })),
    });
    const { code, err, out } = runFromTerminal(loose, "--format", "svg");
    expect([code, out.length]).toEqual([1, 0]);
    expect(err).toContain("Nothing was written, for something falls");
    const anyway = runFromTerminal(loose, "--format", "svg", "--anyway");
    expect(anyway.code).toBe(0);
    expect(anyway.out.toString("utf8")).toMatch(/^<svg/);
  });
});
