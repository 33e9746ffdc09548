/**
 * What the server's threads have examined while the page's own engine is still being started. It is the same engine; where the server has
 * nothing, or something else, the page waits for its own.
 */
import type { Examination } from "@mend-joint/core";
import type { Begun } from "@mend-joint/core/mend";
import { type Piece, parsePiece } from "@mend-joint/core/piece";
import { parse } from "devalue";
import { earlyAnswer } from "../early";

/** @returns `null` where the server has another state of the piece, or none */
export async function examinedAhead(piece: Piece): Promise<Examination | null> {
  if (!piece.id) return null;
  const path = `/pieces/${piece.id}/examination`;
  const answer = await (earlyAnswer(path) ?? fetch(`/api${path}`));
  if (!answer.ok) return null;
  const { document, examination } = parse(await answer.text()) as { document: unknown; examination: Examination };
  return JSON.stringify(parsePiece(document)) === JSON.stringify(piece) ? examination : null;
}

export interface BeginningsWanted {
  texts: readonly string[];
  asTyped: boolean;
  /** Left out, all of them. */
  starter?: string;
}

/**
 * Shipped beginnings with words in them, told one by one as they come.
 *
 * @throws where the server does not make them
 */
export async function beginnings(
  wanted: BeginningsWanted,
  signal: AbortSignal,
  onMade: (starter: string, begun: Begun) => void,
): Promise<void> {
  const response = await fetch("/api/beginnings", {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(wanted),
    signal,
  });
  if (!response.ok || !response.body) throw new Error(`The server does not make them: ${response.status}`);
  for await (const line of linesOf(response.body)) {
    const { starter, ...begun } = parse(line) as Begun & { starter: string };
    onMade(starter, begun);
  }
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
  let rest = "";
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    const lines = (rest + read.value).split("\n");
    rest = lines.pop()!;
    yield* lines;
  }
}
