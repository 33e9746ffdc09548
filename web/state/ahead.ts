/**
 * What the server has examined while the page's own engine is still being started. It is the same engine; where the server has nothing, or
 * something else, the page waits for its own.
 */
import type { Examination } from "@mend-joint/core";
import type { Begun } from "@mend-joint/core/mend";
import { type Piece, parsePiece } from "@mend-joint/core/piece";
import { parse } from "devalue";
import { arrivedAnswer, earlyAnswer } from "../early";

/** @returns `null` where the server has another state of the piece, or none */
export async function examinedAhead(piece: Piece): Promise<Examination | null> {
  if (!piece.id) return null;
  const answer = await (earlyAnswer(pathOf(piece)) ?? fetch(`/api${pathOf(piece)}`));
  return answer.ok ? examinationOf(piece, await answer.text()) : null;
}

/** The same where it has arrived already, so that a piece and its verdict are drawn in one go; else, or where it cannot be read, `null`. */
export function arrivedAhead(piece: Piece): Examination | null {
  const answer = arrivedAnswer(pathOf(piece));
  if (answer === undefined) return null;
  try {
    return examinationOf(piece, answer);
  } catch {
    // The piece is opened all the same, and examined by the page.
    return null;
  }
}

const pathOf = ({ id }: Piece) => `/pieces/${encodeURIComponent(id)}/examination`;

function examinationOf(piece: Piece, answer: string): Examination | null {
  const { document, examination } = parse(answer) as { document: unknown; examination: Examination };
  return JSON.stringify(parsePiece(document)) === JSON.stringify(piece) ? examination : null;
}

/** The shipped beginnings with the words of the example, by the ids of their starters; none where the server has not got them. */
export async function exampleBeginnings(): Promise<Map<string, Begun>> {
  const response = await fetch("/api/beginnings");
  const lines = response.ok ? ((await response.json()) as Record<string, string>) : {};
  return new Map(Object.entries(lines).map(([starter, line]) => [starter, parse(line) as Begun]));
}
