/**
 * Lengths as people write them. Inside everything is millimetres; inches exist only here, at the edge.
 */
export type Units = "mm" | "in";

/** Exact by definition (international inch, 1959). */
export const MM_PER_INCH = 25.4;

/** Standard gravity, m/s² (CGPM, 1901): N for each kg. */
export const GRAVITY = 9.80665;

const FACTOR: Record<string, number> = {
  mm: 1,
  cm: 10,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
};

/**
 * Reads "12", "12.5 mm", "1,5 cm", "1/4 in", "1 1/2\"".
 *
 * @param units what a bare number means
 * @returns mm, or `null` where the text is not a length
 */
export function parseLength(text: string, units: Units): number | null {
  const match = /^([+-]?)\s*(?:(\d+(?:[.,]\d+)?|[.,]\d+)(?:\s+(\d+)\s*\/\s*(\d+))?|(\d+)\s*\/\s*(\d+))\s*([a-z"″]*)$/i.exec(
    text.trim(),
  );
  if (!match) return null;
  const [, sign, whole, top, bottom, loneTop, loneBottom, unit] = match;
  const factor = FACTOR[(unit || units).toLowerCase().replace("″", '"')];
  if (factor === undefined) return null;
  let value = whole ? Number(whole.replace(",", ".")) : 0;
  if (top && bottom) value += Number(top) / Number(bottom);
  if (loneTop && loneBottom) value = Number(loneTop) / Number(loneBottom);
  const mm = value * factor * (sign === "-" ? -1 : 1);
  return Number.isFinite(mm) ? mm : null;
}

/**
 * "0.8 mm", "0.031 in".
 * @param digits after the point in mm; inches get two more
 */
export function formatLength(mm: number, units: Units = "mm", digits = 1): string {
  return `${formatNumber(mm, units, digits)} ${units}`;
}

/** The figure alone, for input fields and tables. */
export function formatNumber(mm: number, units: Units = "mm", digits = 1): string {
  const value = units === "mm" ? mm : mm / MM_PER_INCH;
  const text = value.toFixed(units === "mm" ? digits : digits + 2);
  return Number(text) === 0 ? text.replace("-", "") : text;
}

/** The figure without needless zeros, for input fields. */
export function editableNumber(mm: number, units: Units): string {
  return String(Number((units === "mm" ? mm : mm / MM_PER_INCH).toFixed(units === "mm" ? 2 : 4)));
}
