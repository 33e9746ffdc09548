/**
 * A straight beam of rectangular section between two nodes: bending both ways, shear, torsion, tension.
 *
 * Timoshenko's beam with the shear factor 5/6; torsion constants of the rectangle by Roark's Formulas for Stress and Strain (from memory;
 * checked against the closed forms in the tests). Units N, mm, MPa.
 */

export interface Material {
  /** Young's modulus and Poisson's number. */
  young: number;
  poisson: number;
  /** Of the sheet, mm. */
  thickness: number;
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

/**
 * The greatest stress in the sections at both ends, MPa: tension and bending both ways add up, shear by torsion comes to them as von Mises
 * has it.
 *
 * @param widths of either end, mm: where a stroke narrows, tension and bending in the plane are borne by its section there. Bending out
 *   of the plane and torsion go by the beam's own: from a neck, beams lead on aslant, and its section is not across them.
 * @param forces what the nodes put on the element, in the directions of the sheet: six for either end
 */
export function stressOf(
  { dx, dy, width: mean }: Beam,
  widths: readonly [number, number],
  { thickness }: Material,
  forces: Float64Array,
): [number, number] {
  const length = Math.hypot(dx, dy);
  const [c, s] = [dx / length, dy / length];
  const { modulus } = torsionOf(mean, thickness);
  const at = (end: number, width: number): number => {
    const [fx, fy, , mx, my, mz] = forces.subarray(end, end + 6);
    const along = Math.abs(c * fx! + s * fy!) / (width * thickness);
    const inPlane = Math.abs(mz!) / ((thickness * width ** 2) / 6);
    const outOf = Math.abs(-s * mx! + c * my!) / ((mean * thickness ** 2) / 6);
    const twist = Math.abs(c * mx! + s * my!) / modulus;
    return Math.hypot(along + inPlane + outOf, Math.sqrt(3) * twist);
  };
  return [at(0, widths[0]), at(6, widths[1])];
}
