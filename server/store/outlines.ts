/**
 * Outlines that the maker keeps for other pieces.
 */
import { type KeptOutline, keptOutlineSchema } from "@mend-joint/core/piece";
import { ownDocuments } from "./own";

export const ownOutlines = ownDocuments<KeptOutline>("outline", keptOutlineSchema);
