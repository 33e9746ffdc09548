/**
 * SciPy as a reference for tests (Debian's python3-scipy; P. Virtanen et al., "SciPy 1.0", Nature Methods 17, 2020).
 */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import type { Raster } from "./raster";

/** Debian's own interpreter, for which the package is installed. */
const PYTHON = "/usr/bin/python3";

export type Question =
  | { ask: "components" | "distances"; width: number; height: number; pixels: string; at: [number, number][] }
  | { ask: "flow"; nodes: number; edges: [number, number, number][]; source: number; sink: number };

/** A logistic fit, penalised or not, and the place of the second covariate at which a share survives. */
export interface FitQuestion {
  ask: "logistic";
  covariates: readonly (readonly number[])[];
  survived: readonly boolean[];
  penalised: boolean;
  share: number;
  others: readonly number[];
}
export interface FitAnswer {
  coefficients: number[];
  at: number;
  /** Ends of the interval by the profile of the likelihood; `null` where there is none. */
  from: number | null;
  to: number | null;
}

const answers = (questions: readonly unknown[]) =>
  JSON.parse(
    execFileSync(PYTHON, [join(import.meta.dirname, "reference.py")], {
      input: JSON.stringify(questions),
      encoding: "utf8",
      maxBuffer: 1e9,
    }),
  );

/** All questions in one go. @returns for pictures one number for each pixel asked for, for flows their value */
export const askScipy = (questions: readonly Question[]): (number[] | number)[] => answers(questions);

export const fitByScipy = (questions: readonly FitQuestion[]): FitAnswer[] => answers(questions);

/** @param at places in mm */
export function ask(what: "components" | "distances", raster: Raster, at: readonly { x: number; y: number }[]): Question {
  const { width, height, pixel, x0, y0, distance } = raster;
  const pixels = Buffer.from(distance.map((value) => Number(value > 0))).toString("base64");
  const index = (value: number, start: number) => Math.floor((value - start) / pixel);
  return { ask: what, width, height, pixels, at: at.map(({ x, y }) => [index(x, x0), index(y, y0)]) };
}
