/**
 * The sheet, the way to the machine and the paper pattern as sentences: "The sheet wants joints of 1.5 mm or more and is cut on the line."
 */
import { formatLength, type Piece, type Units } from "../piece";
import type { SentenceChoice } from "./lines";
import { countWord } from "./names";

export type SheetChoiceKey = "least" | "cut" | "kerf" | "thickness" | "strength";

const cutOf = (cut: Piece["cut"]) => (cut === "on-line" ? "on the line" : "outside the line");

export function sheetSentence({ stock, cut }: Pick<Piece, "stock" | "cut">, units: Units): SentenceChoice<SheetChoiceKey>[] {
  const { leastWidth, kerf, thickness, strength } = stock;
  return [
    {
      key: "least",
      label: "Least joint width",
      lead: "wants joints of",
      says: `${formatLength(leastWidth, units)} or more`,
      usual: false,
    },
    { key: "cut", label: "Where the cut runs", lead: "is cut", says: cutOf(cut), usual: false },
    { key: "kerf", label: "Width of the cut", lead: "loses", says: `${formatLength(kerf, units, 2)} to the cut`, usual: true },
    { key: "thickness", label: "Thickness", lead: "is", says: `${formatLength(thickness, units)} thick`, usual: true },
    { key: "strength", label: "Bending strength", lead: "bears", says: `${strength} N/mm² when bent`, usual: true },
  ];
}

export type CutChoiceKey = "machine" | "cut" | "tabs";

interface CutSetting {
  machine: string;
  /** On each outline. */
  tabs: number;
  /** mm */
  tabWidth: number;
}

export function cutSentence(
  { cut }: Pick<Piece, "cut">,
  { machine, tabs, tabWidth }: CutSetting,
  units: Units,
): SentenceChoice<CutChoiceKey>[] {
  const held =
    tabs === 0
      ? "no holding tabs"
      : `${countWord(tabs)} ${tabs === 1 ? "tab" : "tabs"} of ${formatLength(tabWidth, units)} on each outline`;
  return [
    { key: "machine", label: "Machine", lead: "goes to the machine", says: `“${machine}”`, usual: false },
    { key: "cut", label: "Where the cut runs", lead: "is cut", says: cutOf(cut), usual: false },
    { key: "tabs", label: "Holding tabs", lead: "has", says: held, usual: false },
  ];
}

export type PaperChoiceKey = "paper" | "pages" | "hatch" | "drill" | "grain";

interface PaperSetting {
  paper: "a4" | "letter";
  landscape: boolean;
  hatch: boolean;
  /** Diameter, mm. */
  drill: number;
  /** Degrees; left out for sheets without grain. */
  grain: number | undefined;
}

export function paperSentence(
  { paper, landscape, hatch, drill, grain }: PaperSetting,
  units: Units,
): SentenceChoice<PaperChoiceKey>[] {
  const choices: SentenceChoice<PaperChoiceKey>[] = [
    { key: "paper", label: "Paper", lead: "is printed on", says: paper === "a4" ? "A4" : "Letter", usual: false },
    { key: "pages", label: "Pages lie", lead: "has its pages", says: landscape ? "across" : "upright", usual: false },
    {
      key: "hatch",
      label: "What is cut away inside",
      lead: "leaves what is cut away inside",
      says: hatch ? "hatched" : "white",
      usual: false,
    },
    {
      key: "drill",
      label: "Start holes",
      lead: "has start holes of",
      says: formatLength(drill, units),
      usual: false,
    },
  ];
  if (grain !== undefined) {
    const runs = grain === 0 ? "across the page" : `${Math.abs(grain)}° ${grain > 0 ? "up" : "down"} to the right`;
    choices.push({ key: "grain", label: "Grain", lead: "has its grain", says: runs, usual: false });
  }
  return choices;
}
