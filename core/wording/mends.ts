/**
 * Mends as sentences: what each does, and what is left with the reason and the next step.
 */
import type { Point } from "../geometry";
import { type Labels, MENDABLE } from "../judge";
import type { MendAction, MendedAll } from "../mend";
import { formatLength, type Units } from "../piece";
import { describeFinding } from "./findings";
import { titleOf } from "./names";

/** What was done, one line for each kind of mend. */
export function describeAllDone(done: MendedAll["done"], labels: Labels, units: Units): string[] {
  const kinds = new Map<string, MendedAll["done"]>();
  for (const each of done) kinds.set(each.action.does, [...(kinds.get(each.action.does) ?? []), each]);
  return [...kinds.values()].map(([first, ...more]) => {
    const told = describeDone(first!, labels, units);
    return more.length === 0 ? `${told}.` : `${told}, and ${more.length} more like it.`;
  });
}

/** "The dot of the first i: lower it 3.1 mm"; what is for several places at once stands alone. */
function describeDone({ action, findings }: MendedAll["done"][number], labels: Labels, units: Units): string {
  const mend = describeMend(action, units);
  const part = findings.length === 1 ? labels.get(findings[0]!.parts[0] ?? "") : undefined;
  return part ? `${titleOf(part)}: ${mend.charAt(0).toLowerCase()}${mend.slice(1)}` : mend;
}

/** "Lower it 3.1 mm" */
export function describeMend(action: MendAction, units: Units): string {
  const say = (mm: number) => formatLength(mm, units, mm < 0.1 ? 2 : 1);
  switch (action.does) {
    case "lower dot":
      return `Lower it ${say(action.by)}`;
    case "stretch down":
      return `Stretch it down ${say(action.by)}`;
    case "move":
      return `Move ${action.many ? "them" : "it"} ${say(action.by)} ${direction(action.direction)}`;
    case "bring closer":
      return `Bring ${action.many ? "them" : "it"} ${say(action.by)} closer`;
    case "overlap":
      return action.part === "bar"
        ? `Let the bar reach ${say(action.by)} higher`
        : `Let the ${action.part} bite ${say(action.by)} deeper`;
    case "grow":
      return `Make the ${action.part} ${say(action.by)} ${GROWN[action.part] ?? "wider"}`;
    case "smaller hole":
      return `Make the hole ${say(action.hole)}`;
    case "tie":
      return `Tie it with a bar of ${say(action.width)}`;
    case "strengthen":
      return `Strengthen it with a tie of ${say(action.width)}`;
    case "second tie":
      return `Hold it a second time, with a tie of ${say(action.width)}`;
    case "tie together":
      return `Tie it together with ${action.count} ${action.count === 1 ? "tie" : "ties"} of ${say(action.width)}`;
    case "add bar":
      return `Put a bar under the letters, ${say(action.into)} into them`;
    case "thicken":
      return `Thicken the ${action.drawing ?? "word"} by ${say(action.by)}`;
    case "thicken words":
      return `Thicken the ${action.count > 1 ? "words" : "word"}`;
    case "larger":
      return `Make the ${action.drawing ?? "word"} larger`;
    case "smaller":
      return `Make the letters ${percent(action.share)} as large`;
    case "other form":
      return `Another form of the ${action.letter}`;
    case "leave out":
      return "Leave it out";
    case "bridges":
      return "Let bridges hold what the letters enclose";
    case "hang straight":
      return "Hang it straight";
    case "stand upright":
      return "Move the stick under the centre of mass";
    case "fill":
      return `Fill the ${action.what}`;
    case "onto material":
      return action.share === 1
        ? "Move it onto the material"
        : `Make it ${percent(action.share)} as large and move it onto the material`;
    case "mirror twin":
      return "Mirror the engraving there too";
    case "as material":
      return "Make it part of the piece";
  }
}

/** What growing does to a part, where it is not made wider. */
const GROWN: Partial<Record<Extract<MendAction, { does: "grow" }>["part"], string>> = {
  bar: "higher",
  backing: "larger all round",
  plate: "larger all round",
};

const percent = (share: number) => `${Math.round(100 * share)} %`;

function direction({ x, y }: Point): string {
  if (Math.abs(y) > 2 * Math.abs(x)) return y < 0 ? "down" : "up";
  if (Math.abs(x) > 2 * Math.abs(y)) return x < 0 ? "left" : "right";
  return `${y < 0 ? "down" : "up"} and ${x < 0 ? "left" : "right"}`;
}

type Left = MendedAll["left"][number];

/** What is left, the reason, and the next step. */
export function describeLeft({ finding, tooMuch }: Left, labels: Labels, units: Units): string {
  const what = describeFinding(finding, labels, units);
  if (tooMuch) return `${what} Left, since it would change a larger part of the piece: ${describeMend(tooMuch, units)}.`;
  const step = MENDABLE.has(finding.kind) ? nextStep(finding) : "";
  return step ? `${what} ${step}` : what;
}

function nextStep({ kind, parts }: Left["finding"]): string {
  switch (kind) {
    case "loose":
    case "island":
      return parts.length > 1
        ? "No tie or move was found that holds them: put a bar or a backing under them."
        : "No tie or move was found that holds it: bring it nearer, or put a bar or a backing under it.";
    case "thin-joint":
    case "thin-stroke":
      return "No tie was found that makes it wide enough: thicken the word, make it larger, or choose heavier lettering.";
    default:
      return "";
  }
}
