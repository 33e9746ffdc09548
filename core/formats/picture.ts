/**
 * A picture of the finished piece for a listing: in its material, on a transparent ground.
 */
import type { Stock } from "../piece";
import type { Sheet } from "../report";
import { lookOf, materialTile, TILE } from "./material";
import { escapeXml, figure, pathData } from "./svg-out";

export interface PictureOptions {
  title?: string;
  /** Width in pixels of the longer side. */
  pixels?: number | undefined;
  /** Colour of the ground; left out, it is transparent. */
  ground?: string;
}

/** Free edge around the piece as a share of its longer side. */
const EDGE = 0.04;

/** @returns an SVG that is a picture, not a cut file; its width and height are pixels */
export function writePicture(
  sheet: Sheet,
  stock: Stock,
  { title = "Piece", pixels = 2000, ground }: PictureOptions = {},
): string {
  const box = sheet.box ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  const edge = EDGE * Math.max(box.maxX - box.minX, box.maxY - box.minY) + 1;
  const [width, height] = [box.maxX - box.minX + 2 * edge, box.maxY - box.minY + 2 * edge];
  const scale = pixels / Math.max(width, height);
  const look = lookOf(stock);
  const outline = sheet.material.map((ring) => pathData(ring)).join("");
  const engraved = sheet.engrave.map((ring) => pathData(ring)).join("");
  const scored = sheet.score.map((line) => pathData(line).replace(/Z$/, "")).join("");
  const depth = Math.min(1.2, stock.thickness * 0.2);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${Math.round(width * scale)}" height="${Math.round(height * scale)}" viewBox="${figure(box.minX - edge)} ${figure(-box.maxY - edge)} ${figure(width)} ${figure(height)}">`,
    `<title>${escapeXml(title)}</title>`,
    `<defs><pattern id="sheet" width="${TILE.width}" height="${TILE.height}" patternUnits="userSpaceOnUse">${materialTile(stock)}</pattern></defs>`,
    ground
      ? `<rect x="${figure(box.minX - edge)}" y="${figure(-box.maxY - edge)}" width="100%" height="100%" fill="${escapeXml(ground)}"/>`
      : "",
    `<g transform="scale(1 -1)" fill-rule="evenodd">`,
    `<path d="${outline}" transform="translate(${figure(depth * 0.6)} ${figure(-depth)})" fill="${look.side}" opacity="${look.sideOpacity}"/>`,
    `<path d="${outline}" fill="url(#sheet)" fill-opacity="${look.opacity ?? 1}" stroke="${look.edge}" stroke-width="0.25"/>`,
    engraved && `<path d="${engraved}" fill="${look.edge}" fill-opacity="0.55"/>`,
    scored && `<path d="${scored}" fill="none" stroke="${look.edge}" stroke-width="0.3"/>`,
    "</g></svg>",
  ]
    .filter(Boolean)
    .join("\n");
}
