/**
 * How the pieces of a run lie on their sheets, as it is kept.
 */
import { z } from "zod";
import type { Region } from "../geometry";
import { keptSheetChoices } from "./choices";
import { usedOf } from "./offcuts";

export const matrixSchema = z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]);

/** One copy of a row's piece. */
const placedSchema = z.strictObject({
  row: z.int().positive(),
  /** Counted from 1. */
  copy: z.int().positive(),
  matrix: matrixSchema,
  /** It stays where it is when the rest is laid again. */
  pinned: z.boolean(),
});

const laidSheetSchema = z.strictObject({
  /** Id of the offcut that it is, among the choices; left out for a whole sheet. */
  offcut: z.string().optional(),
  pieces: z.array(placedSchema),
  /** mm from the left edge to where the pieces reach. */
  reach: z.number(),
  /** Seconds at the machine, and mm² of the pieces; not there until they are worked out. */
  seconds: z.number().optional(),
  area: z.number().optional(),
});

export const layoutSchema = z.strictObject({
  choices: keptSheetChoices,
  sheets: z.array(laidSheetSchema),
  /** Rows whose piece finds no room on an empty sheet. */
  tooLarge: z.array(z.int()),
  /** No arrangement needs fewer sheets. */
  fewest: z.int(),
  /** What each row's piece was when it was laid. */
  made: z.record(z.string(), z.string()),
  /** Pairs that lie nearer than the gap, after the maker has moved them: sheet, and places on it. */
  faults: z.array(z.strictObject({ sheet: z.int(), places: z.array(z.int()) })),
});

export type Placed = z.output<typeof placedSchema>;
export type LaidSheet = z.output<typeof laidSheetSchema>;
export type Layout = z.output<typeof layoutSchema>;
export type PlaceMatrix = z.output<typeof matrixSchema>;

/** What is gone of a laid sheet before it is cut, mm. @param k counted from 0 */
export function usedOn({ sheets, choices }: Pick<Layout, "sheets" | "choices">, k: number): Region {
  const offcut = choices.offcuts.find(({ id }) => id === sheets[k]?.offcut);
  return offcut ? usedOf(offcut, choices) : [];
}

/** "7.2" is the second copy of row 7. */
export const idOf = ({ row, copy }: Pick<Placed, "row" | "copy">) => `${row}.${copy}`;
export function fromId(id: string): Pick<Placed, "row" | "copy"> {
  const [row, copy] = id.split(".").map(Number);
  return { row: row!, copy: copy! };
}
