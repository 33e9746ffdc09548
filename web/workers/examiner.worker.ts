/**
 * Examines pieces away from the screen, so that typing and dragging never wait.
 */
import type { Examination } from "@mend-joint/core";
import type { Piece, Units } from "@mend-joint/core/piece";
import { expose } from "comlink";

// Text shaping takes a moment to start. The worker must listen before that, or the first question would be lost.
const examining = import("./examining");

const api = {
  examine: async (piece: Piece, units: Units): Promise<Examination> => (await examining).examinePiece(piece, units),
};

export type ExaminerApi = typeof api;
expose(api);
