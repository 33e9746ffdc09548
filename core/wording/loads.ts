/**
 * What the load test says.
 */
import type { Labels } from "../judge";
import { formatLength, type HeldBy, type Piece, type Units } from "../piece";
import type { Fingered, Forces, LetterLoad, LoadTest, UseLoad } from "../strength";
import { capital, countWord, nameOf } from "./names";

export function newton(force: number): string {
  if (!Number.isFinite(force)) return "any force";
  return `${Number.isInteger(force) || force >= 10 ? force.toFixed(0) : force.toFixed(1)} N`;
}

const HELD: Record<Exclude<HeldBy, "stick">, string> = {
  stake: "Held by its point in the soil",
  loop: "Held by its loop",
  bar: "Standing on its bar, held by the lowest third",
  backing: "Held by the lowest third of its backing",
  holder: "Held by the lowest third of what its letters hang on",
  letters: "Held by its largest letter, since nothing else holds it",
};

export const heldSentence = (by: HeldBy, purpose: Piece["purpose"]): string =>
  by === "stick" ? `Held by its stick, two thirds of it in the ${purpose === "stake" ? "soil" : "cake"}.` : `${HELD[by]}.`;

/** What a piece is held by, for a list to choose from. */
const HELD_TEXTS: Record<HeldBy, string> = {
  stick: "its stick",
  stake: "its point",
  loop: "its loop",
  bar: "its bar",
  backing: "its backing",
  holder: "what its letters hang on",
  letters: "its largest letter",
};
export const describeHeldBy = (by: HeldBy): string => HELD_TEXTS[by];

export const FORCE_NAMES: Record<keyof Forces, string> = { finger: "A finger", planting: "Planting", tugging: "Tugging" };

export const gramsText = (grams: number): string => `${grams < 10 ? grams.toFixed(1) : grams.toFixed(0)} g`;

/** "The k gives way at 3.1 N; a careless finger is 5 N." */
export function loadSentence({ letters, finger, uses }: LoadTest, labels: Labels): string {
  const [weakest] = letters;
  if (!weakest) {
    const tip = uses[0];
    if (!tip) return "Nothing hangs on what is held.";
    return tip.takes < finger
      ? `Pushed at its far end the piece breaks at ${newton(tip.takes)}; a careless finger is ${newton(finger)}.`
      : `Pushed at its far end the piece takes ${newton(tip.takes)}; a careless finger is ${newton(finger)}.`;
  }
  const broken = letters.filter(({ takes }) => takes < finger).length;
  const name = nameOf(labels.get(weakest.id));
  if (broken === 0)
    return `Every letter takes a careless finger of ${newton(finger)}. The first to break is ${name}, at ${newton(weakest.takes)}.`;
  if (broken === 1) return `${capital(name)} gives way at ${newton(weakest.takes)}; a careless finger is ${newton(finger)}.`;
  const all = broken === letters.length ? "All letters" : `${capital(countWord(broken))} of ${letters.length} letters`;
  return `${all} would break under a careless finger of ${newton(finger)}. The weakest is ${name}, at ${newton(weakest.takes)}.`;
}

/** "Pushed in with 20 N, a little askew," */
export function describeLoad(load: UseLoad["kind"] | LetterLoad["direction"], force: number, into?: string): string {
  switch (load) {
    case "planting":
      return `Pushed ${into ? `into the ${into}` : "in"} with ${newton(force)}, a little askew,`;
    case "tugging":
      return `Tugged by its ring with ${newton(force)}, straight and a little askew,`;
    case "hanging":
      return `Jerked while it hangs, by ten times its weight, ${newton(force)},`;
    case "dropping":
      return `Dropped flat, with fifty times its weight, ${newton(force)},`;
    case "peeling":
      return `When its film is pulled off with ${newton(force)}`;
    case "at the far end":
      return `Pushed at its far end with ${newton(force)}`;
    default:
      return `${PUSHED[load]} with ${newton(force)}`;
  }
}

/** "Pushed into the cake with 20 N, a little askew, it holds; it breaks at 64 N." */
export function inUseSentence({ kind, force, takes }: UseLoad, purpose: Piece["purpose"]): string {
  const said = describeLoad(kind, force, purpose === "stake" ? "soil" : "cake");
  return takes < force
    ? `${said} it breaks: it takes ${newton(takes)}.`
    : `${said} it holds; it ${Number.isFinite(takes) ? `breaks at ${newton(takes)}` : "takes any force"}.`;
}

export const takesText = ({ takes }: Pick<LetterLoad, "takes">): string => newton(takes);

const PUSHED: Record<LetterLoad["direction"], string> = {
  sideways: "Pushed sideways",
  "up and down": "Pushed up or down",
  "out of the sheet": "Pushed out of the sheet",
};

/** "Pushed out of the sheet with 5 N it gives way 2.3 mm. It breaks at 3.1 N, where it is 1.9 mm wide." */
export function fingerSentence({ direction, takes, gives, breaks }: Fingered, finger: number, units: Units): string {
  const bends = `${PUSHED[direction]} with ${newton(finger)} it ${takes < finger ? "would give way" : "gives way"} ${formatLength(gives, units, units === "mm" ? 1 : 2)}.`;
  if (!Number.isFinite(takes)) return bends;
  return `${bends} It breaks at ${newton(takes)}, where it is ${formatLength(breaks.width, units, units === "mm" ? 1 : 2)} wide after the cut.`;
}
