/**
 * The core remembers only in what somebody holds: an examiner, a library's memory, a font. A module has no state.
 */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";

const CORE = join(import.meta.dirname, "..");
const sources = readdirSync(CORE, { recursive: true, encoding: "utf8" }).filter(
  (file) => /\.ts$/.test(file) && !/\.test\.ts$|\.d\.ts$|^tests\/|\/node_modules\//.test(file),
);

/** At the margin of a file: a variable, or a collection that is empty at first. */
const STATE = /^(export )?(let\b|const \w+(: [^=]+)? = new (Weak|QuickLRU|(Map|Set)(<[^=]*>)?\(\)))/m;

it("finds what it looks for", () => {
  for (const line of ["let last = 0;", "const known = new Map<string, number[]>();", "const a = new WeakMap<Font, X>();"])
    expect(line).toMatch(STATE);
  for (const line of [
    "const NAMES = new Set(['a']);",
    "  let inside = 0;",
    "const known: ReadonlyMap<string, X> = new Map(all);",
  ])
    expect(line).not.toMatch(STATE);
  expect(sources.length).toBeGreaterThan(200);
});

it("no module of the core has state", () => {
  expect(sources.filter((file) => STATE.test(readFileSync(join(CORE, file), "utf8")))).toEqual([]);
});
