/**
 * What is said of outlines that are brought in.
 */
import type { BroughtIn } from "../drawings";
import { formatLength, type Units } from "../piece";

const many = (count: number, one: string, more = `${one}s`) => `${count.toLocaleString("en")} ${count === 1 ? one : more}`;

export function describeBroughtIn({ what, count }: BroughtIn): string {
  switch (what) {
    case "closed":
      return `${many(count, "open outline was", "open outlines were")} closed: the ends lay less than 1 mm apart.`;
    case "open":
      return `${many(count, "open line was", "open lines were")} left out. Give them a width to have them.`;
    case "given width":
      return `${many(count, "open line was", "open lines were")} given a width.`;
    case "twins":
      return `${many(count, "outline lay", "outlines lay")} exactly on another and ${count === 1 ? "was" : "were"} left out.`;
    case "crumbs":
      return `${many(count, "outline was", "outlines were")} too small to be cut and ${count === 1 ? "was" : "were"} left out.`;
  }
}

export function describeLeftOut({ specks, holes }: { specks: number; holes: number }): string {
  const what = [specks > 0 ? many(specks, "speck") : "", holes > 0 ? many(holes, "hole") : ""].filter((each) => each !== "");
  return `Left out as too small: ${what.join(" and ")}.`;
}

/** What chosen outlines would be as a part. */
export interface ChosenFacts {
  nodes: number;
  pieces: number;
  /** mm; 0 where nothing is thin. */
  thinnest: number;
  wanted: number;
}

export function describeChosen({ nodes, pieces, thinnest, wanted }: ChosenFacts, units: Units): string[] {
  const lines = [`${many(nodes, "node")}, ${many(pieces, "piece")}.`];
  if (pieces > 1) lines.push("The pieces do not hang together: letters, a bar, or ties have to join them.");
  if (thinnest > 0 && thinnest < wanted) {
    lines.push(
      `Its thinnest place is ${formatLength(thinnest, units, 1)} at this size; the sheet wants ${formatLength(wanted, units, 1)}. Make it larger, or thicken it where it was drawn.`,
    );
  }
  return lines;
}
