/**
 * What holds the letters, as sentences: "It is 12.0 mm across with a hole of 8.0 mm, sits at the top and reaches 2.5 mm into the material."
 */
import {
  type Backing,
  type Bar,
  type DrawingPart,
  formatLength,
  formatNumber,
  type Loop,
  type Ornament,
  type Part,
  type Shape,
  type Stake,
  type Stick,
  type Tie,
  type Units,
  type Word,
} from "../piece";
import type { SentenceChoice } from "./lines";

export type Holder = Exclude<Part, Word>;

/** What of a holder is decided in one place. */
export type HolderChoiceKey =
  | "form"
  | "size"
  | "height"
  | "overlap"
  | "corner"
  | "bite"
  | "place"
  | "tip"
  | "bend"
  | "ends"
  | "holes"
  | "letters"
  | "behind"
  | "frame"
  | "gap"
  | "point"
  | "turn"
  | "meets"
  | "round"
  | "holder"
  | "thicken";

type Choices = SentenceChoice<HolderChoiceKey>[];
type Say = (mm: number) => string;

/** @param engraved do all letters lie engraved on the backing? */
export function holderSentence(part: Holder, units: Units, engraved = false): Choices {
  const say: Say = (mm) => formatLength(mm, units);
  switch (part.kind) {
    case "bar":
      return barSentence(part, say);
    case "stick":
      return stickSentence(part, say);
    case "tie":
      return tieSentence(part, say);
    case "fill":
      return [
        { key: "size", label: "Width", lead: "closes", says: `gaps up to ${say(part.width)}`, usual: false },
        { key: "place", label: "Around", lead: "reaches", says: `${say(part.reach)} around`, usual: false },
      ];
    case "loop":
      return loopSentence(part, say);
    case "backing":
      return backingSentence(part, engraved, say);
    case "shape":
      return shapeSentence(part, units, say);
    case "stake":
      return stakeSentence(part, say);
    case "ornament":
      return ornamentSentence(part, say);
    case "drawing":
      return drawingSentence(part, say);
  }
}

const corners = (radius: number, say: Say) => (radius === 0 ? "square corners" : `corners of radius ${say(radius)}`);
const article = (noun: string) => `${/^[aeiou]/.test(noun) ? "an" : "a"} ${noun}`;

function aside(dx: number, dy: number, say: Say): string {
  const across = dx === 0 ? "" : `${say(Math.abs(dx))} to the ${dx > 0 ? "right" : "left"}`;
  const up = dy === 0 ? "" : `${say(Math.abs(dy))} ${dy > 0 ? "up" : "down"}`;
  return [across, up].filter((each) => each !== "").join(" and ");
}

const bites = (mm: number, say: Say) => (mm < 0 ? `to ${say(-mm)} short of the material` : `${say(mm)} into the material`);

function barSentence({ length, overhang, height, overlap, corner }: Bar, say: Say): Choices {
  const fit =
    overhang === 0
      ? "as long as the lettering"
      : `${say(Math.abs(overhang))} ${overhang > 0 ? "longer" : "shorter"} at each end than the lettering`;
  const reaches =
    overlap === 0 ? "up to the baseline" : `${say(Math.abs(overlap))} ${overlap > 0 ? "above" : "short of"} the baseline`;
  return [
    { key: "size", label: "Length", lead: "is", says: length === "fit" ? fit : `${say(length)} long`, usual: false },
    { key: "height", label: "Height", lead: "is", says: `${say(height)} high`, usual: false },
    { key: "overlap", label: "Overlap", lead: "reaches", says: reaches, usual: false },
    { key: "corner", label: "Corners", lead: "has", says: corners(corner, say), usual: corner === 0 },
  ];
}

function stickSentence({ width, length, bite, under, dx, tip }: Stick, say: Say): Choices {
  const middle = under === "mass" ? "the centre of mass" : "the middle";
  return [
    { key: "size", label: "Size", lead: "is", says: `${say(width)} wide and ${say(length)} long`, usual: false },
    { key: "bite", label: "Bite", lead: "reaches", says: bites(bite, say), usual: false },
    {
      key: "place",
      label: "Place",
      lead: "stands",
      says: dx === 0 ? `under ${middle}` : `${aside(dx, 0, say)} of ${middle}`,
      usual: false,
    },
    { key: "tip", label: "Tip", lead: "has", says: `a ${tip} tip`, usual: tip === "round" },
  ];
}

function tieSentence({ width, bend = 0, square }: Tie, say: Say): Choices {
  return [
    { key: "size", label: "Width", lead: "is", says: `${say(width)} wide`, usual: false },
    { key: "place", label: "Angle and length", lead: "lies", says: "where its ends were put", usual: true },
    {
      key: "bend",
      label: "Bend",
      lead: "is",
      says: bend === 0 ? "straight" : `bent by ${say(Math.abs(bend))}`,
      usual: bend === 0,
    },
    { key: "ends", label: "Ends", lead: "has", says: `${square ? "square" : "round"} ends`, usual: !square },
  ];
}

/** Directions in which a loop sits most. */
const SIDES: Record<number, string> = { 0: "at the right", 90: "at the top", 180: "at the left", 270: "at the bottom" };

function loopSentence({ outer, hole, angle, bite }: Loop, say: Say): Choices {
  const around = ((angle % 360) + 360) % 360;
  return [
    { key: "size", label: "Size", lead: "is", says: `${say(outer)} across with a hole of ${say(hole)}`, usual: false },
    { key: "place", label: "Place", lead: "sits", says: SIDES[around] ?? `at ${Math.round(around)}°`, usual: false },
    { key: "bite", label: "Bite", lead: "reaches", says: bites(bite, say), usual: false },
  ];
}

function backingSentence({ distance, corners: form, holes, meets, lap }: Backing, engraved: boolean, say: Say): Choices {
  const looks = { round: "round corners", sharp: "sharp corners", bevelled: "corners cut off" }[form];
  const kept = typeof holes === "number" ? `filled below ${say(holes)}` : holes === "fill" ? "filled" : "kept";
  return [
    { key: "size", label: "Size", lead: "is", says: `${say(distance)} larger than the letters`, usual: false },
    { key: "corner", label: "Corners", lead: "has", says: looks, usual: form === "round" },
    { key: "holes", label: "Holes in it", lead: "has its holes", says: kept, usual: holes === "fill" },
    {
      key: "letters",
      label: "Letters on it",
      lead: "has the letters",
      says: engraved ? "engraved on it" : "as part of the outline",
      usual: false,
    },
    behind(meets, lap, say),
  ];
}

const behind = (meets: "add" | "carve" | "halo" | "set-in", lap: number, say: Say): Choices[number] => ({
  key: "behind",
  label: "Shapes behind it",
  lead: "lets shapes behind it",
  says: meets === "set-in" ? `end ${say(lap)} inside its edge` : "go on",
  usual: meets !== "set-in",
});

/** Forms that have corners to round. */
const CORNERED: ReadonlySet<Shape["form"]> = new Set(["plate", "arch", "tag", "shield", "banner"]);

export const SHAPE_NAMES: Record<Shape["form"], string> = {
  disc: "disc",
  oval: "oval",
  plate: "rounded plate",
  arch: "arch",
  tag: "tag",
  shield: "shield",
  cloud: "cloud",
  banner: "banner",
};

function shapeSentence(shape: Shape, units: Units, say: Say): Choices {
  const { form, size, corner, centre, dx, dy, meets, lap } = shape;
  const around = centre === "ring" ? "the ring of letters" : "the lettering";
  const own = ({ width, height }: { width: number; height: number }) =>
    form === "disc" ? `${say(Math.min(width, height))} across` : `${formatNumber(width, units)} × ${say(height)}`;
  const large = size.by === "own" ? own(size) : `${fitting(size.margin, say)} the lettering`;
  const choices: Choices = [
    { key: "form", label: "Form", lead: "is", says: article(SHAPE_NAMES[form]), usual: false },
    { key: "size", label: "Size", lead: "is", says: large, usual: false },
    { key: "frame", label: "Made as", lead: "is", says: frameOf(shape, say), usual: false },
    {
      key: "place",
      label: "Place",
      lead: "lies",
      says: dx === 0 && dy === 0 ? `in the middle of ${around}` : `${aside(dx, dy, say)} of the middle`,
      usual: dx === 0 && dy === 0 && centre === undefined,
    },
  ];
  if (CORNERED.has(form)) choices.push({ key: "corner", label: "Corners", lead: "has", says: corners(corner, say), usual: true });
  if (meets === "add" || meets === "set-in") choices.push(behind(meets, lap, say));
  return choices;
}

function fitting(margin: number, say: Say): string {
  return margin === 0 ? "as large as" : `${say(Math.abs(margin))} ${margin > 0 ? "larger" : "smaller"} all round than`;
}

function frameOf({ frame, opening, bar }: Pick<Shape, "frame" | "opening" | "bar">, say: Say): string {
  if (frame === undefined) return "solid";
  const wide = `a frame ${say(frame)} wide`;
  if (opening === "behind") return `${wide} that ends in the word`;
  return opening === "bars" ? `${wide}, open between bars ${say(bar)} high` : wide;
}

function stakeSentence({ below, gap, clear, bite, margin, point, total, corner }: Stake, say: Say): Choices {
  const end = point === 0 ? "no point" : `a point ${say(point)} long`;
  return [
    {
      key: "size",
      label: "Body",
      lead: "has a body of",
      says: `${say(below)} below the letters and ${say(margin)} on either side`,
      usual: false,
    },
    { key: "bite", label: "Letters reach", lead: "takes in the letters by", says: say(bite), usual: false },
    {
      key: "gap",
      label: "Clear space",
      lead: "leaves",
      says: `${say(gap)} clear ${clear === undefined ? "around them" : `to the ${clear} of them`}`,
      usual: false,
    },
    {
      key: "point",
      label: "Point",
      lead: "ends in",
      says: total === undefined ? end : `a point that makes it ${say(total)} long in all`,
      usual: false,
    },
    { key: "corner", label: "Corners", lead: "has", says: corners(corner, say), usual: true },
  ];
}

function drawingSentence(part: DrawingPart, say: Say): Choices {
  const { name, height, turn, mirror, at, meets, gap, lap, thicken, round, frame, holder } = part;
  const texts: Record<DrawingPart["meets"], string> = {
    add: "joined to what it touches",
    carve: "knocked out",
    halo: `free in a gap of ${say(gap)}`,
    "set-in": `in the place of what lies behind it, less ${say(lap)}`,
    engrave: "engraved",
    score: "scored",
  };
  const grown = `strokes ${say(Math.abs(thicken))} ${thicken > 0 ? "thicker" : "thinner"}`;
  const strokes = thicken === 0 ? "its strokes as drawn" : grown;
  return [
    { key: "form", label: "Name", lead: "is", says: `the outline “${name}”`, usual: false },
    { key: "size", label: "Height", lead: "is", says: `${say(height)} high`, usual: false },
    { key: "frame", label: "Solid or frame", lead: "is", says: frameOf(part, say), usual: frame === undefined },
    turnChoice(turn, mirror),
    placeChoice(at, say),
    { key: "thicken", label: "Strokes", lead: "has", says: strokes, usual: thicken === 0 },
    roundChoice(round, say),
    { key: "meets", label: "It", lead: "is", says: texts[meets], usual: false },
    {
      key: "holder",
      label: "Does it hold",
      lead: "holds",
      says: holder ? "the letters, as a bar does" : "nothing by itself",
      usual: !holder,
    },
  ];
}

function turnChoice(turn: number, mirror: boolean): Choices[number] {
  const turned = [turn === 0 ? "" : `turned by ${turn}°`, mirror ? "mirrored" : ""].filter((each) => each !== "");
  const says = turned.length > 0 ? turned.join(" and ") : "upright";
  return { key: "turn", label: "Turn", lead: "is", says, usual: turned.length === 0 };
}

function placeChoice(at: Ornament["at"], say: Say): Choices[number] {
  const from = at.letter ? " of its letter" : "";
  return {
    key: "place",
    label: "Place",
    lead: "lies",
    says: `${aside(at.x, at.y, say) || "in the middle"}${from}`,
    usual: false,
  };
}

function roundChoice(round: number, say: Say): Choices[number] {
  const says = round === 0 ? "its points as drawn" : `points rounded by ${say(round)}`;
  return { key: "round", label: "Points", lead: "has", says, usual: round === 0 };
}

function ornamentSentence({ name, height, turn, mirror, at, meets, closes, gap, round }: Ornament, say: Say): Choices {
  const texts: Record<Ornament["meets"], string> = {
    add: "joined to what it touches",
    carve: closes ? "in the place of a counter" : "knocked out",
    halo: `free in a gap of ${say(gap)}`,
  };
  return [
    { key: "form", label: "Which", lead: "is", says: article(name), usual: false },
    { key: "size", label: "Height", lead: "is", says: `${say(height)} high`, usual: false },
    turnChoice(turn, mirror),
    placeChoice(at, say),
    roundChoice(round, say),
    { key: "meets", label: "It", lead: "is", says: texts[meets], usual: false },
  ];
}
