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

export async function fetchStocks(): Promise<void> {
  try {
    const { sheets, own } = await call<{ sheets: ShelfSheet[]; own: string[] }>("/stocks");
    useStockShelf.setState({ sheets, own: new Set(own), fetched: true, fault: null });
  } catch (error) {
    useStockShelf.setState({ fault: (error as Error).message });
  }
}

/** All sheets, asked for when they are first wanted. */
export function useSheets(): readonly ShelfSheet[] {
  const { sheets, fetched } = useStockShelf();
  useEffect(() => {
    if (!fetched) void fetchStocks();
  }, [fetched]);
  return sheets;
}

const at = (id: string) => `/stocks/${encodeURIComponent(id)}`;

const afterOthers = createQueue(fetchStocks);

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
