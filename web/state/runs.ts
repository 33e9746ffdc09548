/**
 * Runs as the server has them: asked for, changed, and followed while they are worked on.
 */
import type { Stock } from "@mend-joint/core/piece";
import type {
  Column,
  Laying,
  Layout,
  Offcut,
  Ranking,
  RowShape,
  RunChoices,
  RunRow,
  SheetChoices,
  SizeRule,
  Tally,
} from "@mend-joint/core/runs";
import { useCallback, useEffect, useRef, useState } from "react";
import { ApiError, call, send } from "./api";

export type { RunRow, Tally } from "@mend-joint/core/runs";

export interface ListedRun {
  id: string;
  name: string;
  paused: boolean;
  createdAt: string;
  tally: Tally;
}

export interface Run {
  id: string;
  name: string;
  choices: RunChoices;
  paused: boolean;
  revision: number;
  change: number;
  layout: Layout | null;
  laying: Laying | null;
  ranking: Ranking | null;
}

/** Where a run's design comes from, and whether it has changed there since. */
export interface DesignSource {
  /** Its rows are pieces of the rack. */
  picked: boolean;
  /** Id on the rack. */
  piece: string | null;
  lines: number;
  name: string | null;
  stock: Stock;
  changed: boolean;
  gone: boolean;
}

interface Told {
  run: Run;
  tally: Tally;
  design: DesignSource;
}

export type WantedDesign = { starter: string } | { piece: string };

export interface NewRun {
  name: string;
  design: WantedDesign;
  list: string;
  columns?: readonly Column[];
  mend: boolean;
  size: SizeRule;
}

const at = (id: string, rest = "") => `/runs/${encodeURIComponent(id)}${rest}`;
/** Ten thousand rows take their time. */
const PATIENCE = 60_000;

export const listRuns = async () => (await call<{ runs: ListedRun[] }>("/runs")).runs;
export const createRun = (run: NewRun) => call<{ id: string; notes: string[] }>("/runs", send("POST", run), PATIENCE);
/** Pieces of the rack, each as it is. */
export const pickPieces = async (name: string, pieces: readonly string[]) =>
  (await call<{ id: string }>("/runs/picked", send("POST", { name, pieces }))).id;
export const deleteRun = (id: string) => call<void>(at(id), { method: "DELETE" });
export const restoreRun = (id: string) => call<void>(at(id, "/restore"), { method: "POST" });
/** What is given changes, all else stays. */
export interface RunChange extends Partial<Pick<RunChoices, "mend" | "size" | "font">> {
  paused?: boolean;
  sheet?: Partial<SheetChoices>;
  /** One more that is filled first, or one less: several that follow each other do not undo one another. */
  offcut?: { take: Offcut } | { leave: string };
}
export const changeRun = (id: string, change: RunChange) => call<Told>(at(id), send("PATCH", change), PATIENCE);
export const takeDesign = (id: string, design: WantedDesign) => call<Told>(at(id, "/design"), send("PUT", design), PATIENCE);

/** Every name in every lettering. */
export const rankLetterings = (id: string) => call<void>(at(id, "/ranking"), { method: "POST" });
export const stopRanking = (id: string) => call<void>(at(id, "/ranking"), { method: "DELETE" });

export interface RowChange {
  /** Line by line; `null` for one that stays. */
  texts?: (string | null)[];
  count?: number;
  note?: string;
  leftOut?: boolean;
  done?: boolean;
  font?: string | null;
  asListed?: true;
}
export const changeRow = (id: string, number: number, change: RowChange) =>
  call<void>(at(id, `/rows/${number}`), send("PATCH", change));
/** @returns id of the piece that the row is on the bench */
export const openRow = async (id: string, number: number) =>
  (await call<{ piece: string }>(at(id, `/rows/${number}/open`), { method: "POST" })).piece;

export const laySheets = (id: string, keep: boolean, seconds: number) =>
  call<void>(at(id, "/lay"), send("POST", { keep, seconds }));
export const stopLaying = (id: string) => call<void>(at(id, "/lay"), { method: "DELETE" });
export interface MovedPiece {
  sheet: number;
  place: number;
  matrix: Layout["sheets"][number]["pieces"][number]["matrix"];
  pinned: boolean;
}
export const movePlaces = (id: string, moved: readonly MovedPiece[]) =>
  call<Layout>(at(id, "/places"), send("PUT", { moved }), PATIENCE);

/** The run and row that a piece on the bench was opened from. */
export const rowOfPiece = async (piece: string) =>
  (
    await call<{ row: { run: string; name: string; number: number; texts: string[] } | null }>(
      `/runs/of/${encodeURIComponent(piece)}`,
    )
  ).row;

/** A file of a run. @throws ApiError with the server's sentence */
export async function fetchFile(id: string, path: string): Promise<Uint8Array> {
  const response = await fetch(`/api${at(id, path)}`);
  if (response.ok) return new Uint8Array(await response.arrayBuffer());
  const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new ApiError(response.status, detail ?? `The server answered ${response.status}.`);
}

const SHAPES_AT_ONCE = 200;

/** Drawings of rows, asked for when they come into sight and kept while the page stays. */
export function useShapes(id: string) {
  const [shapes, setShapes] = useState<ReadonlyMap<string, RowShape>>(new Map());
  const asked = useRef(new Set<string>());
  const want = useCallback(
    (rows: readonly Pick<RunRow, "number" | "madeOf">[]) => {
      const fresh = rows.filter((row) => row.madeOf && !asked.current.has(shapeKey(row)));
      if (fresh.length === 0) return;
      for (const row of fresh) asked.current.add(shapeKey(row));
      for (let i = 0; i < fresh.length; i += SHAPES_AT_ONCE) {
        const some = fresh.slice(i, i + SHAPES_AT_ONCE);
        call<{ shapes: { number: number; shape: RowShape }[] }>(
          at(id, `/shapes?rows=${some.map(({ number }) => number).join(",")}`),
        ).then(
          ({ shapes: found }) => {
            const known = new Map(found.map(({ number, shape }) => [number, shape]));
            setShapes((before) => {
              const next = new Map(before);
              for (const row of some) if (known.has(row.number)) next.set(shapeKey(row), known.get(row.number)!);
              return next;
            });
          },
          // They are asked for again when they next come into sight.
          () => {
            for (const row of some) asked.current.delete(shapeKey(row));
          },
        );
      }
    },
    [id],
  );
  return { shapes, want };
}

export const shapeKey = ({ number, madeOf }: Pick<RunRow, "number" | "madeOf">) => `${number} ${madeOf}`;

export interface FollowedRun extends Told {
  rows: ReadonlyMap<number, RunRow>;
}

/** A run as it comes along; `fault` while the server does not answer. */
export function useRun(id: string): { followed: FollowedRun | null; fault: ApiError | null; lost: boolean } {
  const [followed, setFollowed] = useState<FollowedRun | null>(null);
  const [fault, setFault] = useState<ApiError | null>(null);
  const [lost, setLost] = useState(false);
  useEffect(() => {
    let source: EventSource | null = null;
    let gone = false;
    const take = ({ rows: changed, ...told }: Told & { rows: RunRow[] }) =>
      setFollowed((before) => {
        const rows = new Map(before?.rows);
        for (const row of changed) rows.set(row.number, row);
        return { ...told, rows };
      });
    call<Told & { rows: RunRow[] }>(at(id), undefined, PATIENCE).then(
      (all) => {
        if (gone) return;
        take(all);
        let since = all.run.change;
        const follow = () => {
          source = new EventSource(`/api${at(id, `/events?since=${since}`)}`);
          source.addEventListener("open", () => setLost(false));
          source.addEventListener("change", ({ data }) => {
            const told = JSON.parse(data) as Told & { rows: RunRow[] };
            since = told.run.change;
            take(told);
          });
          source.addEventListener("gone", () => {
            gone = true;
            source?.close();
            setFault(new ApiError(404, "It was deleted meanwhile."));
          });
          // The browser would ask again from where it began.
          source.addEventListener("error", () => {
            source?.close();
            setLost(true);
            if (!gone) setTimeout(() => !gone && follow(), 1000);
          });
        };
        follow();
      },
      (error: ApiError) => !gone && setFault(error),
    );
    return () => {
      gone = true;
      source?.close();
    };
  }, [id]);
  return { followed, fault, lost };
}
