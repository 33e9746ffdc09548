/**
 * Findings as sentences: what, where, how much, what to do.
 */
import type { Finding, FindingOf, Labels, PartLabel } from "../judge";
import { formatLength, formatNumber, type Units } from "../piece";
import { describeLoad, newton } from "./loads";
import { capital, countWord, listOf, nameOf, placeName } from "./names";

/** @param labels how the parts are called that the finding names */
export function describeFinding(finding: Finding, labels: Labels, units: Units): string {
  const { parts, meeting, width } = finding;
  const names = parts.map((id) => nameOf(labels.get(id)));
  const first = names[0] ?? "a part";
  const mm = (value: number, digits?: number) => formatLength(value, units, digits);
  const size = ([w, h]: readonly [number, number]) => `${mm(w)} × ${mm(h)}`;
  const where = (of: "Beside" | "In") => (parts.length > 1 ? `Between ${placeName(parts, labels)}` : `${of} ${first}`);
  switch (finding.kind) {
    case "loose": {
      const many = parts.length > 1;
      const verb = `${capital(listOf(names))} ${many ? "are" : "is"} not joined${many ? " to the rest" : ""}.`;
      return `${verb} ${wayBack(finding, many, units)}`;
    }
    case "island": {
      const area = formatArea(finding.beyond?.area ?? 0, units);
      return `A separate piece of ${listOf(names)}, ${area}, is not joined to the rest and falls off. ${wayBack(finding, false, units)}`;
    }
    case "thin-joint":
      return thinJoint(finding, labels, units);
    case "thin-stroke": {
      const [is, wanted] = beside(width, finding.wanted, units);
      const says = finding.means === "falls" ? `. ${cutThrough(finding, units)}` : `; it wants ${wanted}.`;
      return `${capital(first)} is only ${is} wide here${says}${hangs(finding, units)} ${adviceFor(labels.get(parts[0]!))}`;
    }
    case "hairline": {
      // A hair below the limit must not read as if it were the limit.
      const [narrowest, wanted] = beside(width, finding.wanted, units);
      const many = finding.places > 1;
      const stroke = many ? "has strokes" : "has a stroke";
      const one = `${capital(first)} ${labels.get(parts[0]!)?.kind === "letter" ? stroke : "is"}`;
      const is = meeting > 1 ? `The place ${placeName(parts, labels)} is` : one;
      const often = many ? ` in ${countWord(finding.places)} places` : "";
      const here = many ? "these places, but they" : "this place, but it";
      return `${is} only ${narrowest} wide${often}; it wants ${wanted}. Nothing hangs on ${here} may burn through.`;
    }
    case "thin-tail":
      return `The tail of ${first} is narrower than ${mm(finding.wanted)} over its last ${mm(finding.reach ?? 0)}: it breaks or burns easily. Shorten it, tie its end down, or choose heavier lettering.`;
    case "narrow-gap": {
      const gap = width < 0.01 ? "a hair-thin gap" : `a gap of only ${mm(width, 2)}`;
      return `${where("Beside")} ${gap} is left; the cut is ${mm(finding.cut, 2)} wide. Close it, or make it wider.`;
    }
    case "small-hole":
      return `${where("In")} is a hole only ${mm(width, 2)} wide. The cut needs ${mm(finding.wanted)}. Fill it, or make it wider.`;
    case "swallowed":
      return `${capital(first)} is swallowed by ${names[1]}: nothing of its outline is left. Move it out, or leave it out.`;
    case "sunk":
      return `${capital(first)} sits ${mm(width)} deep in ${names[1]}; ${Math.round(finding.share * 100)} % of its outline is left, so it loses its look. Move it out a little.`;
    case "gives-way":
      return givesWay(finding, labels, units);
    case "untested":
      return `What it must bear cannot be worked out. ${finding.why}.`;
    case "missing-letter":
      if (finding.why === "no font") return `The lettering "${finding.font}" is not here. Choose another.`;
      if (finding.why === "too thin")
        return `Nothing is left of ${finding.letters} when its strokes are made so thin. Make them thicker.`;
      return `${finding.font} has no ${finding.letters}. Choose other lettering, or leave it out.`;
    case "mark-lost":
    case "carve-lost":
      return lostMark(finding, labels);
    case "twin-mark-lost":
      return lostOnTwin(finding, labels);
    case "pair-touches":
      return `The two of the pair lie ${mm(finding.apart, 2)} apart, less than the cut takes: their edges would be cut twice. Leave ${mm(finding.wanted)} or more.`;
    case "hole-too-large":
      return `The hole of the loop, ${mm(finding.hole)}, is as large as the loop itself, ${mm(finding.outer)}: no ring is left. Make the hole smaller.`;
    case "beyond-line":
      return `The line is ${mm(finding.short)} too short: ${finding.letters || "its end"} ${finding.many ? "stand" : "stands"} beyond it. Make the line longer, the letters smaller, or bring them closer.`;
    case "size-missed": {
      const short = ([w, h]: readonly [number, number]) => `${formatNumber(w, units)} × ${mm(h)}`;
      return `The word cannot be ${short(finding.asked)}: it is ${short(finding.got)}. Its spacing, its line or moved letters leave no other size.`;
    }
    case "hangs-askew": {
      const side = finding.turn > 0 ? "right" : "left";
      return `It will hang ${Math.abs(finding.turn).toFixed(0)}° turned, its lower end to the ${side}: the centre of mass is not below the loop. Move the loop.`;
    }
    case "leans":
      return `It will lean: the centre of mass is ${mm(finding.out)} ${finding.side} of the stick. Move the stick below it, or add a second one.`;
    case "thick-stick":
      return `The stick is ${mm(finding.stick)} wide, thicker than the strokes around it: ${mm(finding.stroke)} at the most. Make it narrower, or put it below a wider place.`;
    case "too-large":
      return `It is ${size(finding.size)}, larger than the ${size(finding.most)} it may be. Make the words smaller, or the limit larger.`;
    case "empty":
      return finding.why === "no words"
        ? "There is nothing to cut yet: type a word."
        : "The words are empty: only what should hold them would be cut. Type a word.";
    case "duplicate":
      return finding.drawn
        ? `${parts[0]} lies exactly on ${parts[1]}: it would be cut twice and burn. Take one away.`
        : `${twice(first, names[1]!)}. Remove one.`;
    case "open-outline":
      return openOutline(finding, units);
    case "no-area":
      if (finding.what === "shape")
        return `${parts[0]} encloses no area, so there is nothing to cut out. Close it, or leave it out.`;
      return "wanted" in finding
        ? `All of it is smaller than ${mm(finding.wanted)}: is the unit of the file right?`
        : "No outline encloses an area: there is nothing to cut out.";
  }
}

function thinJoint(finding: FindingOf<"thin-joint">, labels: Labels, units: Units): string {
  const { parts, meeting, width, bite, means } = finding;
  const [is, wanted] = beside(width, finding.wanted, units);
  const goes = parts.slice(meeting).filter((id) => labels.get(id)?.kind === "letter");
  const loss = goes.length > 0 ? ` ${capital(listOf(goes.map((id) => nameOf(labels.get(id)))))} would go with it.` : "";
  const joint = `The joint ${placeName(parts.slice(0, meeting), labels)} is only ${is}`;
  if (means === "falls") return `${joint}. ${cutThrough(finding, units)}${loss} Overlap the parts by ${wanted} or more.`;
  const deep = bite ? ` They overlap ${formatLength(bite.depth, units)} deep over ${formatLength(bite.length, units)}:` : "";
  return `${joint}; it wants ${wanted}.${loss}${hangs(finding, units)}${deep} ${bite ? "bring" : "Bring"} the parts closer or overlap them more.`;
}

/** Nobody makes a stroke so many times as wide. */
const ODD = 3;

/** "The k gives way at 3.1 N, where it is 1.9 mm wide; a careless finger is 5 N." */
function givesWay(finding: FindingOf<"gives-way">, labels: Labels, units: Units): string {
  const { parts, meeting, letters, takes, force, load, width } = finding;
  const [is, wanted] = beside(width, finding.wanted, units);
  const place = parts.slice(0, meeting).find((id) => labels.get(id)?.kind !== "letter");
  const name = nameOf(labels.get(place ?? parts[0] ?? ""));
  const where = `where ${place === undefined && letters.length === 1 ? "it" : name} is ${is} wide`;
  const isOdd = finding.wanted > ODD * width;
  const advice = isOdd
    ? "Hold it a second time, or take a thicker sheet."
    : `Make ${place === undefined ? "it" : name} ${wanted} there, or hold it a second time.`;
  if (letters.length === 0) return `${describeLoad(load, force)} it breaks at ${newton(takes)}, ${where}. ${advice}`;
  const names = capital(listOf(letters.map((id) => nameOf(labels.get(id)))));
  const many = letters.length > 1;
  const at = many ? `give way, the first at ${newton(takes)}` : `gives way at ${newton(takes)}`;
  return `${names} ${at}, ${where}; a careless finger is ${newton(force)}. ${advice}`;
}

const cutThrough = ({ lost }: { lost: number }, units: Units) =>
  `The cut takes ${formatLength(lost, units)} and goes through it.`;

const hangs = ({ beyond }: Finding, units: Units) =>
  beyond ? ` ${formatArea(beyond.area, units)} of it would break off there.` : "";

/** A width beside the one that is wanted, with so many digits that the two do not read the same. */
function beside(width: number, wanted: number, units: Units): [string, string] {
  const digits = formatLength(width, units) === formatLength(wanted, units) ? 2 : 1;
  return [formatLength(width, units, digits), formatLength(wanted, units, digits)];
}

const OF_LETTERS: ReadonlySet<PartLabel["kind"]> = new Set(["letter", "dot", "accent", "speck"]);

/** What makes a part wider that is too thin itself. */
function adviceFor(label: PartLabel | undefined): string {
  if (!label || OF_LETTERS.has(label.kind)) return "Make it larger or choose heavier lettering.";
  return label.kind === "island" ? "Strengthen it with a tie." : "Make it wider.";
}

function wayBack({ gap, wanted }: FindingOf<"loose" | "island">, many: boolean, units: Units): string {
  const it = many ? "them" : "it";
  if (!gap) return `There is nothing to hold ${it}: add a bar or a stick.`;
  const least = formatLength(wanted, units);
  if (gap.width < 0.02) return `The outlines only touch in a point: overlap them by ${least} or more.`;
  const short = formatLength(gap.width, units, gap.width < 0.1 ? 2 : 1);
  return `${many ? "They are" : "It is"} ${short} short of the nearest material: move ${it} until they overlap.`;
}

function lostMark({ kind, parts, whole }: FindingOf<"mark-lost" | "carve-lost">, labels: Labels): string {
  const names = [...new Set(parts.map((id) => nameOf(labels.get(id))))];
  const are = `${capital(listOf(names))} ${names.length > 1 ? "are" : "is"}`;
  if (kind === "mark-lost") {
    const how = whole ? "engraved beside the material" : "engraved partly beside the material, across the cut";
    return `${are} ${how}. Make the plate larger, or the words smaller.`;
  }
  return whole
    ? `${are} cut out where there is no material: nothing of it will be seen. Move it onto the material.`
    : `${are} cut out where there is not material all around: its shape is lost. Move it onto the material.`;
}

function lostOnTwin({ parts, whole }: FindingOf<"twin-mark-lost">, labels: Labels): string {
  const names = [...new Set(parts.map((id) => nameOf(labels.get(id))))];
  const lie = `${listOf(names)} ${names.length > 1 ? "lie" : "lies"} ${whole ? "" : "partly "}beside the material`;
  return `On the mirrored one of the pair, where engraving stays readable, ${lie}. Mirror it there too, or make room on both sides.`;
}

function openOutline({ parts: [id], open, closed }: FindingOf<"open-outline">, units: Units): string {
  if (open === undefined) return `${id} is an open line. It was closed with a straight edge for the check.`;
  return closed
    ? `${id} is open by ${formatLength(open, units, 2)}. It was closed for the check; the machine would not free it.`
    : `${id} is an open line: its ends are ${formatLength(open, units)} apart, so it frees nothing. Close it, or give it the colour of scoring.`;
}

const twice = (one: string, other: string) =>
  one === other
    ? `${capital(one)} is there twice, one exactly on the other`
    : `${capital(one)} and ${other} are the same outline, one on the other`;

/** "21 mm²", "0.033 in²" */
function formatArea(area: number, units: Units): string {
  const [value, unit] = units === "mm" ? [area, "mm²"] : [area / 25.4 ** 2, "in²"];
  const digits = units === "mm" ? (value < 1 ? 2 : value < 10 ? 1 : 0) : 3;
  return `${value.toFixed(digits)} ${unit}`;
}
