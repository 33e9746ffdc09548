/**
 * What the maker keeps of sheets that were cut.
 */
import type { Layout, Offcut } from "@mend-joint/core/runs";
import { call, send } from "./api";

const at = (id: string, rest = "") => `/offcuts/${encodeURIComponent(id)}${rest}`;

export const listOffcuts = async () => (await call<{ offcuts: Offcut[] }>("/offcuts")).offcuts;
export const saveOffcut = (offcut: Offcut) => call<Offcut>(at(offcut.id), send("PUT", offcut));
export const removeOffcut = (id: string) => call<void>(at(id), { method: "DELETE" });

/** What is left of a laid sheet. @param sheet counted from 0 */
export const keepLeftover = (run: string, sheet: number) =>
  call<Offcut>(`/runs/${encodeURIComponent(run)}/sheets/${sheet + 1}/offcut`, { method: "POST" });

/** A piece onto another sheet, where it has room. All counted from 0. */
export const moveToSheet = (run: string, moved: { sheet: number; place: number; to: number }) =>
  call<Layout>(`/runs/${encodeURIComponent(run)}/other-sheet`, send("PUT", moved));
