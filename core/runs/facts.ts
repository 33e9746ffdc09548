/**
 * What is kept of a row when it has been examined: little enough for ten thousand of them, and no words.
 */
import type { Examination } from "../examine";
import { regionBox } from "../geometry";
import { type Finding, type Labels, openFindings, type PartLabel } from "../judge";
import type { MendedAll } from "../mend";
import { widthToDraw } from "../piece";
import { labelsOf, sheetOf } from "../report";
import type { SheetChoices } from "./choices";
import { type PackedRegion, packRegion, unpackRegion } from "./packed";
import { type MadeRow, thinnestHold } from "./rows";

export type RowVerdict = Examination["verdict"] | "not made";

export interface RowFacts {
  verdict: RowVerdict;
  /** How it was before it was mended. */
  before: RowVerdict;
  name: string;
  /** What its words say. */
  texts: string[];
  /** Id of its sheet; `null` where it could not be made. */
  stock: string | null;
  /** mm; see `thinnestHold`. */
  thinnest: number | null;
  /** The width that it wants, mm. */
  wanted: number | null;
  /** Of the finished piece, mm. */
  width: number | null;
  height: number | null;
  /** What is wrong still, and what was done. */
  problems: Finding[];
  mends: MendedAll["done"];
  /** How the parts are called that these name. */
  labels: [string, PartLabel][];
  /** Why it could not be made at all, as a sentence. */
  refused?: string;
}

/** A finished piece as it is drawn small: outlines, those that fall apart from the others, and what is engraved. */
export interface RowShape {
  held: PackedRegion;
  fallen: PackedRegion;
  engraved: PackedRegion;
}

/** Of the findings and mends of one row so many are kept. */
const MOST = 30;

const mm = (value: number) => Math.round(value * 1000) / 1000;

export function factsOf({ piece, examination, before, mended }: MadeRow): RowFacts {
  const { box, verdict, findings } = examination;
  const thinnest = thinnestHold(examination);
  const problems = openFindings(findings).slice(0, MOST);
  const mends = (mended?.done ?? []).slice(0, MOST);
  return {
    verdict,
    before,
    name: piece.name,
    stock: piece.stock.id,
    texts: piece.parts.flatMap((part) => (part.kind === "word" ? [part.text] : [])),
    thinnest: thinnest === null ? null : mm(thinnest),
    wanted: mm(widthToDraw(piece)),
    width: box && mm(box.maxX - box.minX),
    height: box && mm(box.maxY - box.minY),
    problems,
    mends,
    labels: namedBy([...problems, ...mends.flatMap((each) => each.findings)], [labelsOf(examination), mended?.labels]),
  };
}

/**
 * Whether a row goes onto sheets: what falls never does, what is weak only where the maker says so, and what was changed to another stock
 * does not belong there.
 */
export const isLaid = ({ verdict, stock }: RowFacts, { weak }: Pick<SheetChoices, "weak">, of: string) =>
  stock === of && (verdict === "holds" || (weak && verdict === "weak"));

/** What is told of a row that could not be made. */
export const refuseRow = (texts: readonly string[], why: string): RowFacts => ({
  verdict: "not made",
  before: "not made",
  name: texts.filter(Boolean).join(" · ").slice(0, 80),
  texts: [...texts],
  stock: null,
  thinnest: null,
  wanted: null,
  width: null,
  height: null,
  problems: [],
  mends: [],
  labels: [],
  refused: why,
});

function namedBy(findings: readonly Finding[], known: readonly (Labels | undefined)[]): [string, PartLabel][] {
  const ids = new Set(findings.flatMap(({ parts }) => parts));
  return [...ids].flatMap((id): [string, PartLabel][] => {
    const label = known.map((labels) => labels?.get(id)).find((found) => found !== undefined);
    return label ? [[id, label]] : [];
  });
}

export function shapeOf({ piece, examination }: MadeRow): RowShape {
  const { cutouts } = examination;
  const of = (falls: boolean) => cutouts.filter((cutout) => cutout.falls === falls).flatMap(({ region }) => region);
  const sheet = sheetOf(piece, examination);
  // A twin holds and falls as its sister does; only where nothing falls is it drawn.
  const fallen = of(true);
  return {
    held: packRegion(fallen.length > 0 ? of(false) : sheet.material),
    fallen: packRegion(fallen),
    engraved: packRegion(sheet.engrave),
  };
}

/** Of a shape as it is drawn, mm. */
export const boxOfShape = ({ held, fallen }: RowShape) => regionBox(unpackRegion([...held, ...fallen]));
