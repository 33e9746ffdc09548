/**
 * Talking to the server.
 */
import type { MachineProfile } from "@mend-joint/core/cut";
import { type Piece, parsePiece, type Stock } from "@mend-joint/core/piece";

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
  return call<CutJob>("/machine/jobs", { method: "POST", body: form });
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
