/**
 * A straight beam of rectangular section between two nodes: bending both ways, shear, torsion, tension.
 *
 * Timoshenko's beam with the shear factor 5/6; torsion constants of the rectangle by Roark's Formulas for Stress and Strain (from memory;
 * checked against the closed forms in the tests). Units N, mm, MPa.
 */

import type { Grain } from "./grain";

export interface Material {
  /** Young's modulus and Poisson's number. */
  young: number;
  poisson: number;
  /** Of the sheet, mm. */
  thickness: number;
  /** Left out for what is alike in all directions. */
  grain?: Grain | undefined;
}

export interface Beam {
  /** From one end to the other, mm. */
  dx: number;
  dy: number;
  /** In the plane of the sheet, mm. */
  width: number;
}

const SHEAR = 5 / 6;

/** Torsion constant of a rectangle, mm⁴, and the section modulus that the greatest shear goes by, mm³. */
export function torsionOf(width: number, thickness: number): { constant: number; modulus: number } {
  const [a, b] = width >= thickness ? [width, thickness] : [thickness, width];
  const constant = a * b ** 3 * (1 / 3 - 0.21 * (b / a) * (1 - b ** 4 / (12 * a ** 4)));
  return { constant, modulus: constant / b };
}

/** In its own directions: along, across in the plane, out of it. Rotations about the same. */
function localStiffness({ dx, dy, width }: Beam, { young, poisson, thickness }: Material): Float64Array {
  const length = Math.hypot(dx, dy);
  const area = width * thickness;
  const [inPlane, outOf] = [(thickness * width ** 3) / 12, (width * thickness ** 3) / 12];
  const shear = young / (2 * (1 + poisson));
  const k = new Float64Array(144);
  const set = (i: number, j: number, value: number) => {
    k[i * 12 + j] = value;
    k[j * 12 + i] = value;
  };
  const axial = (young * area) / length;
  const twist = (shear * torsionOf(width, thickness).constant) / length;
  for (const [at, value] of [
    [0, axial],
    [3, twist],
  ] as const) {
    set(at, at, value);
    set(at + 6, at + 6, value);
    set(at, at + 6, -value);
  }
  const bend = (shift: number, turn: number, second: number, sign: number) => {
    const phi = (12 * young * second) / (SHEAR * shear * area * length ** 2);
    const base = (young * second) / (length ** 3 * (1 + phi));
    const [force, moment] = [12 * base, 6 * base * length * sign];
    const [near, far] = [(4 + phi) * base * length ** 2, (2 - phi) * base * length ** 2];
    set(shift, shift, force);
    set(shift + 6, shift + 6, force);
    set(shift, shift + 6, -force);
    set(shift, turn, moment);
    set(shift, turn + 6, moment);
    set(shift + 6, turn, -moment);
    set(shift + 6, turn + 6, -moment);
    set(turn, turn, near);
    set(turn + 6, turn + 6, near);
    set(turn, turn + 6, far);
  };
  // Across goes with the rotation about the line out of the plane; out of it with minus the one about the line across.
  bend(1, 5, inPlane, 1);
  bend(2, 4, outOf, -1);
  return k;
}

/** Stiffness of the element in the directions of the sheet, 12 × 12 row by row: three displacements and three rotations of either end. */
export function stiffness(beam: Beam, material: Material): Float64Array {
  const local = localStiffness(beam, material);
  const length = Math.hypot(beam.dx, beam.dy);
  const [c, s] = [beam.dx / length, beam.dy / length];
  // Each triple turns by itself about the line out of the plane: K = Tᵀ k T.
  const half = new Float64Array(144);
  for (let i = 0; i < 12; i++) {
    for (let j = 0; j < 12; j += 3) {
      const [u, v, w] = [local[i * 12 + j]!, local[i * 12 + j + 1]!, local[i * 12 + j + 2]!];
      half[i * 12 + j] = c * u - s * v;
      half[i * 12 + j + 1] = s * u + c * v;
      half[i * 12 + j + 2] = w;
    }
  }
  const k = new Float64Array(144);
  for (let j = 0; j < 12; j++) {
    for (let i = 0; i < 12; i += 3) {
      const [u, v, w] = [half[i * 12 + j]!, half[(i + 1) * 12 + j]!, half[(i + 2) * 12 + j]!];
      k[i * 12 + j] = c * u - s * v;
      k[(i + 1) * 12 + j] = s * u + c * v;
      k[(i + 2) * 12 + j] = w;
    }
  }
  return k;
}

/** What the stresses in a beam follow from; a row of figures for each, so that thousands are gone through quickly. */
export interface Sections {
  /** For each beam the nodes of its ends. */
  ends: Int32Array;
  /** For each beam the figures of `FIGURES`, one after the other. */
  figures: Float64Array;
}

/**
 * Direction (cosine, sine); force for a stretch of one; moment for a twist of one; in the plane and out of it, moments for a displacement
 * across, for a rotation of the same end and of the other. Then what stresses go by: area and modulus in the plane at either end, modulus
 * out of the plane, modulus of torsion. Last, 1 where forces spread.
 */
const FIGURES = 17;

/** A stroke that widens by more than this for each mm is no beam: forces spread there, and its sections are not across the line. */
const SPREADING = 0.5;

/**
 * @param widths of either end, mm: where a stroke narrows, tension and bending in the plane are borne by its section there. Bending out
 *   of the plane and torsion go by the beam's own: from a neck, beams lead on aslant, and its section is not across them.
 */
export function sectionsOf(
  beams: readonly { a: number; b: number; beam: Beam; widths: readonly [number, number]; material: Material }[],
): Sections {
  const ends = new Int32Array(2 * beams.length);
  const figures = new Float64Array(FIGURES * beams.length);
  for (const [n, { a, b, beam, widths, material }] of beams.entries()) {
    const { thickness } = material;
    ends.set([a, b], 2 * n);
    const { dx, dy, width } = beam;
    const length = Math.hypot(dx, dy);
    const k = localStiffness(beam, material);
    const at = (row: number, column: number) => k[row * 12 + column]!;
    figures.set(
      [
        dx / length,
        dy / length,
        at(0, 0),
        at(3, 3),
        at(5, 1),
        at(5, 5),
        at(5, 11),
        at(4, 2),
        at(4, 4),
        at(4, 10),
        widths[0] * thickness,
        widths[1] * thickness,
        (thickness * widths[0] ** 2) / 6,
        (thickness * widths[1] ** 2) / 6,
        (width * thickness ** 2) / 6,
        torsionOf(width, thickness).modulus,
        Math.abs(widths[1] - widths[0]) > SPREADING * length ? 1 : 0,
      ],
      FIGURES * n,
    );
  }
  return { ends, figures };
}

/** What a beam bears, N and N·mm: pull, moments in the plane at either end, out of it at either end, torque. */
const FORCES = 6;

/** @param moved displacements and rotations, six for each node @param forces of beam `n`, written here */
function forcesIn({ ends, figures }: Sections, n: number, moved: Float64Array, forces: Float64Array): void {
  const f = FIGURES * n;
  const [a, b] = [6 * ends[2 * n]!, 6 * ends[2 * n + 1]!];
  const [c, s] = [figures[f]!, figures[f + 1]!];
  // In the beam's directions: how much its ends move apart, and the rotations of either.
  const [ux, uy] = [moved[a]! - moved[b]!, moved[a + 1]! - moved[b + 1]!];
  const apart = c * ux + s * uy;
  const aside = c * uy - s * ux;
  const above = moved[a + 2]! - moved[b + 2]!;
  const twisted = c * (moved[a + 3]! - moved[b + 3]!) + s * (moved[a + 4]! - moved[b + 4]!);
  const [leansA, leansB] = [c * moved[a + 4]! - s * moved[a + 3]!, c * moved[b + 4]! - s * moved[b + 3]!];
  const [turnsA, turnsB] = [moved[a + 5]!, moved[b + 5]!];
  const [shiftIn, near, far] = [figures[f + 4]! * aside, figures[f + 5]!, figures[f + 6]!];
  const [shiftOut, nearOut, farOut] = [figures[f + 7]! * above, figures[f + 8]!, figures[f + 9]!];
  const torque = figures[f + 3]! * twisted;
  forces[0] = Math.abs(figures[f + 2]! * apart);
  forces[1] = Math.abs(shiftIn + near * turnsA + far * turnsB);
  forces[2] = Math.abs(shiftIn + far * turnsA + near * turnsB);
  forces[3] = Math.abs(shiftOut + nearOut * leansA + farOut * leansB);
  forces[4] = Math.abs(shiftOut + farOut * leansA + nearOut * leansB);
  forces[5] = torque;
  if (figures[f + 16] === 1) {
    // Bending of the neck behind, met aslant.
    forces[3] = Math.sqrt(forces[3] * forces[3] + torque * torque);
    forces[4] = Math.sqrt(forces[4] * forces[4] + torque * torque);
    forces[5] = 0;
  }
}

/**
 * The greatest stress in the sections at both ends of every beam, MPa: tension and bending both ways add up, shear by torsion comes to
 * them as von Mises has it.
 *
 * @param moved displacements and rotations, six for each node
 * @param stresses two for each beam, written here
 * @param only beams that are strained; left out, all
 */
export function stressesIn(sections: Sections, moved: Float64Array, stresses: Float64Array, only?: readonly number[]): void {
  const { ends, figures } = sections;
  const forces = new Float64Array(FORCES);
  const count = only?.length ?? ends.length / 2;
  for (let k = 0; k < count; k++) {
    const n = only ? only[k]! : k;
    const f = FIGURES * n;
    forcesIn(sections, n, moved, forces);
    const twist = forces[5]! / figures[f + 15]!;
    const shear = 3 * twist * twist;
    const straightA = forces[0]! / figures[f + 10]! + forces[1]! / figures[f + 12]! + forces[3]! / figures[f + 14]!;
    const straightB = forces[0]! / figures[f + 11]! + forces[2]! / figures[f + 13]! + forces[4]! / figures[f + 14]!;
    stresses[2 * n] = Math.sqrt(straightA * straightA + shear);
    stresses[2 * n + 1] = Math.sqrt(straightB * straightB + shear);
  }
}

/** No stroke is looked for that is wider than this many times what it is. */
const WIDEST = 1000;

/**
 * How many times as wide a beam must be at one of its ends, so that what it bears strains it by no more than so much. What it bears stays
 * as it is: true where one way alone leads to what is held, and a little much elsewhere, for what is stiffer bears more.
 *
 * @param limit MPa
 * @param end 2 n for the first end of beam n, 2 n + 1 for the other
 * @param width of the beam @param thickness of the sheet, mm
 */
export function wideningTo(
  limit: number,
  { sections, moved }: { sections: Sections; moved: Float64Array },
  { end, width, thickness }: { end: number; width: number; thickness: number },
): number {
  const [n, other] = [end >> 1, end & 1];
  const figure = (k: number) => sections.figures[FIGURES * n + k]!;
  const forces = new Float64Array(FORCES);
  forcesIn(sections, n, moved, forces);
  const stress = (times: number) => {
    const straight =
      forces[0]! / (figure(10 + other) * times) +
      forces[1 + other]! / (figure(12 + other) * times ** 2) +
      forces[3 + other]! / (figure(14) * times);
    return Math.hypot(straight, (Math.sqrt(3) * forces[5]!) / torsionOf(width * times, thickness).modulus);
  };
  let [least, most] = [0, 1];
  while (stress(most) > limit && most < WIDEST) [least, most] = [most, 2 * most];
  for (let k = 0; k < 40; k++) {
    const middle = (least + most) / 2;
    if (stress(middle) > limit) least = middle;
    else most = middle;
  }
  return most;
}
