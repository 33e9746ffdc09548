/**
 * Between which figures a maker can choose, as the schema of the piece has them: fields and edits ask here, and repeat none.
 */
import { z } from "zod";
import { type Part, partSchema, pieceSchema, stockSchema } from "./schema";

/** Both included; lengths in mm, angles in degrees. */
export interface Bounds {
  least: number;
  most: number;
}

/**
 * Bounds of a figure of a part: `partBounds("bar", "height")`. Where there are several forms, the path names one:
 * `partBounds("word", "path", "arc", "radius")`, `partBounds("shape", "size", "own", "width")`.
 *
 * @throws Error for a path that leads to no figure with bounds: a slip of the one who asks
 */
export const partBounds = (kind: Part["kind"], ...path: string[]): Bounds => boundsAt("part", partSchema, [kind, ...path]);

/** A figure of a part as near to the wanted one as its bounds allow, in hundredths: how far a hand can pull. */
export function clampToBounds(mm: number, kind: Part["kind"], ...path: string[]): number {
  const { least, most } = partBounds(kind, ...path);
  return Math.min(most, Math.max(least, Math.round(mm * 100) / 100));
}

/** Bounds of a figure of the piece itself: `pieceBounds("limit", "width")`. */
export const pieceBounds = (...path: string[]): Bounds => boundsAt("piece", pieceSchema, path);

/** The same for a figure of its sheet: `stockBounds("thickness")`. */
export const stockBounds = (...path: string[]): Bounds => boundsAt("stock", stockSchema, path);

function boundsAt(root: string, schema: z.ZodType, path: readonly string[]): Bounds {
  const bounds = figureIn(path.reduce(stepInto, schema));
  if (!bounds) throw new Error(`${[root, ...path].join(".")} is no figure with bounds`);
  return bounds;
}

function stepInto(schema: z.ZodType, step: string): z.ZodType {
  const inner = unwrap(schema);
  if (inner instanceof z.ZodObject && step in inner.shape) return inner.shape[step] as z.ZodType;
  if (inner instanceof z.ZodArray) return stepInto(inner.element as z.ZodType, step);
  if (inner instanceof z.ZodRecord) return stepInto(inner.valueType as z.ZodType, step);
  if (inner instanceof z.ZodUnion) {
    for (const option of inner.options as z.ZodType[]) {
      const form = unwrap(option);
      if (form instanceof z.ZodObject && Object.values(form.shape).some((each) => isLiteral(each, step))) return form;
    }
  }
  throw new Error(`There is no "${step}" there`);
}

const isLiteral = (schema: unknown, value: string) => schema instanceof z.ZodLiteral && schema.value === value;

/** Without what only says that it may be left out, or is worked on afterwards. */
function unwrap(schema: z.ZodType): z.ZodType {
  if (schema instanceof z.ZodDefault || schema instanceof z.ZodOptional) return unwrap(schema.unwrap() as z.ZodType);
  if (schema instanceof z.ZodPipe) return unwrap(schema.in as z.ZodType);
  return schema;
}

function figureIn(schema: z.ZodType): Bounds | null {
  const inner = unwrap(schema);
  if (inner instanceof z.ZodUnion) {
    for (const option of inner.options as z.ZodType[]) {
      const found = figureIn(option);
      if (found) return found;
    }
  }
  if (!(inner instanceof z.ZodNumber)) return null;
  const { minValue, maxValue } = inner;
  return minValue === null || maxValue === null || !Number.isFinite(minValue) || !Number.isFinite(maxValue)
    ? null
    : { least: minValue, most: maxValue };
}
