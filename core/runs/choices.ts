/**
 * What a maker chooses for a run, and what is stored of it.
 */
import { z } from "zod";
import { REACH } from "../geometry";
import { pieceSchema, type Stock, starterById, stockSchema } from "../piece";
import { MOST_OFFCUTS, offcutSchema } from "./offcuts";

/** A piece of the maker's own, as it was when the run took it, a beginning of ours, or pieces of the rack, each as it is. */
export const designSchema = z.union([
  z.strictObject({ starter: z.string().min(1).max(60) }),
  z.strictObject({ picked: z.strictObject({ stock: stockSchema }) }),
  z.strictObject({
    piece: pieceSchema,
    /** The piece on the rack that it was taken from, and its version then. */
    from: z.strictObject({ id: z.string(), version: z.int() }).optional(),
  }),
]);

/** How large every finished piece of a run is. */
export const sizeRuleSchema = z.discriminatedUnion("by", [
  /** As the design has its words: by width, by height or by letters. */
  z.strictObject({ by: z.literal("design") }),
  z.strictObject({ by: z.literal("width"), mm: z.number().min(5).max(2000) }),
  z.strictObject({ by: z.literal("height"), mm: z.number().min(5).max(2000) }),
  /** Letters as large as the design's own; what holds them grows with the name. */
  z.strictObject({ by: z.literal("letters") }),
]);

export const sheetChoicesSchema = z.strictObject({
  /** mm; files have no more than this on a side. */
  width: z.number().min(10).max(REACH),
  height: z.number().min(10).max(REACH),
  gap: z.number().min(0).max(200),
  margin: z.number().min(0).max(500),
  /** How pieces may be turned: in quarters, only upside down so that the grain stays, not at all, or any way. */
  turns: z.enum(["quarters", "halves", "none", "any"]),
  /** Pieces on which nothing is engraved or scored may lie with their backs up. */
  mirror: z.boolean(),
  /** Rows with the same note lie on one sheet. */
  together: z.boolean(),
  /** These are filled first. */
  offcuts: z.array(offcutSchema).max(MOST_OFFCUTS),
  /** A number is scored beside each piece. */
  numbers: z.boolean(),
  /** What is weak is laid too, not only what holds. */
  weak: z.boolean(),
});

export const runChoicesSchema = z.strictObject({
  /** What falls or is weak is mended, each row by itself. */
  mend: z.boolean(),
  size: sizeRuleSchema,
  /** Lettering of all rows that have none of their own; `null` for the design's. */
  font: z.string().min(1).max(80).nullable(),
  sheet: sheetChoicesSchema,
});

export type SizeRule = z.output<typeof sizeRuleSchema>;
export type SheetChoices = z.output<typeof sheetChoicesSchema>;
export type RunChoices = z.output<typeof runChoicesSchema>;
/** Where a design was taken from matters to whoever keeps it, not to its rows. */
export type KeptDesign = z.output<typeof designSchema>;

export const USUAL_CHOICES: RunChoices = {
  mend: true,
  size: { by: "design" },
  font: null,
  sheet: {
    width: 600,
    height: 400,
    gap: 3,
    margin: 5,
    turns: "quarters",
    mirror: false,
    together: false,
    offcuts: [],
    numbers: false,
    weak: false,
  },
};

/** Choices of a sheet as they were kept: older ones lack what can be chosen since. */
export const keptSheetChoices = z.preprocess(
  (kept) => ({ ...USUAL_CHOICES.sheet, ...(kept as object | undefined) }),
  sheetChoicesSchema,
);

/** Direction of the grain in the pieces of a design, degrees from the horizontal. */
export const grainIn = (design: KeptDesign): number => ("piece" in design ? (design.piece.grain ?? 0) : 0);

/** The sheet that the pieces of a design are cut from. */
export function stockOf(design: KeptDesign): Stock {
  if ("picked" in design) return design.picked.stock;
  return "starter" in design ? starterById(design.starter).make([]).stock : design.piece.stock;
}
