/**
 * Steps of undo over a reload: kept in the tab's own store while the page goes, taken up when the same piece comes back.
 */
import { type Piece, parsePiece } from "@mend-joint/core/piece";
import type { Steps } from "./piece";

const keyOf = (id: string) => `mend-joint:steps:${id}`;
/** Characters that are kept of one piece's steps: stores hold some five million for all of them. */
const ROOM = 1_000_000;

/** Keeps as many of the newest steps as there is room for. Without room for any, none are there after the reload. */
export function keepSteps({ piece, past, future }: Steps): void {
  const now = JSON.stringify(piece);
  let room = ROOM - now.length;
  const newest = (steps: Steps["past"]): string[] => {
    const kept: string[] = [];
    for (const { piece: step } of [...steps].reverse()) {
      const text = JSON.stringify(step ?? null);
      room -= text.length;
      if (!step || room < 0) break;
      kept.push(text);
    }
    return kept.reverse();
  };
  const text = `{"piece":${now},"past":[${newest(past)}],"future":[${newest(future)}]}`;
  try {
    sessionStorage.removeItem(keyOf(piece.id));
    sessionStorage.setItem(keyOf(piece.id), text);
  } catch {
    // A store that is full or closed: undo begins anew after the reload.
  }
}

/** Takes them out again: they are of use once. */
export function takeSteps(id: string): Steps | null {
  try {
    const text = sessionStorage.getItem(keyOf(id));
    sessionStorage.removeItem(keyOf(id));
    if (!text) return null;
    const { piece, past, future } = JSON.parse(text) as { piece: unknown; past: unknown[]; future: unknown[] };
    const read = (steps: unknown[]) => steps.map((step) => ({ piece: parsePiece(step) as Piece }));
    return { piece: parsePiece(piece), past: read(past), future: read(future) };
  } catch {
    return null;
  }
}
