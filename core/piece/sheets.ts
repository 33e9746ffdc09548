/**
 * The sheets a maker has: their figures, and where each of them comes from.
 *
 * Starting figures are from memory. Strengths and stiffnesses of woods are remembered from the Wood Handbook (Forest Products Laboratory,
 * 2010, FPL-GTR-190, table 5-3, clear wood at 12 % moisture) and taken low; those of MDF are of the size that EN 622-5 asks for, those of
 * acrylic of the size that makers' sheets give. Least widths and kerfs are common practice, no published source.
 */
import { z } from "zod";
import { type Material, type Stock, stockSchema } from "./schema";
import { STOCKS } from "./stock";

/** Figures of a sheet that come from somewhere. */
export const SOURCED = ["thickness", "leastWidth", "kerf", "hole", "strength", "strengthAcross", "young", "density"] as const;
export type Sourced = (typeof SOURCED)[number];

export const shelfSheetSchema = z.strictObject({
  id: z.string().min(1).max(40),
  stock: stockSchema,
  /** As they are bought or lie there, mm. */
  width: z.number().min(10).max(5000),
  height: z.number().min(10).max(5000),
  /** How many are there; `null` where nobody counts. */
  count: z.int().min(0).max(100_000).nullable(),
  /** Of one sheet, in the maker's own money; `null` where it is not known. */
  price: z.number().min(0).max(1e6).nullable(),
  notes: z.string().max(2000),
  /** Where figures come from. */
  sources: z.partialRecord(z.enum(SOURCED), z.string().trim().max(200)),
});

export type ShelfSheet = z.output<typeof shelfSheetSchema>;

export const FROM_MEMORY = "from memory";
const PRACTICE = "common practice, no published source";
const HANDBOOK = "Wood Handbook (2010), table 5-3, from memory";
const EN_622 = "of the size of EN 622-5, from memory";
const MAKERS = "of the size that makers' sheets give, from memory";

interface Figures {
  least: number;
  kerf: number;
  strength: number;
  young: number;
  source: string;
  grain?: boolean;
  tool?: Stock["tool"];
  size?: readonly [width: number, height: number];
}

const shelved = (stock: Stock, source: string, [width, height]: readonly [number, number]): ShelfSheet => ({
  id: stock.id,
  stock,
  width,
  height,
  count: null,
  price: null,
  notes: "",
  sources: {
    thickness: "as it is sold",
    leastWidth: PRACTICE,
    kerf: PRACTICE,
    strength: source,
    ...(stock.young && { young: source }),
  },
});

const sheet = (
  id: string,
  name: string,
  material: Material,
  thickness: number,
  { least, kerf, strength, young, source, grain, tool = "laser", size = [600, 400] }: Figures,
): ShelfSheet =>
  shelved(
    { id, name, material, thickness, leastWidth: least, kerf, tool, strength, young, ...(grain !== undefined && { grain }) },
    source,
    size,
  );

const ply = { kerf: 0.18, strength: 60, young: 9000, source: FROM_MEMORY };
const acrylic = { kerf: 0.18, strength: 100, young: 3200, source: MAKERS };
const mdf = { kerf: 0.18, strength: 23, young: 2700, source: EN_622 };
const saw = { kerf: 0.4, tool: "saw", size: [600, 150] } as const;

/** What is on the shelf before the maker changes anything. */
export const SHELF: readonly ShelfSheet[] = [
  ...STOCKS.map((stock) =>
    shelved(stock, stock.material === "mdf" ? EN_622 : FROM_MEMORY, stock.tool === "saw" ? saw.size : [600, 400]),
  ),
  sheet("birch-4", "birch 4 mm", "birch", 4, { ...ply, least: 1.7 }),
  sheet("birch-6", "birch 6 mm", "birch", 6, { ...ply, least: 2, kerf: 0.22 }),
  sheet("poplar-3", "poplar plywood 3 mm", "poplar", 3, { ...ply, least: 2, strength: 40, young: 6500 }),
  sheet("bamboo-3", "bamboo plywood 3 mm", "bamboo", 3, { ...ply, least: 1.5, strength: 80 }),
  sheet("oak-ply-3", "oak-faced plywood 3 mm", "oak", 3, { ...ply, least: 1.7, strength: 50, grain: false }),
  sheet("mdf-6", "MDF 6 mm", "mdf", 6, { ...mdf, least: 2.5, kerf: 0.22 }),
  sheet("acrylic-2", "clear acrylic 2 mm", "acrylic-clear", 2, { ...acrylic, least: 2 }),
  sheet("acrylic-5", "clear acrylic 5 mm", "acrylic-clear", 5, { ...acrylic, least: 2.2, kerf: 0.22 }),
  sheet("acrylic-frosted-3", "frosted acrylic 3 mm", "acrylic-frosted", 3, { ...acrylic, least: 2 }),
  sheet("acrylic-white-3", "white acrylic 3 mm", "acrylic-white", 3, { ...acrylic, least: 2 }),
  sheet("acrylic-black-3", "black acrylic 3 mm", "acrylic-black", 3, { ...acrylic, least: 2 }),
  sheet("acrylic-gold-3", "gold mirror acrylic 3 mm", "acrylic-gold", 3, { ...acrylic, least: 2.2 }),
  sheet("acrylic-silver-3", "silver mirror acrylic 3 mm", "acrylic-silver", 3, { ...acrylic, least: 2.2 }),
  sheet("walnut-3", "walnut 3 mm", "walnut", 3, {
    least: 2,
    kerf: 0.18,
    strength: 90,
    young: 11_600,
    source: HANDBOOK,
    size: [600, 150],
  }),
  sheet("cherry-3", "cherry 3 mm", "cherry", 3, {
    least: 2,
    kerf: 0.18,
    strength: 80,
    young: 10_300,
    source: HANDBOOK,
    size: [600, 150],
  }),
  sheet("maple-3", "maple 3 mm", "maple", 3, {
    least: 1.8,
    kerf: 0.18,
    strength: 100,
    young: 12_600,
    source: HANDBOOK,
    size: [600, 150],
  }),
  sheet("oak-6", "oak 6 mm", "oak", 6, { least: 3, strength: 95, young: 12_300, source: HANDBOOK, ...saw }),
  sheet("maple-6", "maple 6 mm", "maple", 6, { least: 3, strength: 100, young: 12_600, source: HANDBOOK, ...saw }),
  sheet("leather-3", "leather 3 mm", "leather", 3, {
    least: 2,
    kerf: 0.25,
    strength: 15,
    young: 100,
    source: FROM_MEMORY,
    size: [400, 300],
  }),
  sheet("card-1", "card 1 mm", "card", 1, {
    least: 1,
    kerf: 0.12,
    strength: 30,
    young: 3000,
    source: FROM_MEMORY,
    size: [420, 297],
  }),
];

/** @returns the stock with that id or name (as on the screen), or `undefined` */
export function stockByName(name: string): Stock | undefined {
  const wanted = name.trim().toLowerCase();
  return SHELF.find(({ id, stock }) => id === wanted || stock.name.toLowerCase() === wanted)?.stock;
}

/** The shelf with what the maker has changed or added; what they added comes first. */
export function withOwn(own: readonly ShelfSheet[]): ShelfSheet[] {
  const mine = new Map(own.map((each) => [each.id, each]));
  return [...own.filter(({ id }) => !SHELF.some((ours) => ours.id === id)), ...SHELF.map((each) => mine.get(each.id) ?? each)];
}

/** Figures of which anything hangs, and how it looks. */
const TELLING = ["tool", "material", "grain", "colour", ...SOURCED] as const;

/** Whether a piece's copy of its sheet has other figures than the shelf now. */
export const isNewer = (stock: Stock, shelf: Stock): boolean => TELLING.some((key) => stock[key] !== shelf[key]);
