/**
 * What a piece is. Everything a maker decides is in here, nothing that can be worked out from it.
 *
 * A document is JSON, lengths in mm, y up. `upgradePiece` reads documents of any earlier version; `parsePiece` turns
 * anything else down with a sentence that says what is wrong and where.
 */
import { z } from "zod";
import { graphemesOf } from "./text";

// Checks are not compiled into code, which pages would have to allow.
z.config({ jitless: true });

export const PIECE_VERSION = 1;

/** Bounds that keep a piece inside what the measuring can carry. */
export const LIMITS = { letters: 500, parts: 60, reach: 1000, name: 80 } as const;

const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, "must be 1 to 40 letters, digits, - or _");
const offset = z.number().min(-LIMITS.reach).max(LIMITS.reach);
const length = (least: number, most: number) => z.number().min(least).max(most);

const letterChange = z.strictObject({
  /** Moved by, mm. */
  dx: offset.default(0),
  dy: offset.default(0),
  /** The letter's dots and accents moved by, on top of that. */
  dotDx: offset.default(0),
  dotDy: offset.default(0),
  /** Another letterform of the font: an OpenType feature, with the number of the alternate where it has several ("salt", "aalt=2"). */
  form: z
    .string()
    .regex(/^[a-zA-Z0-9]{4}(=\d{1,2})?$/, 'must be a feature such as "salt" or "aalt=2"')
    .optional(),
  /** Separate pieces of the letter that are left out, numbered from 1 by size; 0 is the letter itself. */
  without: z.array(z.number().int().min(1).max(40)).max(40).optional(),
});

const wordSize = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("cap-height"), mm: length(2, 500) }),
  z.strictObject({ by: z.literal("width"), mm: length(2, 1000) }),
]);

const word = z
  .strictObject({
    kind: z.literal("word"),
    id,
    text: z
      .string()
      .refine((text) => !/[\r\n\u2028\u2029]/.test(text), "must be a single line; give every line a word of its own"),
    /** One key per letter (grapheme cluster) of the text; per-letter changes hang on these. */
    keys: z.array(id).default([]),
    changes: z.record(id, letterChange).default({}),
    font: z.string().min(1).max(80),
    size: wordSize,
    /** Added between letters, mm; negative brings them together. */
    tracking: z.number().min(-50).max(50).default(0),
    /**
     * Neighbours reach into each other by so much, mm, measured on their outlines; negative leaves a gap. Left out, letters stand
     * as the font has them, with the tracking.
     */
    overlap: z.number().min(-50).max(50).optional(),
    /** Dots and accents stay where the font has them, or come to their letter until they bite. */
    dots: z.enum(["leave", "bite"]).default("leave"),
    /** Strokes grown by so much in all, mm: half of it on each side. */
    thicken: z.number().min(0).max(10).default(0),
    /** Left end of the baseline. */
    at: z.strictObject({ x: offset, y: offset }).default({ x: 0, y: 0 }),
    /** Which end of the baseline, or its middle, stays put when the word changes. */
    align: z.enum(["left", "centre", "right"]).default("centre"),
  })
  .superRefine((value, context) => {
    const letters = graphemesOf(value.text).length;
    if (letters > LIMITS.letters) {
      context.addIssue({ code: "custom", path: ["text"], message: `has ${letters} letters; a word can have ${LIMITS.letters}` });
    }
  })
  .transform((value) => ({ ...value, keys: completeKeys(value.keys, graphemesOf(value.text).length) }));

const bar = z.strictObject({
  kind: z.literal("bar"),
  id,
  /** A length, or as long as the lettering above plus the overhang at each end. */
  length: z.union([z.literal("fit"), length(1, 1000)]).default("fit"),
  overhang: z.number().min(-500).max(500).default(0),
  height: length(0.5, 500).default(6),
  /** How far the bar's upper edge reaches above the baseline. */
  overlap: z.number().min(-100).max(100).default(1),
  corner: length(0, 250).default(0),
  /** Shift from the middle of the lettering. */
  dx: offset.default(0),
});

const stick = z.strictObject({
  kind: z.literal("stick"),
  id,
  width: length(0.5, 200).default(6),
  length: length(1, 1000).default(90),
  tip: z.enum(["round", "pointed", "square"]).default("round"),
  /** How far it reaches up into the material above it. */
  bite: z.number().min(-100).max(200).default(4),
  dx: offset.default(0),
});

const tieEnd = z.strictObject({
  /** The letter that this end sits on and follows; without one the end stays where it is. */
  letter: z.strictObject({ wordId: id, key: id }).optional(),
  /** From the letter's origin, else from the piece's. */
  x: offset,
  y: offset,
});

const tie = z.strictObject({
  kind: z.literal("tie"),
  id,
  width: length(0.1, 100),
  ends: z.tuple([tieEnd, tieEnd]),
});

/** Closes what is too narrow to be cut: slits, small holes. */
const fill = z.strictObject({
  kind: z.literal("fill"),
  id,
  /** Where; it follows the letter that it sits on. */
  at: tieEnd,
  /** Closes empty space up to this width, mm … */
  width: length(0.05, 20),
  /** … that lies no farther away than this, mm. */
  reach: length(0.1, 100),
});

export const partSchema = z.discriminatedUnion("kind", [word, bar, stick, tie, fill]);

export const stockSchema = z.strictObject({
  id: z.string().max(40),
  name: z.string().min(1).max(60),
  material: z.enum(["birch", "walnut", "mdf", "acrylic-clear", "acrylic-teal", "acrylic-red"]),
  thickness: length(0.1, 100),
  leastWidth: length(0.05, 50),
  kerf: length(0, 5),
  tool: z.enum(["laser", "saw"]),
  /** Bending strength, N/mm² (MPa). */
  strength: length(1, 1000).default(40),
});

/** A finding that the maker has looked at and lets be. */
const accepted = z.strictObject({
  kind: z.string().min(1).max(40),
  /** Ids of the parts that meet at the place, ascending. */
  parts: z.array(z.string().min(1).max(120)).max(200),
  /** Width there at the time, mm: should it become narrower, the finding comes back. */
  width: z.number().min(0).max(LIMITS.reach),
  reason: z.string().trim().max(200),
});

export const PURPOSES = ["topper", "stake", "nameplate", "sign", "earring", "key ring"] as const;

export const pieceSchema = z
  .strictObject({
    format: z.literal("mend-joint-piece").default("mend-joint-piece"),
    version: z.literal(PIECE_VERSION).default(PIECE_VERSION),
    id: id.default("piece"),
    name: z.string().trim().min(1, "must not be empty").max(LIMITS.name),
    purpose: z.enum(PURPOSES).default("topper"),
    stock: stockSchema,
    /** On the line, the cut takes half its width from each side of a joint; outside the line, the machine leaves the piece as drawn. */
    cut: z.enum(["on-line", "outside"]).default("on-line"),
    /** In build order: later parts join, or change, what is there. */
    parts: z.array(partSchema).max(LIMITS.parts),
    accepted: z.array(accepted).max(LIMITS.letters).default([]),
  })
  .superRefine((piece, context) => {
    const seen = new Set<string>();
    piece.parts.forEach((part, i) => {
      if (seen.has(part.id))
        context.addIssue({ code: "custom", path: ["parts", i, "id"], message: `"${part.id}" is used twice` });
      seen.add(part.id);
    });
  });

export type Piece = z.output<typeof pieceSchema>;
export type Part = z.output<typeof partSchema>;
export type Word = Extract<Part, { kind: "word" }>;
export type Bar = Extract<Part, { kind: "bar" }>;
export type Tie = Extract<Part, { kind: "tie" }>;
export type Fill = Extract<Part, { kind: "fill" }>;
export type Anchor = Tie["ends"][number];
export type Stick = Extract<Part, { kind: "stick" }>;
export type LetterChange = z.output<typeof letterChange>;
export type Accepted = z.output<typeof accepted>;
export type Stock = z.output<typeof stockSchema>;

/** Hand-written documents may leave keys out, or carry too many: what is there is kept, what is missing is made. */
function completeKeys(keys: readonly string[], count: number): string[] {
  const complete: string[] = [];
  const used = new Set(keys);
  let next = 1;
  for (let i = 0; i < count; i++) {
    const given = keys[i];
    if (given !== undefined && !complete.includes(given)) {
      complete.push(given);
      continue;
    }
    while (used.has(`k${next}`)) next++;
    complete.push(`k${next++}`);
  }
  return complete;
}

/** A document that cannot be a piece. The message is for people. */
export class PieceError extends Error {
  override name = "PieceError";
}

/** Reads a document of any version. @throws PieceError */
export function parsePiece(document: unknown): Piece {
  const upgraded = upgradePiece(document);
  const result = pieceSchema.safeParse(upgraded);
  if (result.success) return result.data;
  throw new PieceError(describeIssues(result.error));
}

/** "parts[0].size.mm: Too small: expected number to be >=2" for each fault, at most three. */
export function describeIssues(error: z.ZodError): string {
  const lines = error.issues.slice(0, 3).map((issue) => {
    const where = issue.path.reduce<string>(
      (text, key) => text + (typeof key === "number" ? `[${key}]` : text ? `.${String(key)}` : String(key)),
      "",
    );
    return where ? `${where}: ${issue.message}` : issue.message;
  });
  const more = error.issues.length - lines.length;
  return lines.join("; ") + (more > 0 ? `; and ${more} more` : "");
}

/** Brings a stored document up to the present version, one step at a time. */
export function upgradePiece(document: unknown): unknown {
  if (typeof document !== "object" || document === null || Array.isArray(document)) {
    throw new PieceError("A piece is a JSON object; this is not one");
  }
  const { format, version = PIECE_VERSION } = document as { format?: unknown; version?: unknown };
  if (format !== undefined && format !== "mend-joint-piece") throw new PieceError(`"${String(format)}" is not a piece document`);
  if (typeof version !== "number" || version > PIECE_VERSION) {
    throw new PieceError(
      `The piece was made by a newer Mend Joint (document version ${String(version)}); this one reads up to ${PIECE_VERSION}`,
    );
  }
  return document;
}
