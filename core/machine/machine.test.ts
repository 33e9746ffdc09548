/**
 * How a job runs, by the clock and by what comes free.
 */
import { describe, expect, it } from "vitest";
import { PROFILES, speedsFor } from "../cut";
import { readSvg } from "../formats";
import { STOCKS } from "../piece";
import { headAt, isRefused, type Job, playJob, readJob } from "./index";

const MM = 'xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"';
const speeds = { ...speedsFor(STOCKS[0]!), cut: 10, score: 40, travel: 100, pierce: 1, pitch: 0.1, engrave: 200 };
function jobOf(body: string): Job {
  const job = readJob(readSvg(`<svg ${MM}><g fill="none" stroke="#ff0000" stroke-width="0.1">${body}</g></svg>`), PROFILES[0]!);
  if (isRefused(job)) throw new Error(job.refused.join(" "));
  return job;
}

describe("a job", () => {
  it("takes its length by its speed, a pierce for every cut, and the way between", () => {
    const run = playJob(jobOf('<rect x="10" y="10" width="30" height="20"/>'), speeds);
    expect(run.lengths.cut).toBeCloseTo(100, 6);
    expect(run.seconds).toBeCloseTo(Math.hypot(10, 10) / 100 + 1 + 10, 6);
  });

  it("scores before it cuts, whatever the order of the file", () => {
    const run = playJob(jobOf('<rect width="30" height="20"/><path d="M5 5H20" stroke="#0000ff"/>'), speeds);
    expect(run.strokes.map(({ purpose }) => purpose)).toEqual(["score", "cut"]);
    expect(run.strokes[0]!.length).toBeCloseTo(15, 9);
  });

  it("frees a hole first, then the piece with its hole in it", () => {
    const run = playJob(jobOf('<circle cx="20" cy="20" r="5"/><rect width="60" height="40"/>'), speeds);
    expect(run.drops.map(({ kind }) => kind)).toEqual(["waste", "piece"]);
    expect(run.drops[1]!.area).toBeCloseTo(2400 - Math.PI * 25, 0);
    expect(run.drops[0]!.at).toBeLessThan(run.drops[1]!.at);
    expect(run.warnings).toEqual([]);
  });

  it("what falls through the grid is told in one line, however many pieces it is", () => {
    const warningsOf = (...sizes: number[]) =>
      playJob(jobOf(sizes.map((size, k) => `<rect x="${12 * k}" width="${size}" height="3"/>`).join("")), speeds).warnings;
    expect(warningsOf(9, 10)).toEqual([]);
    expect(warningsOf(4, 10)).toEqual(["A piece of only 4.0 × 3.0 mm will fall through the grid."]);
    expect(warningsOf(7, 0.2, 4, 9)).toEqual(["3 pieces below 8 mm will fall through the grid, the smallest of 0.2 × 3.0 mm."]);
  });

  it("nothing is freed by open lines", () => {
    const job = jobOf('<path d="M0 0H20V20"/>');
    expect(playJob(job, speeds).drops).toEqual([]);
    expect(job.warnings.join()).toContain("stays in the sheet");
  });

  it("engraves an area line by line: its area over the pitch", () => {
    const job = readJob(readSvg(`<svg ${MM}><rect x="5" y="5" width="40" height="20" fill="#000000"/></svg>`), PROFILES[0]!);
    if (isRefused(job)) throw new Error("refused");
    const { lengths, strokes } = playJob(job, speeds);
    expect(Math.abs(lengths.engrave - 800 / 0.1) / 8000).toBeLessThan(0.03);
    // To and fro.
    expect(Math.sign(strokes[0]!.points[2]! - strokes[0]!.points[0]!)).toBe(
      -Math.sign(strokes[1]!.points[2]! - strokes[1]!.points[0]!),
    );
  });
});

describe("the head", () => {
  it("is on the line that is being cut, as far as the time has come", () => {
    const run = playJob(jobOf('<rect width="30" height="20"/><rect x="50" width="30" height="20"/>'), speeds);
    const [one, two] = run.strokes as [(typeof run.strokes)[number], (typeof run.strokes)[number]];
    expect(headAt(run, 0)).toEqual({ stroke: 0, share: 0 });
    expect(headAt(run, (one.start + one.end) / 2)).toEqual({ stroke: 0, share: 0.5 });
    expect(headAt(run, one.end + 0.01).stroke).toBe(1);
    expect(headAt(run, two.end + 1)).toEqual({ stroke: 2, share: 0 });
  });
});
