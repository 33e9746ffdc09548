/**
 * The equations of a flat frame: what moves in the plane of the sheet has nothing to do with what moves out of it, so they are two
 * systems with three unknowns for each node.
 */
import { BlockMatrix, DOF, type Factored, factor } from "./blocks";

/** Displacements x, y, z and rotations about them, of each node. */
export const MOVES = 6;
const PLANES = [
  [0, 1, 5],
  [2, 3, 4],
] as const;

/** Ends of a beam, and its stiffness: 12 × 12, row by row. */
export interface Element {
  a: number;
  b: number;
  k: Float64Array;
}

/** @param held nodes that do not move @throws Unheld where something could move freely */
export function systemOf(nodes: number, elements: readonly Element[], held: Uint8Array): Factored {
  const systems = PLANES.map((unknowns) => {
    const matrix = new BlockMatrix(nodes);
    const rows = [...unknowns, ...unknowns.map((k) => k + MOVES)];
    for (const { a, b, k } of elements) {
      const part = new Float64Array(4 * DOF * DOF);
      for (const [i, row] of rows.entries())
        for (const [j, column] of rows.entries()) part[i * 2 * DOF + j] = k[row * 2 * MOVES + column]!;
      matrix.addElement(a, b, part);
    }
    return { unknowns, factored: factor(matrix, held) };
  });
  return {
    solve: (load, wanted) => {
      const moved = new Float64Array(MOVES * nodes);
      for (const { unknowns, factored } of systems) {
        const own = new Float64Array(DOF * nodes);
        let any = false;
        for (let n = 0; n < nodes; n++) {
          for (let k = 0; k < DOF; k++) {
            const value = load[n * MOVES + unknowns[k]!]!;
            if (value === 0) continue;
            own[n * DOF + k] = value;
            any = true;
          }
        }
        if (!any) continue;
        const solution = factored.solve(own, wanted);
        for (let n = 0; n < nodes; n++) for (let k = 0; k < DOF; k++) moved[n * MOVES + unknowns[k]!] = solution[n * DOF + k]!;
      }
      return moved;
    },
  };
}
