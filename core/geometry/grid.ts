/**
 * The grid on which outlines meet: coordinates become integers of 0.1 µm for Boolean operations, which keeps every product exact in
 * double arithmetic up to ±2 m.
 */

/** Grid units per mm: 0.1 µm. */
export const GRID = 10_000;
/** Furthest coordinate in mm that the grid can carry exactly. */
export const REACH = 2_000;
