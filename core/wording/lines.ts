/**
 * A line of a piece as a sentence: "… stands 165 mm wide, has its dots tied at a slant, 2.0 mm wide, and is part of the piece."
 */
import { formatLength, formatNumber, type Piece, type Units, type Word, type WordPath } from "../piece";

/** What of a line is decided in one place. */
export type LineChoiceKey = "size" | "run" | "spacing" | "dots" | "place" | "separator" | "meets";

/** One choice of a sentence: "stands" *165 mm wide*. */
export interface SentenceChoice<Key extends string> {
  key: Key;
  /** How it is called where it stands alone. */
  label: string;
  /** What comes before it in the sentence. */
  lead: string;
  says: string;
  /** True for what nobody has changed and nobody needs to look at: it waits behind "more". */
  usual: boolean;
}

interface Setting {
  units: Units;
  /** The only line of its piece, and the first. */
  only: boolean;
  first: boolean;
  /** Width of ties whose own is not given, mm. */
  leastWidth: number;
}

const DOTS: Record<Word["dots"], string> = {
  leave: "as in the font",
  bite: "lowered until they bite",
  tie: "tied straight down",
  slanted: "tied at a slant",
  neighbour: "tied to the letter beside",
};

const MEETS: Record<Word["meets"], string> = {
  add: "part of the piece",
  halo: "in front",
  carve: "cut out of what lies under it",
  engrave: "engraved",
};

/** Letters with dots or accents, or marks that come in two pieces. */
const DOTTED = /[\u0300-\u036fij!?:;%"„“”=÷]/u;

function separatorOf({ separator, drawn }: Word): string {
  if (separator === undefined) return "a blank";
  const name = drawn[separator]?.name ?? separator;
  return `${/^[aeiou]/i.test(name) ? "an" : "a"} ${name}`;
}

export function lineSentence(word: Word, { units, only, first, leastWidth }: Setting): SentenceChoice<LineChoiceKey>[] {
  const say = (mm: number) => formatLength(mm, units);
  const tied = word.dots === "tie" || word.dots === "slanted" || word.dots === "neighbour";
  const slant = word.dots === "slanted" && word.tieAngle !== undefined ? `tied at ${word.tieAngle}°` : DOTS[word.dots];
  const dots = tied ? `${slant}, ${say(word.tieWidth ?? leastWidth)} wide` : slant;
  const choices: SentenceChoice<LineChoiceKey>[] = [
    { key: "size", label: "Size", lead: "stands", says: sizeOf(word, units), usual: false },
    { key: "run", label: "Letters run", lead: "runs", says: runOf(word.path, say), usual: word.path === undefined },
    { key: "spacing", label: "Letters stand", lead: "has its letters", ...spacingOf(word, say) },
    {
      key: "dots",
      label: "Dots and accents",
      lead: "has its dots",
      says: dots,
      usual: word.dots === "leave" && !DOTTED.test(word.text.normalize("NFD")),
    },
    {
      key: "separator",
      label: "Between words",
      lead: "has between its words",
      says: separatorOf(word),
      usual: word.separator === undefined,
    },
    {
      key: "meets",
      label: "The word is",
      lead: "is",
      says: `${MEETS[word.meets]}${word.meets === "halo" ? `, ${say(word.gap)} clear around` : ""}${word.score ? ", covered edges scored" : ""}`,
      usual: false,
    },
  ];
  if (only) return choices;
  return [
    ...choices.slice(0, -1),
    { key: "place", label: "Place", lead: "lies", says: placeOf(word, first, say), usual: isAtOrigin(word) },
    ...choices.slice(-1),
  ];
}

function sizeOf({ size }: Word, units: Units): string {
  const mm = formatLength(size.mm, units);
  switch (size.by) {
    case "cap-height":
      return `with capitals ${mm} high`;
    case "width":
      return `${mm} wide`;
    case "height":
      return `${mm} high`;
    case "both":
      return `${mm} wide and ${formatLength(size.height, units)} high, stretched`;
    case "within":
      return `within a box of ${formatNumber(size.mm, units)} × ${formatLength(size.height, units)}`;
  }
}

function runOf(path: WordPath | undefined, say: (mm: number) => string): string {
  switch (path?.kind) {
    case undefined:
      return "straight";
    case "stacked":
      return "downwards, letter below letter";
    case "arc":
      return path.between ? "between two rings" : `along an arc of radius ${say(path.radius)}`;
    case "curve":
      return "along a curve of your own";
    case "spiral":
      return "along a spiral";
    case "outline":
      return `round the outline of a drawing, ${say(path.distance)} ${path.side === "outside" ? "outside" : "inside"}`;
  }
}

function spacingOf({ join, overlap, tracking }: Word, say: (mm: number) => string): { says: string; usual: boolean } {
  if (join !== undefined) return { says: `joined ${say(join)} wide`, usual: false };
  if (overlap !== undefined && overlap < 0) return { says: `${say(-overlap)} apart`, usual: false };
  if (overlap !== undefined) return { says: `overlapped by ${say(overlap)}`, usual: false };
  if (tracking === 0) return { says: "as in the font", usual: true };
  return { says: `${say(Math.abs(tracking))} ${tracking > 0 ? "wider" : "closer"} than in the font`, usual: false };
}

const isAtOrigin = ({ at, align, bitesBefore }: Word) =>
  at.x === 0 && at.y === 0 && align === "centre" && bitesBefore === undefined;

function placeOf({ at, align, bitesBefore }: Word, first: boolean, say: (mm: number) => string): string {
  const side = { left: "its left end", centre: "its middle", right: "its right end" }[align];
  const across = at.x === 0 ? "" : `, ${say(Math.abs(at.x))} to the ${at.x > 0 ? "right" : "left"}`;
  if (bitesBefore !== undefined && !first) return `against the lines above, joined ${say(bitesBefore)} wide`;
  return `${say(Math.abs(at.y))} ${at.y < 0 ? "down" : "up"}${across}, by ${side}`;
}

/** What of the finished piece is decided in one place. */
export type FinishChoiceKey = "limit" | "pair";

export function finishSentence({ limit, pair }: Pick<Piece, "limit" | "pair">, units: Units): SentenceChoice<FinishChoiceKey>[] {
  return [
    {
      key: "limit",
      label: "Its size",
      lead: limit ? "must fit" : "may have",
      says: limit ? `a box of ${formatNumber(limit.width, units)} × ${formatLength(limit.height, units)}` : "any size",
      usual: false,
    },
    { key: "pair", label: "Cut", lead: "is cut", says: pair ? "as a mirrored pair" : "once", usual: false },
  ];
}
