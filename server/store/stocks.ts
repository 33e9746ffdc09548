/**
 * Sheets of the maker's own, and ours where the maker has changed them.
 */
import { type ShelfSheet, shelfSheetSchema } from "@mend-joint/core/piece";
import { ownDocuments } from "./own";

export const ownStocks = ownDocuments<ShelfSheet>("stock", shelfSheetSchema);
