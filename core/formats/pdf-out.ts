/**
 * PDF for the cutter: vector, true size, a layer for each purpose. 1 pt = 1/72 in (ISO 32000-1, 8.3.2.3).
 */
import {
  appendBezierCurve,
  closePath,
  fillEvenOdd,
  lineTo,
  moveTo,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  type PDFPage,
  type PDFRef,
  rgb,
  setFillingColor,
  setLineWidth,
  setStrokingColor,
  stroke,
} from "@cantoo/pdf-lib";
import { type CutPlan, LINE_PURPOSES, type LinePurpose } from "../cut";
import { type CurvePath, pathCommands } from "../geometry";

export const POINTS_PER_MM = 72 / 25.4;

export interface PdfOptions {
  title?: string;
}

export async function writePdf(plan: CutPlan, { title = "Piece" }: PdfOptions = {}): Promise<Uint8Array> {
  const { width, height, lines, fills, profile } = plan;
  const document = await newPdf(title);
  const page = document.addPage([width * POINTS_PER_MM, height * POINTS_PER_MM]);
  const drawn: PDFOperator[] = [];
  for (const purpose of LINE_PURPOSES) {
    const own = lines.filter((line) => line.purpose === purpose);
    const areas = purpose === "engrave" ? fills : [];
    if (own.length === 0 && areas.length === 0) continue;
    const { colour, layer } = profile.lines[purpose];
    drawn.push(beginLayer(document, page, layer, purpose));
    if (areas.length > 0) {
      drawn.push(setFillingColor(colourOf(colour)), ...areas.flatMap((path) => pathOperators(path)), fillEvenOdd());
    }
    drawn.push(setStrokingColor(colourOf(colour)), setLineWidth(profile.hairline * POINTS_PER_MM));
    for (const { path } of own) drawn.push(...pathOperators(path), stroke());
    drawn.push(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }
  // Not packed: packing and unpacking for the proof would take longer than all the rest of the writing.
  const { context } = document;
  page.node.set(PDFName.of("Contents"), context.register(context.stream(drawn.join("\n"))));
  return document.save();
}

export async function newPdf(title: string): Promise<PDFDocument> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setProducer("Mend Joint");
  document.setCreator("Mend Joint");
  return document;
}

/** A path in mm as drawing operators. @param at lower left corner of the drawing on the page, mm */
export function pathOperators(path: CurvePath, at = { x: 0, y: 0 }): PDFOperator[] {
  const X = (x: number) => rounded((x + at.x) * POINTS_PER_MM);
  const Y = (y: number) => rounded((y + at.y) * POINTS_PER_MM);
  return pathCommands(path).map((c) => {
    if (c.type === "Z") return closePath();
    if (c.type === "M") return moveTo(X(c.x), Y(c.y));
    // Fitted outlines have no quadratic curves.
    if (c.type !== "C") return lineTo(X(c.x), Y(c.y));
    return appendBezierCurve(X(c.x1), Y(c.y1), X(c.x2), Y(c.y2), X(c.x), Y(c.y));
  });
}

/** To 0.0001 pt, 35 nm: what is finer only makes files longer. */
const rounded = (points: number) => Math.round(points * 1e4) / 1e4;

function colourOf(hex: string) {
  const part = (i: number) => Number.parseInt(hex.slice(1 + 2 * i, 3 + 2 * i), 16) / 255;
  return rgb(part(0), part(1), part(2));
}

/** An optional content group (ISO 32000-1, 8.11): what programs show as a layer. @returns the operator that begins it */
function beginLayer(document: PDFDocument, page: PDFPage, name: string, purpose: LinePurpose): PDFOperator {
  const { context, catalog } = document;
  const group = context.register(context.obj({ Type: "OCG", Name: PDFHexString.fromText(name) }));
  addTo(catalog.lookupMaybe(PDFName.of("OCProperties"), PDFDict) ?? newProperties(document), group);
  const key = PDFName.of(purpose);
  const resources = page.node.normalizedEntries().Resources;
  const properties = resources.lookupMaybe(PDFName.of("Properties"), PDFDict) ?? context.obj({});
  properties.set(key, group);
  resources.set(PDFName.of("Properties"), properties);
  return PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of("OC"), key]);
}

function newProperties({ context, catalog }: PDFDocument): PDFDict {
  const properties = context.obj({ OCGs: [], D: { Order: [], ON: [] } });
  catalog.set(PDFName.of("OCProperties"), properties);
  return properties;
}

function addTo(properties: PDFDict, group: PDFRef): void {
  const shown = properties.lookup(PDFName.of("D"), PDFDict);
  properties.lookup(PDFName.of("OCGs"), PDFArray).push(group);
  shown.lookup(PDFName.of("Order"), PDFArray).push(group);
  shown.lookup(PDFName.of("ON"), PDFArray).push(group);
}
