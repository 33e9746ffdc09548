/**
 * Sheet materials as drawn patterns, in mm, so that the grain keeps its size while the piece is zoomed.
 */
import { converter, formatHex } from "culori";
import type { Stock } from "../piece";

type Material = Stock["material"];

/** What a sheet is drawn by. */
export type SheetLook = Pick<Stock, "material" | "colour">;

interface Look {
  base: string;
  /** Colour of the cut edge. */
  edge: string;
  /** The side of the sheet seen below the face. */
  side: string;
  sideOpacity: number;
  grain?: { dark: string; light: string; waves: number };
  speckle?: string;
  sheen?: boolean;
  opacity?: number;
}

const LOOKS: Record<Material, Look> = {
  birch: {
    base: "#e2c596",
    edge: "#8a5f33",
    side: "#6f4a26",
    sideOpacity: 0.55,
    grain: { dark: "#b98d55", light: "#f1ddb8", waves: 9 },
  },
  poplar: {
    base: "#ead9b4",
    edge: "#8f6d3f",
    side: "#74552e",
    sideOpacity: 0.5,
    grain: { dark: "#cdb07a", light: "#f6ecd2", waves: 7 },
  },
  bamboo: {
    base: "#dcb975",
    edge: "#8a6526",
    side: "#6d4e1a",
    sideOpacity: 0.55,
    grain: { dark: "#b58a3e", light: "#eed7a2", waves: 16 },
  },
  oak: {
    base: "#c9a26b",
    edge: "#6f4c22",
    side: "#573a18",
    sideOpacity: 0.55,
    grain: { dark: "#8f6733", light: "#dfc08f", waves: 14 },
  },
  maple: {
    base: "#eed9b3",
    edge: "#96703d",
    side: "#7a5729",
    sideOpacity: 0.5,
    grain: { dark: "#d5b481", light: "#f8ebd0", waves: 8 },
  },
  cherry: {
    base: "#b5714a",
    edge: "#6a371c",
    side: "#522813",
    sideOpacity: 0.55,
    grain: { dark: "#8a4c2b", light: "#cf9069", waves: 11 },
  },
  walnut: {
    base: "#76523a",
    edge: "#3a2416",
    side: "#2b1a10",
    sideOpacity: 0.6,
    grain: { dark: "#4c3220", light: "#94704f", waves: 12 },
  },
  mdf: { base: "#b99670", edge: "#6b4a2d", side: "#553a23", sideOpacity: 0.55, speckle: "#8d6d4b" },
  "acrylic-clear": { base: "#cfe4ea", edge: "#6f9aa8", side: "#5b8796", sideOpacity: 0.35, sheen: true, opacity: 0.82 },
  "acrylic-frosted": { base: "#dfe8ea", edge: "#8fa3a9", side: "#7d9299", sideOpacity: 0.4, opacity: 0.9 },
  "acrylic-white": { base: "#f3f4f1", edge: "#9aa19c", side: "#858d88", sideOpacity: 0.5, sheen: true },
  "acrylic-black": { base: "#22282a", edge: "#0b0e0f", side: "#000000", sideOpacity: 0.6, sheen: true },
  "acrylic-gold": { base: "#c9a14a", edge: "#7c5d1c", side: "#624914", sideOpacity: 0.5, sheen: true },
  "acrylic-silver": { base: "#b9c2c5", edge: "#6c777b", side: "#59646a", sideOpacity: 0.5, sheen: true },
  leather: { base: "#9a5f37", edge: "#5a3219", side: "#472611", sideOpacity: 0.55, speckle: "#7c4826" },
  card: { base: "#ece3d2", edge: "#8d8064", side: "#776b52", sideOpacity: 0.4, speckle: "#d8cbb2" },
  "acrylic-teal": { base: "#12818a", edge: "#07535a", side: "#05424a", sideOpacity: 0.5, sheen: true },
  "acrylic-red": { base: "#c4262e", edge: "#7e1017", side: "#5f0b11", sideOpacity: 0.5, sheen: true },
};

/** Size of the repeated tile, mm. */
export const TILE = { width: 90, height: 36 } as const;
const { width: WIDE, height: HIGH } = TILE;

/** A small generator with a fixed start, so that the same sheet looks the same every day (D. H. Lehmer's method). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

function grainLines(count: number, seed: number): string[] {
  const next = numbers(seed);
  return Array.from({ length: count }, (_, i) => {
    const y = ((i + next() * 0.7) * HIGH) / count;
    const lift = () => (next() - 0.5) * 2.2;
    const [a, b] = [lift(), lift()];
    return `M0 ${y.toFixed(2)}C${WIDE / 4} ${(y + a).toFixed(2)} ${WIDE / 4} ${(y + b).toFixed(2)} ${WIDE / 2} ${(y + b).toFixed(2)}S${(WIDE * 3) / 4} ${y.toFixed(2)} ${WIDE} ${y.toFixed(2)}`;
  });
}

const lightness = converter("oklch");

/** A colour as much darker or lighter than another as some are, in OKLCH (CSS Color 4). */
function shaded(colour: string, like: string, base: string): string {
  const [one, to, from] = [lightness(colour), lightness(like), lightness(base)];
  if (!one || !to || !from) return like;
  return formatHex({ ...one, l: Math.min(1, Math.max(0, one.l * (from.l > 0 ? to.l / from.l : 1))) });
}

/** How a sheet looks: as its material usually does, in its own colour if it has one. */
export function lookOf({ material, colour }: SheetLook): Look {
  const usual = LOOKS[material];
  if (colour === undefined) return usual;
  const like = (other: string) => shaded(colour, other, usual.base);
  return {
    ...usual,
    base: colour,
    edge: like(usual.edge),
    side: like(usual.side),
    ...(usual.grain && { grain: { ...usual.grain, dark: like(usual.grain.dark), light: like(usual.grain.light) } }),
    ...(usual.speckle && { speckle: like(usual.speckle) }),
  };
}

/** What a tile of the sheet is filled with, as SVG. */
export function materialTile(sheet: SheetLook): string {
  const look = lookOf(sheet);
  return `<rect width="${WIDE}" height="${HIGH}" fill="${look.base}"/>${surface(look)}`;
}

function surface({ grain, speckle, sheen }: Look): string {
  if (grain) {
    const line = (d: string, colour: string, width: number, opacity: number) =>
      `<path d="${d}" stroke="${colour}" stroke-width="${width.toFixed(2)}" opacity="${opacity}" fill="none"/>`;
    const light = grainLines(grain.waves, 4211).map((d) => line(d, grain.light, 1.3, 0.35));
    const dark = grainLines(grain.waves, 77).map((d, i) => line(d, grain.dark, 0.18 + (i % 3) * 0.16, 0.5));
    return [...light, ...dark].join("");
  }
  if (speckle) {
    const next = numbers(99);
    return Array.from({ length: 260 }, () => {
      const [x, y, r] = [next() * WIDE, next() * HIGH, 0.12 + next() * 0.22];
      return `<circle cx="${x.toFixed(2)}" cy="${y.toFixed(2)}" r="${r.toFixed(2)}" fill="${speckle}" opacity="0.45"/>`;
    }).join("");
  }
  if (sheen) {
    return `<path d="M0 ${HIGH}L${HIGH} 0h9L9 ${HIGH}z" fill="#fff" opacity="0.13"/><path d="M48 ${HIGH}L${48 + HIGH} 0h3L51 ${HIGH}z" fill="#fff" opacity="0.1"/>`;
  }
  return "";
}
