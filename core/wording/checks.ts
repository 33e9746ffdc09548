/**
 * What is to be looked at before cutting, and what was put right in a drawing, as sentences.
 */
import type { Check } from "../cut";
import type { Repair } from "../drawings";
import type { Labels } from "../judge";
import { formatLength, type Units } from "../piece";
import { describeFinding } from "./findings";
import { placeName } from "./names";

export function describeCheck(check: Check, labels: Labels, units: Units): string {
  const mm = (value: number, digits?: number) => formatLength(value, units, digits);
  const size = ([w, h]: readonly [number, number]) => `${mm(w)} × ${mm(h)}`;
  switch (check.about) {
    case "finding":
      return describeFinding(check.finding, labels, units);
    case "bed": {
      const than = `the bed of “${check.machine}”: ${size(check.bed)}`;
      return check.turned
        ? `It is ${size(check.size)} and fits ${than} only when it is turned by a quarter. Turn it at the machine.`
        : `It is ${size(check.size)}, larger than ${than}. Make it smaller, or choose another machine.`;
    }
    case "start hole":
      return `A void only ${mm(check.width)} wide has no room for a start hole of ${mm(check.drill)}. Take a finer drill, or fill the void.`;
    case "grain": {
      const { parts, width, wanted } = check.grain;
      return `Short grain at ${placeName(parts, labels)}: the fibres run across this joint of ${mm(width)}; it wants ${mm(wanted)} there. Turn the grain, or make the joint wider.`;
    }
    case "crumbs": {
      const [are, them] = check.count === 1 ? ["outline is", "it"] : ["outlines are", "them"];
      return `${check.count} ${are} smaller than the cut is wide (${mm(check.kerf, 2)}); nothing will be seen of ${them}.`;
    }
  }
}

export function describeRepair(repair: Repair, units: Units): string {
  switch (repair.what) {
    case "closed":
      return repair.open === undefined
        ? `${repair.id} closed`
        : `${repair.id} closed over ${formatLength(repair.open, units, 2)}`;
    case "twin":
      return `${repair.id}, which lay on ${repair.twin}, left out`;
    case "crumbs":
      return `${repair.count} ${repair.count === 1 ? "crumb" : "crumbs"} left out`;
  }
}

export const describeMarks = (count: number): string =>
  `${count} ${count === 1 ? "shape is" : "shapes are"} to be scored or engraved by colour or layer, and not cut`;
