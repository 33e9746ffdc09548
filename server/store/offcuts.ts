/**
 * What the maker keeps of sheets that were cut.
 */
import { type Offcut, offcutSchema } from "@mend-joint/core/runs";
import { ownDocuments } from "./own";

export const ownOffcuts = ownDocuments<Offcut>("offcut", offcutSchema);
