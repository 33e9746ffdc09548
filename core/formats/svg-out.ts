/**
 * SVG for the cutter: true size in mm, one hairline path per separate piece with its holes, no fill.
 *
 * Hairline: 0.25 pt, common practice, no published source.
 */
import { type Box, islandsOf, type Region } from "../geometry";

export interface SvgOptions {
  /** Goes into the title of the file. */
  title?: string;
  /** Ids of the paths are made from this. */
  name?: string;
  /** Colour of the cut line. Red for cut is a convention of many small lasers; always configurable. */
  colour?: string;
  /** Lettering to be engraved: filled, in its own group, before the cuts. */
  engrave?: Region;
  /** Black for engraving is a convention of many small lasers. */
  engraveColour?: string;
  /** Open lines to be scored, between engraving and cuts. */
  score?: readonly Float64Array[];
  /** Blue for scoring is a convention of many small lasers. */
  scoreColour?: string;
  /** Empty edge around the drawing, mm. */
  margin?: number;
}

const POINT = 25.4 / 72;
/** 0.1 µm: what the grid of the weld holds. */
const DIGITS = 4;

/** @returns a complete SVG document; y runs downwards in it, as SVG has it */
export function writeSvg(material: Region, box: Box | null, options: SvgOptions = {}): string {
  const {
    title = "Piece",
    name = "piece",
    colour = "#ff0000",
    engrave = [],
    engraveColour = "#000000",
    score = [],
    scoreColour = "#0000ff",
    margin = 1,
  } = options;
  const bounds = box ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  const width = bounds.maxX - bounds.minX + 2 * margin;
  const height = bounds.maxY - bounds.minY + 2 * margin;
  const toX = (x: number) => x - bounds.minX + margin;
  const toY = (y: number) => bounds.maxY - y + margin;
  const prefix = slug(name);
  const paths = islandsOf(material).map(
    (island, i) => `    <path id="${prefix}-${i + 1}" d="${island.map((ring) => pathData(ring, toX, toY)).join(" ")}"/>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${figure(width)}mm" height="${figure(height)}mm" viewBox="0 0 ${figure(width)} ${figure(height)}">`,
    `  <title>${escapeXml(title)}</title>`,
    ...(engrave.length > 0
      ? [
          `  <g id="engrave" fill="${escapeXml(engraveColour)}" fill-rule="evenodd" stroke="none">`,
          `    <path id="${prefix}-engraved" d="${engrave.map((ring) => pathData(ring, toX, toY)).join(" ")}"/>`,
          "  </g>",
        ]
      : []),
    ...(score.length > 0
      ? [
          `  <g id="score" fill="none" stroke="${escapeXml(scoreColour)}" stroke-width="${figure(0.25 * POINT)}">`,
          ...score.map(
            (line, i) => `    <path id="${prefix}-score-${i + 1}" d="${pathData(line, toX, toY).replace(/Z$/, "")}"/>`,
          ),
          "  </g>",
        ]
      : []),
    `  <g id="cut" fill="none" stroke="${escapeXml(colour)}" stroke-width="${figure(0.25 * POINT)}">`,
    ...paths,
    "  </g>",
    "</svg>",
    "",
  ].join("\n");
}

/** Closed subpath of a ring. */
export function pathData(ring: Float64Array, toX = (x: number) => x, toY = (y: number) => y, digits = DIGITS): string {
  const parts: string[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    parts.push(`${i === 0 ? "M" : "L"}${figure(toX(ring[i]!), digits)} ${figure(toY(ring[i + 1]!), digits)}`);
  }
  return `${parts.join("")}Z`;
}

/** A name that is safe as an id and in a file name. */
export function slug(text: string): string {
  const plain = text
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .replace(/[^A-Za-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .toLowerCase();
  return /^[a-z]/.test(plain) ? plain : `piece${plain ? `-${plain}` : ""}`;
}

function figure(value: number, digits = DIGITS): string {
  const text = String(Number(value.toFixed(digits)));
  return text === "-0" ? "0" : text;
}

function escapeXml(text: string): string {
  return text
    .replace(/\p{Cc}/gu, " ")
    .replace(/&/g, "&amp;")
    .replace(/</g, "&lt;")
    .replace(/>/g, "&gt;")
    .replace(/"/g, "&quot;");
}
