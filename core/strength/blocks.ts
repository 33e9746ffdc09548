/**
 * Symmetric systems of equations in blocks of three, one for each node of a frame: factored once, solved for many loads.
 *
 * Nodes are eliminated where they have the fewest neighbours (minimum degree; W. F. Tinney and J. W. Walker, 1967). A frame is nearly a
 * tree, so that hardly any block comes that was not there.
 */

/** Unknowns of a node. */
export const DOF = 3;
const BLOCK = DOF * DOF;
/** Of the matrix of an element. */
const SIDE = 2 * DOF;

/** A pivot that is this small against the diagonal belongs to something that nothing holds. */
const SINGULAR = 1e-13;

export class Unheld extends Error {
  override name = "Unheld";
  constructor(readonly node: number) {
    super("A part of the frame is not held");
  }
}

export class BlockMatrix {
  readonly diagonal: Float64Array[];
  /** For each node, blocks to its neighbours: rows are its own unknowns. */
  readonly beside: Map<number, Float64Array>[];

  constructor(readonly nodes: number) {
    this.diagonal = Array.from({ length: nodes }, () => new Float64Array(BLOCK));
    this.beside = Array.from({ length: nodes }, () => new Map());
  }

  /** Adds the stiffness of an element: four blocks of 3 × 3 in a matrix of 6 × 6, row by row. */
  addElement(a: number, b: number, k: Float64Array): void {
    const [aa, bb] = [this.diagonal[a]!, this.diagonal[b]!];
    const [ab, ba] = [blockAt(this.beside[a]!, b), blockAt(this.beside[b]!, a)];
    for (let i = 0; i < DOF; i++) {
      for (let j = 0; j < DOF; j++) {
        aa[i * DOF + j]! += k[i * SIDE + j]!;
        ab[i * DOF + j]! += k[i * SIDE + j + DOF]!;
        ba[i * DOF + j]! += k[(i + DOF) * SIDE + j]!;
        bb[i * DOF + j]! += k[(i + DOF) * SIDE + j + DOF]!;
      }
    }
  }
}

function blockAt(row: Map<number, Float64Array>, node: number): Float64Array {
  let block = row.get(node);
  if (!block) {
    block = new Float64Array(BLOCK);
    row.set(node, block);
  }
  return block;
}

interface Step {
  node: number;
  inverse: Float64Array;
  /** Neighbours when it was eliminated, and the block to each. */
  to: number[];
  blocks: Float64Array[];
}

export interface Factored {
  /**
   * @param load so many numbers for each node as there are unknowns
   * @param wanted nodes of which the answer is wanted, by 1; left out, all
   * @returns the same of displacements (mm) and rotations; of other nodes than those wanted it may be zero
   */
  solve(load: Float64Array, wanted?: Uint8Array): Float64Array;
}

/** @param held nodes that do not move; they are left out @throws Unheld where something could move freely */
export function factor({ nodes, diagonal, beside }: BlockMatrix, held: Uint8Array): Factored {
  const rows = beside.map((row, node) => {
    if (held[node] === 1) return new Map<number, Float64Array>();
    const own = new Map<number, Float64Array>();
    for (const [other, block] of row) if (held[other] === 0) own.set(other, block.slice());
    return own;
  });
  const middle = diagonal.map((block) => block.slice());
  const scale = diagonal.map((block) => largestOn(block));
  const steps: Step[] = [];
  const gone = held.slice();
  const waiting: number[][] = [];
  const enqueue = (node: number) => {
    const degree = rows[node]!.size;
    const others = waiting[degree];
    if (others) others.push(node);
    else waiting[degree] = [node];
  };
  for (let node = 0; node < nodes; node++) if (gone[node] === 0) enqueue(node);
  for (let degree = 0; degree < waiting.length; ) {
    const node = waiting[degree]?.pop();
    if (node === undefined) {
      degree++;
      continue;
    }
    // It may have been put in again under another degree since.
    if (gone[node] === 1 || rows[node]!.size !== degree) continue;
    gone[node] = 1;
    const inverse = inverted(middle[node]!, SINGULAR * scale[node]!);
    if (!inverse) throw new Unheld(node);
    const to = [...rows[node]!.keys()];
    const blocks = to.map((other) => rows[node]!.get(other)!);
    to.forEach((one, i) => {
      rows[one]!.delete(node);
      // What goes through the node: its block transposed, times the inverse.
      const through = transposedTimes(blocks[i]!, inverse);
      to.forEach((other, k) => {
        if (other === one) subtractProduct(middle[one]!, through, blocks[k]!);
        else subtractProduct(blockAt(rows[one]!, other), through, blocks[k]!);
      });
    });
    for (const one of to) enqueue(one);
    steps.push({ node, inverse, to, blocks });
    degree = Math.max(0, Math.min(degree, ...to.map((one) => rows[one]!.size)));
  }
  const flat = flattened(steps);
  return { solve: (load, wanted) => solved(flat, load, nodes, wanted) };
}

/** Steps of an elimination, one after the other in plain arrays: loads are solved for by the hundred. */
interface Rows {
  node: Int32Array;
  inverse: Float64Array;
  /** Where the neighbours of each step begin; one more than there are steps. */
  start: Int32Array;
  to: Int32Array;
  blocks: Float64Array;
}

function flattened(steps: readonly Step[]): Rows {
  const count = steps.reduce((sum, { to }) => sum + to.length, 0);
  const rows: Rows = {
    node: new Int32Array(steps.length),
    inverse: new Float64Array(BLOCK * steps.length),
    start: new Int32Array(steps.length + 1),
    to: new Int32Array(count),
    blocks: new Float64Array(BLOCK * count),
  };
  let at = 0;
  for (const [s, { node, inverse, to, blocks }] of steps.entries()) {
    rows.node[s] = node;
    rows.inverse.set(inverse, BLOCK * s);
    rows.start[s] = at;
    for (const [k, other] of to.entries()) {
      rows.to[at] = other;
      rows.blocks.set(blocks[k]!, BLOCK * at);
      at++;
    }
  }
  rows.start[steps.length] = at;
  return rows;
}

function solved(
  { node, inverse, start, to, blocks }: Rows,
  load: Float64Array,
  nodes: number,
  wanted?: Uint8Array,
): Float64Array {
  const work = load.slice();
  const reduced = new Float64Array(DOF);
  for (let s = 0; s < node.length; s++) {
    const own = DOF * node[s]!;
    // A load reaches only what is eliminated after it.
    let any = 0;
    for (let i = 0; i < DOF; i++) any += Math.abs(work[own + i]!);
    if (any === 0) continue;
    multiply(inverse, BLOCK * s, work, own, reduced);
    for (let n = start[s]!; n < start[s + 1]!; n++) {
      const [other, block] = [DOF * to[n]!, BLOCK * n];
      for (let i = 0; i < DOF; i++) {
        const by = reduced[i]!;
        for (let j = 0; j < DOF; j++) work[other + j]! -= blocks[block + i * DOF + j]! * by;
      }
    }
  }
  // What a node does follows from what its neighbours do that were eliminated after it.
  const needed = wanted?.slice();
  if (needed) {
    for (let s = 0; s < node.length; s++) {
      if (needed[node[s]!] === 1) for (let n = start[s]!; n < start[s + 1]!; n++) needed[to[n]!] = 1;
    }
  }
  const moved = new Float64Array(DOF * nodes);
  const rest = new Float64Array(DOF);
  for (let s = node.length - 1; s >= 0; s--) {
    if (needed && needed[node[s]!] === 0) continue;
    const own = DOF * node[s]!;
    for (let i = 0; i < DOF; i++) rest[i] = work[own + i]!;
    for (let n = start[s]!; n < start[s + 1]!; n++) {
      const [other, block] = [DOF * to[n]!, BLOCK * n];
      for (let i = 0; i < DOF; i++) {
        let sum = 0;
        for (let j = 0; j < DOF; j++) sum += blocks[block + i * DOF + j]! * moved[other + j]!;
        rest[i]! -= sum;
      }
    }
    multiply(inverse, BLOCK * s, rest, 0, reduced);
    for (let i = 0; i < DOF; i++) moved[own + i] = reduced[i]!;
  }
  return moved;
}

function multiply(block: Float64Array, at: number, vector: Float64Array, from: number, into: Float64Array): void {
  for (let i = 0; i < DOF; i++) {
    let sum = 0;
    for (let j = 0; j < DOF; j++) sum += block[at + i * DOF + j]! * vector[from + j]!;
    into[i] = sum;
  }
}

function largestOn(block: Float64Array): number {
  let largest = 0;
  for (let i = 0; i < DOF; i++) largest = Math.max(largest, Math.abs(block[i * DOF + i]!));
  return largest;
}

/** By Cholesky's method. @returns `null` where it is not positive definite */
function inverted(block: Float64Array, least: number): Float64Array | null {
  const l = new Float64Array(BLOCK);
  for (let i = 0; i < DOF; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = (block[i * DOF + j]! + block[j * DOF + i]!) / 2;
      for (let k = 0; k < j; k++) sum -= l[i * DOF + k]! * l[j * DOF + k]!;
      if (i !== j) l[i * DOF + j] = sum / l[j * DOF + j]!;
      else if (sum > least) l[i * DOF + i] = Math.sqrt(sum);
      else return null;
    }
  }
  const inverse = new Float64Array(BLOCK);
  for (let column = 0; column < DOF; column++) {
    const v = new Float64Array(DOF);
    v[column] = 1;
    for (let i = 0; i < DOF; i++) {
      for (let k = 0; k < i; k++) v[i]! -= l[i * DOF + k]! * v[k]!;
      v[i]! /= l[i * DOF + i]!;
    }
    for (let i = DOF - 1; i >= 0; i--) {
      for (let k = i + 1; k < DOF; k++) v[i]! -= l[k * DOF + i]! * v[k]!;
      v[i]! /= l[i * DOF + i]!;
    }
    for (let i = 0; i < DOF; i++) inverse[i * DOF + column] = v[i]!;
  }
  return inverse;
}

function transposedTimes(a: Float64Array, b: Float64Array): Float64Array {
  const product = new Float64Array(BLOCK);
  for (let i = 0; i < DOF; i++)
    for (let k = 0; k < DOF; k++) {
      const factor = a[k * DOF + i]!;
      if (factor !== 0) for (let j = 0; j < DOF; j++) product[i * DOF + j]! += factor * b[k * DOF + j]!;
    }
  return product;
}

function subtractProduct(from: Float64Array, a: Float64Array, b: Float64Array): void {
  for (let i = 0; i < DOF; i++)
    for (let k = 0; k < DOF; k++) {
      const factor = a[i * DOF + k]!;
      if (factor !== 0) for (let j = 0; j < DOF; j++) from[i * DOF + j]! -= factor * b[k * DOF + j]!;
    }
}
