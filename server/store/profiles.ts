/**
 * Machine profiles of the maker's own.
 */
import { type MachineProfile, profileSchema } from "@mend-joint/core/cut";
import { ownDocuments } from "./own";

export const ownProfiles = ownDocuments<MachineProfile>("machine_profile", profileSchema);
