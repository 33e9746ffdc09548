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

/** Counts changes made here. */
let changes = 0;

/** What the server has. An answer that does not know a change made here meanwhile is not shown: it is asked again after that change. */
async function fetchStocks(): Promise<void> {
  const before = changes;
  try {
    const { sheets, own } = await call<{ sheets: ShelfSheet[]; own: string[] }>("/stocks");
    if (changes === before) useStockShelf.setState({ sheets, own: new Set(own), fetched: true, fault: null });
    else refresh();
  } catch (error) {
    useStockShelf.setState({ fault: (error as Error).message });
  }
}

const inTurn = createQueue(fetchStocks);

/** Once for all who want it at the same time. */
const refresh = (): void => void inTurn("the whole shelf", fetchStocks);

function change(id: string, work: () => Promise<unknown>): Promise<void> {
  changes++;
  return inTurn(id, work);
}

window.addEventListener("focus", () => {
  if (useStockShelf.getState().fetched) refresh();
});

/** All sheets, asked for anew by each screen that wants them: another window may have changed them. */
export function useSheets(): readonly ShelfSheet[] {
  useEffect(refresh, []);
  return useStockShelf((state) => state.sheets);
}

const at = (id: string) => `/stocks/${encodeURIComponent(id)}`;

/** Shown at once: what is changed next is changed on top of it. @throws ApiError */
export function saveSheet(sheet: ShelfSheet): Promise<void> {
  useStockShelf.setState(({ sheets, own }) => ({
    sheets: sheets.some(({ id }) => id === sheet.id)
      ? sheets.map((each) => (each.id === sheet.id ? sheet : each))
      : [sheet, ...sheets],
    own: new Set([...own, sheet.id]),
  }));
  return change(sheet.id, () => call(at(sheet.id), send("PUT", sheet)));
}

/** One of ours is as it was again; one of the maker's own is gone. @throws ApiError */
export function dropSheet(id: string): Promise<void> {
  return change(id, async () => {
    await call(at(id), { method: "DELETE" });
    await fetchStocks();
  });
}
