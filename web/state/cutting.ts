/**
 * How the maker takes pieces to the machine and to the saw: remembered in this browser, for all pieces.
 */
import { type LinePurpose, type MachineProfile, PROFILES, profileById, TAB_LIMITS, tabsOf } from "@mend-joint/core/cut";
import type { DxfCurves, Paper } from "@mend-joint/core/formats";
import { hasGrain, type Piece, startHoleFor } from "@mend-joint/core/piece";
import { create } from "zustand";
import { createJSONStorage, persist } from "zustand/middleware";
import type { CutChoices } from "../workers/cutting";
import { listProfiles } from "./api";

interface CuttingState {
  profileId: string;
  /** Profiles of the maker's own, as the server has them. */
  own: MachineProfile[];
  without: LinePurpose[];
  curves: DxfCurves;
  /** Holding tabs on each outline. */
  tabs: number;
  tabWidth: number;
  /** The piece goes into the SVG. */
  source: boolean;
  paper: Paper;
  landscape: boolean;
  hatch: boolean;
  /** Diameter of start holes, mm; `null` for the least that the sheet wants. */
  drill: number | null;
}

export const useCutting = create<CuttingState>()(
  persist(
    (): CuttingState => ({
      profileId: PROFILES[0]!.id,
      own: [],
      without: [],
      curves: "curves",
      tabs: 0,
      tabWidth: TAB_LIMITS.width.usual,
      source: false,
      paper: "a4",
      landscape: false,
      hatch: true,
      drill: null,
    }),
    { name: "mend-joint:cutting", storage: createJSONStorage(() => localStorage), partialize: ({ own: _, ...rest }) => rest },
  ),
);

export async function fetchProfiles(): Promise<void> {
  useCutting.setState({ own: await listProfiles() });
}

export const profileOf = ({ profileId, own }: Pick<CuttingState, "profileId" | "own">): MachineProfile =>
  profileById(profileId, own) ?? PROFILES[0]!;

export function choicesOf(state: CuttingState, { stock, grain }: Pick<Piece, "stock" | "grain">): CutChoices {
  return {
    profile: profileOf(state),
    without: state.without,
    tabs: tabsOf(state.tabs, state.tabWidth),
    curves: state.curves,
    source: state.source,
    pattern: {
      paper: state.paper,
      landscape: state.landscape,
      hatch: state.hatch,
      drill: state.drill ?? startHoleFor(stock),
      grain: hasGrain(stock) ? (grain ?? 0) : undefined,
    },
  };
}
