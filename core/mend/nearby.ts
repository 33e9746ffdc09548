/**
 * Looking for an amount on the neighbourhood of a finding alone, which is quicker than on the whole piece.
 */
import { type Examination, type HeldSolids, holdSolids, type Library, layOutWords, solidsOf, withPoles } from "../examine";
import { boxesMeet, regionBox, widenBox } from "../geometry";
import { type Finding, measureState } from "../judge";
import type { Piece } from "../piece";
import { isConcerned, isHeld } from "./proof";

/** How far around the parts of a finding others can matter to a mend, mm. */
const REACH = 8;

export interface Neighbourhood {
  /** Solids that must hold after the mend. */
  hanging: ReadonlySet<string>;
  /** Solids near them that do not fall: what they can be joined to. */
  holding: ReadonlySet<string>;
  /** All solids of the piece, to tell new ones. */
  known: ReadonlySet<string>;
  /** Narrowest hold of the weak ones among `holding`, mm: what hangs on them cannot hold better. Infinite where none is weak. */
  weakest: number;
  /** What the last try was measured from, for the next: of one tie most are alike. */
  tried?: HeldSolids;
}

export function neighbourhood(before: Examination, finding: Finding): Neighbourhood {
  const { solids, holds, leastWidth } = before;
  const hanging = [...solids.keys()].filter((i) => finding.parts.includes(solids[i]!.id) && isConcerned(before, finding, i));
  const boxes = hanging.map((i) => regionBox(solids[i]!.region));
  const near = (i: number) => {
    const box = regionBox(solids[i]!.region);
    const wide = box && widenBox(box, REACH);
    return boxes.some((each) => boxesMeet(each, wide));
  };
  const state = (i: number) => measureState(holds[i]!, leastWidth);
  const holding = [...solids.keys()].filter((i) => !hanging.includes(i) && state(i) < 2 && near(i));
  const weakest = Math.min(Infinity, ...holding.filter((i) => state(i) === 1).map((i) => holds[i]!.width));
  const ids = (indices: number[]) => new Set(indices.map((i) => solids[i]!.id));
  return { hanging: ids(hanging), holding: ids(holding), known: new Set(solids.map(({ id }) => id)), weakest };
}

/** How what hangs would be held by its neighbours alone. */
export interface HeldNearby {
  /** Widest hold of what hangs, mm; 0 where some of it falls. */
  width: number;
  /** Does it hold by so many mm? */
  by(wanted: number): boolean;
}

/** How the parts hold on to their neighbours, everything farther away left out. */
export function holdsNearby(mended: Piece, library: Library, near: Neighbourhood): HeldNearby {
  const all = solidsOf(mended, layOutWords(mended, library).layouts, library);
  const solids = all
    .filter(({ id }) => near.hanging.has(id) || near.holding.has(id) || !near.known.has(id))
    .map((solid) => ({ ...solid, holder: near.holding.has(solid.id) || solid.holder }));
  const held = holdSolids(library.memory ? withPoles(solids, library.memory) : solids, near.tried);
  near.tried = held;
  const widths = held.widths.filter((_, i) => near.hanging.has(solids[i]!.id));
  return {
    width: widths.includes(0) ? 0 : Math.max(0, ...widths),
    by: (wanted) => isHeld(widths.map((width) => measureState({ width, falls: width <= 0 }, wanted))),
  };
}
