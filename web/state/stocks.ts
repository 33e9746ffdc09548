/**
 * The sheets on the maker's shelf.
 */
import { SHELF, type ShelfSheet } from "@mend-joint/core/piece";
import { useEffect } from "react";
import { create } from "zustand";
import { call, send } from "./api";
import { createQueue } from "./inOrder";

interface StockShelf {
  sheets: readonly ShelfSheet[];
  /** Ids of those that the maker has added or changed. */
  own: ReadonlySet<string>;
  /** False while they are as they ship, since the server has not said yet. */
  fetched: boolean;
  fault: string | null;
}

export const useStockShelf = create<StockShelf>()(() => ({ sheets: SHELF, own: new Set(), fetched: false, fault: null }));

const listStocks = () => call<{ sheets: ShelfSheet[]; own: string[] }>("/stocks");

const show = ({ sheets, own }: Awaited<ReturnType<typeof listStocks>>) =>
  useStockShelf.setState({ sheets, own: new Set(own), fetched: true, fault: null });

async function fetchStocks(): Promise<void> {
  try {
    show(await listStocks());
  } catch (error) {
    useStockShelf.setState({ fault: (error as Error).message });
  }
}

/** Changes that the server has not taken yet. */
let underWay = 0;
/** Counts changes made here. */
let changes = 0;
let asking: Promise<void> | null = null;

/** What was changed elsewhere meanwhile. An answer that may not know the changes made here is not shown. */
function refresh(): Promise<void> {
  const before = changes;
  const ask = async () => {
    try {
      const shelf = await listStocks();
      if (underWay === 0 && changes === before) show(shelf);
    } catch (error) {
      useStockShelf.setState({ fault: (error as Error).message });
    }
    asking = null;
  };
  asking ??= ask();
  return asking;
}

window.addEventListener("focus", () => {
  if (useStockShelf.getState().fetched) void refresh();
});

/** All sheets, asked for anew by each screen that wants them: another window may have changed them. */
export function useSheets(): readonly ShelfSheet[] {
  useEffect(() => void refresh(), []);
  return useStockShelf((state) => state.sheets);
}

const at = (id: string) => `/stocks/${encodeURIComponent(id)}`;

const inTurn = createQueue(fetchStocks);

async function afterOthers(id: string, work: () => Promise<unknown>): Promise<void> {
  changes++;
  underWay++;
  try {
    await inTurn(id, work);
  } finally {
    underWay--;
  }
}

/** Shown at once: what is changed next is changed on top of it. @throws ApiError */
export function saveSheet(sheet: ShelfSheet): Promise<void> {
  useStockShelf.setState(({ sheets, own }) => ({
    sheets: sheets.some(({ id }) => id === sheet.id)
      ? sheets.map((each) => (each.id === sheet.id ? sheet : each))
      : [sheet, ...sheets],
    own: new Set([...own, sheet.id]),
  }));
  return afterOthers(sheet.id, () => call(at(sheet.id), send("PUT", sheet)));
}

/** One of ours is as it was again; one of the maker's own is gone. @throws ApiError */
export function dropSheet(id: string): Promise<void> {
  return afterOthers(id, async () => {
    await call(at(id), { method: "DELETE" });
    await fetchStocks();
  });
}
