/**
 * Logistic regression of few readings: what share survives at a width, and how sure that is.
 *
 * With some ten necks in a row, all narrow ones broken and all wide ones whole, the greatest likelihood lies at an infinite slope. Its
 * bias is taken off with a penalty instead (D. Firth, Bias reduction of maximum likelihood estimates, Biometrika 80, 1993; G. Heinze and
 * M. Schemper, A solution to the problem of separation in logistic regression, Statistics in Medicine 21, 2002): estimates are finite, and
 * intervals come from the profile of the penalised likelihood.
 */
import { determinant, inverse, Matrix } from "ml-matrix";

/** One reading: covariates (the first is 1), and whether it survived. */
export interface Trials {
  covariates: readonly (readonly number[])[];
  survived: readonly boolean[];
}

export interface Estimate {
  coefficients: number[];
  /** Logarithm of the penalised likelihood. */
  penalised: number;
}

/** Half of the 95 % point of χ² with one degree of freedom: by so much the logarithm of the likelihood may fall. */
const CHI_HALF = 3.841458820694124 / 2;
const ROUNDS = 200;
const SETTLED = 1e-10;

interface State {
  penalised: number;
  /** Corrected score and information of the free coefficients. */
  score: number[];
  information: Matrix;
}

/** @param free directions in which the coefficients may go, one a column */
function stateAt({ covariates, survived }: Trials, coefficients: readonly number[], free: Matrix): State {
  const count = coefficients.length;
  const shares = new Float64Array(covariates.length);
  // Plain loops: this is gone through thousands of times for an interval.
  const sums = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  for (let i = 0; i < shares.length; i++) {
    const row = covariates[i]!;
    let logit = 0;
    for (let k = 0; k < count; k++) logit += row[k]! * coefficients[k]!;
    const share = 1 / (1 + Math.exp(-logit));
    shares[i] = share;
    const weight = Math.max(share * (1 - share), 1e-14);
    for (let k = 0; k < count; k++) for (let l = 0; l < count; l++) sums[k]![l]! += weight * row[k]! * row[l]!;
  }
  const information = new Matrix(sums);
  const inner = determinant(information);
  if (!(inner > 0)) return { penalised: -Infinity, score: [], information };
  const covariance = inverse(information).to2DArray();
  let likelihood = 0;
  const score = new Array<number>(count).fill(0);
  for (let i = 0; i < shares.length; i++) {
    const row = covariates[i]!;
    const share = shares[i]!;
    likelihood += Math.log(Math.max(survived[i] ? share : 1 - share, 1e-300));
    let leverage = 0;
    for (let k = 0; k < count; k++) for (let l = 0; l < count; l++) leverage += row[k]! * covariance[k]![l]! * row[l]!;
    const residual = (survived[i] ? 1 : 0) - share + share * (1 - share) * leverage * (0.5 - share);
    for (let k = 0; k < count; k++) score[k]! += residual * row[k]!;
  }
  return {
    penalised: likelihood + 0.5 * Math.log(inner),
    score: free.transpose().mmul(Matrix.columnVector(score)).to1DArray(),
    information: free.transpose().mmul(information).mmul(free),
  };
}

/** The greatest penalised likelihood among `from` + `free`·anything, by Newton's steps, halved where they overshoot. */
function climb(trials: Trials, from: readonly number[], free: Matrix): Estimate {
  let coefficients = [...from];
  let state = stateAt(trials, coefficients, free);
  if (free.columns === 0) return { coefficients, penalised: state.penalised };
  for (let round = 0; round < ROUNDS; round++) {
    const step = free.mmul(inverse(state.information)).mmul(Matrix.columnVector(state.score)).to1DArray();
    const longest = Math.max(...step.map(Math.abs));
    let share = Math.min(1, 5 / (longest || 1));
    let next = coefficients;
    let there = state;
    for (let halving = 0; halving < 40; halving++, share /= 2) {
      next = coefficients.map((value, k) => value + share * step[k]!);
      there = stateAt(trials, next, free);
      if (there.penalised >= state.penalised) break;
    }
    if (there.penalised < state.penalised) break;
    const settled = there.penalised - state.penalised < SETTLED && longest * share < 1e-7;
    [coefficients, state] = [next, there];
    if (settled) break;
  }
  return { coefficients, penalised: state.penalised };
}

/** Penalised estimate of all coefficients. */
export function fitLogistic(trials: Trials): Estimate {
  const count = trials.covariates[0]!.length;
  return climb(trials, new Array<number>(count).fill(0), Matrix.eye(count));
}

/** Greatest penalised likelihood with one coefficient at zero: what the data say without it. */
function withoutOne(trials: Trials, index: number): Estimate {
  const count = trials.covariates[0]!.length;
  const free = Matrix.zeros(count, count - 1);
  let column = 0;
  for (let k = 0; k < count; k++) if (k !== index) free.set(k, column++, 1);
  return climb(trials, new Array<number>(count).fill(0), free);
}

/** Whether a coefficient differs from zero at 95 %. */
export const tells = (trials: Trials, whole: Estimate, index: number): boolean =>
  whole.penalised - withoutOne(trials, index).penalised > CHI_HALF;

export interface Quantile {
  at: number;
  /** Ends of the 95 % interval; infinite where the readings do not bound it. */
  from: number;
  to: number;
}

/** Farther than this from the estimate nothing is looked for: in logarithms of a width, a hundredfold. */
const FARTHEST = Math.log(100);

/**
 * Where the second covariate must stand for a share to survive, others as given.
 *
 * @param others values of all covariates but the second; the first is 1
 */
export function quantile(trials: Trials, whole: Estimate, share: number, others: readonly number[]): Quantile {
  const logit = Math.log(share / (1 - share));
  const { coefficients } = whole;
  const rest = coefficients.reduce((sum, value, k) => (k === 1 ? sum : sum + value * (k === 0 ? 1 : others[k]!)), 0);
  const at = (logit - rest) / coefficients[1]!;
  const count = coefficients.length;
  /** By how much the likelihood has fallen, with the quantile held at a place. */
  const fallen = (place: number): number => {
    // The intercept follows: a = logit − b·place − Σ c·others.
    const free = Matrix.zeros(count, count - 1);
    for (let k = 1; k < count; k++) {
      free.set(k, k - 1, 1);
      free.set(0, k - 1, k === 1 ? -place : -others[k]!);
    }
    const slope = Math.max(coefficients[1]!, 0.1);
    const from = coefficients.map((value, k) => (k === 1 ? slope : value));
    from[0] = logit - slope * place - from.reduce((sum, value, k) => (k < 2 ? sum : sum + value * others[k]!), 0);
    return whole.penalised - climb(trials, from, free).penalised;
  };
  const end = (sign: 1 | -1): number => {
    let [inside, outside] = [at, at];
    for (let away = 0.02; ; away *= 1.6) {
      if (away > FARTHEST) return sign * Infinity;
      outside = at + sign * away;
      if (fallen(outside) > CHI_HALF) break;
      inside = outside;
    }
    for (let i = 0; i < 40 && Math.abs(outside - inside) > 1e-7; i++) {
      const middle = (inside + outside) / 2;
      if (fallen(middle) > CHI_HALF) outside = middle;
      else inside = middle;
    }
    return (inside + outside) / 2;
  };
  return { at, from: end(-1), to: end(1) };
}
