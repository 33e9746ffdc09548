/**
 * Talking to the server.
 */
import type { MachineProfile } from "@mend-joint/core/cut";
import { type KeptOutline, type Piece, parsePiece, type Stock } from "@mend-joint/core/piece";
import { earlyAnswer } from "../early";

export interface StoredPiece {
  id: string;
  version: number;
  /** Id of the save that made it so. */
  save: string | null;
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
  save: string | null;
  updatedAt: string;
  document: unknown;
}

const toStored = ({ document, ...rest }: WirePiece): StoredPiece => ({ ...rest, piece: parsePiece(document) });

/** After so long without an answer a request is given up, ms; sending a large file may take longer. */
const PATIENCE = 20_000;
const PATIENCE_FOR_FILES = 120_000;

/** All that outlives a page that ends may be no more than this, bytes (the Fetch standard, keepalive: 64 KiB). */
const LAST_WORDS = 60_000;
/** What a change may be to outlive its page without being asked to; longer ones have drafts. */
const SHORT = 16_000;
let lastWords = 0;

/** What the maker changed reaches the server although the page ends before the answer comes. */
export async function call<T>(path: string, init: RequestInit = {}, patience = PATIENCE): Promise<T> {
  const size =
    init.body === undefined ? 0 : typeof init.body === "string" ? new Blob([init.body]).size : Number.POSITIVE_INFINITY;
  const changes = init.method !== undefined && size <= SHORT;
  const keepalive = (init.keepalive ?? changes) && lastWords + size <= LAST_WORDS;
  if (keepalive) lastWords += size;
  let response: Response;
  try {
    const early = init.method === undefined ? earlyAnswer(path) : undefined;
    response = await (early ?? fetch(`/api${path}`, { ...init, keepalive, signal: AbortSignal.timeout(patience) }));
  } catch (error) {
    const hung = (error as Error).name === "TimeoutError";
    throw new ApiError(
      0,
      hung
        ? `The server has not answered for ${patience / 1000} seconds. It is asked again.`
        : "The server does not answer. Is it still running?",
    );
  } finally {
    if (keepalive) lastWords -= size;
  }
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = (await response.json().catch(() => ({}))) as { detail?: string; current?: WirePiece };
  throw new ApiError(
    response.status,
    problem.detail ?? `The server answered ${response.status}.`,
    problem.current && toStored(problem.current),
  );
}

export const send = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

/** A piece that is there and cannot be read, with the reason. */
export interface UnreadablePiece {
  id: string;
  name: string;
  reason: string;
}

/** One document that cannot be read does not hide the others. */
export async function listPieces(): Promise<{ pieces: StoredPiece[]; unreadable: UnreadablePiece[] }> {
  const { pieces: wire } = await call<{ pieces: WirePiece[] }>("/pieces");
  const pieces: StoredPiece[] = [];
  const unreadable: UnreadablePiece[] = [];
  for (const each of wire) {
    try {
      pieces.push(toStored(each));
    } catch (error) {
      const { name } = (each.document ?? {}) as { name?: unknown };
      unreadable.push({ id: each.id, name: typeof name === "string" ? name : each.id, reason: (error as Error).message });
    }
  }
  return { pieces, unreadable };
}

export const getPiece = async (id: string) => toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(id)}`));
export const createPiece = async (piece: Piece) => toStored(await call<WirePiece>("/pieces", send("POST", { document: piece })));
/** The version that a save started from, its own id, and those of saves before it whose answers never came. */
export interface SaveFrom {
  version: number;
  save?: string;
  after?: readonly string[];
}
/** @param leaving the page may end before the answer comes */
export async function savePiece(piece: Piece, from: SaveFrom, leaving = false): Promise<StoredPiece> {
  const request = { ...send("PUT", { ...from, document: piece }), keepalive: leaving };
  return toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(piece.id)}`, request));
}
export const deletePiece = (id: string) => call<void>(`/pieces/${encodeURIComponent(id)}`, { method: "DELETE" });
export const restorePiece = async (id: string) =>
  toStored(await call<WirePiece>(`/pieces/${encodeURIComponent(id)}/restore`, { method: "POST" }));
export const listFonts = async () => (await call<{ fonts: FontEntry[] }>("/fonts")).fonts;
export const addFontFile = async (file: File) =>
  (
    await call<{ fonts: FontEntry[] }>(
      `/fonts?name=${encodeURIComponent(file.name)}`,
      {
        method: "POST",
        headers: { "content-type": "application/octet-stream" },
        body: file,
      },
      PATIENCE_FOR_FILES,
    )
  ).fonts;
export const removeFontFile = (id: string) => call<void>(`/fonts/${encodeURIComponent(id)}`, { method: "DELETE" });
export const fontUrl = (id: string) => `/api/fonts/${encodeURIComponent(id)}/file`;

/** Outlines that the maker keeps for other pieces. */
export const listOutlines = async () => (await call<{ outlines: KeptOutline[] }>("/outlines")).outlines;
export const keepOutline = (outline: KeptOutline) =>
  call<KeptOutline>(`/outlines/${encodeURIComponent(outline.id)}`, send("PUT", outline));
export const removeOutline = (id: string) => call<void>(`/outlines/${encodeURIComponent(id)}`, { method: "DELETE" });

/** Pictures that drawings were traced from. */
export const keepPicture = (id: string, picture: Blob) =>
  call<void>(
    `/pictures/${encodeURIComponent(id)}`,
    { method: "PUT", headers: { "content-type": picture.type }, body: picture },
    PATIENCE_FOR_FILES,
  );

/** @throws ApiError where it is not kept here */
export async function fetchPicture(id: string, name: string): Promise<File> {
  const response = await fetch(`/api/pictures/${encodeURIComponent(id)}`, { signal: AbortSignal.timeout(PATIENCE_FOR_FILES) });
  if (!response.ok)
    throw new ApiError(response.status, "The picture that this was traced from is not kept here. Bring it in again.");
  const blob = await response.blob();
  return new File([blob], name, { type: blob.type });
}

export const listProfiles = async () => (await call<{ profiles: MachineProfile[] }>("/profiles")).profiles;
export const saveProfile = (profile: MachineProfile) =>
  call<MachineProfile>(`/profiles/${encodeURIComponent(profile.id)}`, send("PUT", profile));
export const removeProfile = (id: string) => call<void>(`/profiles/${encodeURIComponent(id)}`, { method: "DELETE" });

/** What the cutter says of a job; times are seconds of the machine's own. */
export interface CutJob {
  id: string;
  name: string;
  fileName: string;
  state: "queued" | "cutting" | "done" | "failed" | "cancelled";
  speed: number;
  doneSeconds: number;
  totalSeconds: number;
  report: {
    lengths: { cut: number; score: number; engrave: number; travel: number };
    pieces: { width: number; height: number; area: number }[];
    warnings: string[];
  };
  fault: string | null;
  createdAt: string;
}

export const askCutter = () => call<{ name: string; jobs: CutJob[] }>("/machine");
export function sendToCutter(
  name: string,
  file: { name: string; type: string; bytes: Uint8Array },
  profile: MachineProfile,
  stock: Stock,
): Promise<CutJob> {
  const form = new FormData();
  form.set("name", name);
  form.set("file", new File([file.bytes as Uint8Array<ArrayBuffer>], file.name, { type: file.type }));
  form.set("profile", JSON.stringify(profile));
  form.set("stock", JSON.stringify(stock));
  return call<CutJob>("/machine/jobs", { method: "POST", body: form }, PATIENCE_FOR_FILES);
}
const job = (id: string) => `/machine/jobs/${encodeURIComponent(id)}`;
export const beginJob = (id: string, speed: number) => call<CutJob>(`${job(id)}/begin`, send("POST", { speed }));
export const cancelJob = (id: string) => call<CutJob>(`${job(id)}/cancel`, { method: "POST" });
export const removeJob = (id: string) => call<void>(job(id), { method: "DELETE" });
export const failCutter = (fault: "lid" | "flame" | "power") => call<CutJob>("/machine/fault", send("POST", { fault }));
/** The file that a job was sent with, and what it was sent for. */
export async function sentWith(id: string): Promise<{ file: Uint8Array; profile: MachineProfile; stock: Stock }> {
  const [settings, response] = await Promise.all([
    call<{ profile: MachineProfile; stock: Stock }>(`${job(id)}/settings`),
    fetch(`/api${job(id)}/file`),
  ]);
  if (!response.ok) throw new ApiError(response.status, "The file of this job cannot be fetched.");
  return { ...settings, file: new Uint8Array(await response.arrayBuffer()) };
}
