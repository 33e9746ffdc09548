/**
 * Talking to the server.
 */
import { type Piece, parsePiece } from "@mend-joint/core/piece";

export interface StoredPiece {
  id: string;
  version: number;
  updatedAt: string;
  piece: Piece;
}

export interface FontEntry {
  id: string;
  name: string;
  style: string;
}

/** An answer that says no; `detail` is a sentence for people. */
export class ApiError extends Error {
  override name = "ApiError";
  constructor(
    readonly status: number,
    detail: string,
    /** For a stale save, what is there by now. */
    readonly current?: StoredPiece,
  ) {
    super(detail);
  }
}

interface WirePiece {
  id: string;
  version: number;
  updatedAt: string;
  document: unknown;
}

const toStored = ({ document, ...rest }: WirePiece): StoredPiece => ({ ...rest, piece: parsePiece(document) });

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new ApiError(0, "The server does not answer. Is it still running?");
  }
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = (await response.json().catch(() => ({}))) as { detail?: string; current?: WirePiece };
  throw new ApiError(
    response.status,
    problem.detail ?? `The server answered ${response.status}.`,
    problem.current && toStored(problem.current),
  );
}

const send = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

export async function listPieces(): Promise<StoredPiece[]> {
  const { pieces } = await call<{ pieces: WirePiece[] }>("/pieces");
  return pieces.map(toStored);
}

export const getPiece = async (id: string) => toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(id)}`));
export const createPiece = async (piece: Piece) => toStored(await call<WirePiece>("/pieces", send("POST", { document: piece })));
export const savePiece = async (piece: Piece, version: number) =>
  toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(piece.id)}`, send("PUT", { version, document: piece })));
export const deletePiece = (id: string) => call<void>(`/pieces/${encodeURIComponent(id)}`, { method: "DELETE" });
export const restorePiece = async (id: string) =>
  toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(id)}/restore`, { method: "POST" }));
export const listFonts = async () => (await call<{ fonts: FontEntry[] }>("/fonts")).fonts;
export const addFontFile = async (file: File) =>
  (
    await call<{ fonts: FontEntry[] }>(`/fonts?name=${encodeURIComponent(file.name)}`, {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: file,
    })
  ).fonts;
export const removeFontFile = (id: string) => call<void>(`/fonts/${encodeURIComponent(id)}`, { method: "DELETE" });
export const fontUrl = (id: string) => `/api/fonts/${encodeURIComponent(id)}/file`;
