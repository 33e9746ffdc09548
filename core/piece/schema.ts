/**
 * What a piece is. Everything a maker decides is in here, nothing that can be worked out from it.
 *
 * A document is JSON, lengths in mm, y up. `upgradePiece` reads documents of any earlier version; `parsePiece` turns
 * anything else down with a sentence that says what is wrong and where.
 */

import { z } from "zod";
import { ClearError } from "../errors";
// Only this of the geometry: pages that know of pieces need not load the polygon library.
import { parsePathData } from "../geometry/pathData";
import { OWN_MARKS, SYMBOL_NAMES } from "./symbols";
import { graphemesOf } from "./text";

// Checks are not compiled into code, which pages would have to allow.
z.config({ jitless: true });

/**
 * 2: drawings as parts. 3: sheets of more materials, with stiffness, grain and smallest hole. 4: direction of the grain, strength across it.
 * 5: what a piece must bear, density and colour of sheets.
 */
export const PIECE_VERSION = 5;

/** Bounds that keep a piece inside what the measuring can carry. */
export const LIMITS = {
  letters: 500,
  text: 10_000,
  parts: 60,
  coordinate: 1000,
  name: 80,
  nodes: 24,
  numbered: 59,
  outline: 3_000_000,
  outlines: 4_000_000,
  /** Of an outline that stands in a text. */
  symbol: 60_000,
} as const;

const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, "must be 1 to 40 letters, digits, - or _");
const offset = z.number().min(-LIMITS.coordinate).max(LIMITS.coordinate);
const length = (least: number, most: number) => z.number().min(least).max(most);

/**
 * What is done about dots and accents: they stay where the font has them, come to their letter until they bite, or get a tie,
 * straight down, slanted, or to the letter beside.
 */
const dotsMode = z.enum(["leave", "bite", "tie", "slanted", "neighbour"]);

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
  /** Turned about the middle of its foot, degrees, counter-clockwise. */
  turn: length(-180, 180).optional(),
  /** As many times as large as the others. */
  scale: length(0.1, 10).optional(),
  /** Left and right exchanged. */
  mirror: z.boolean().optional(),
  /** Stretched downwards from its head by, mm, so that it reaches a bar that it is short of. */
  reach: length(0, 100).optional(),
  /** Space added before this letter, mm; those after it move along. */
  kern: length(-50, 50).optional(),
  /** False: no score line where it covers other letters. */
  score: z.boolean().optional(),
  /** Its dots and accents are treated otherwise than those of the word. */
  dots: dotsMode.optional(),
  /** Cut out, the directions in which bridges hold its insides, degrees; `null` for those that go where it is best. */
  bridges: z.array(length(-180, 180).nullable()).max(40).optional(),
  /** Separate pieces of the letter that are left out, numbered from 1 by size; 0 is the letter itself. */
  without: z.array(z.number().int().min(1).max(40)).max(40).optional(),
});

const wordSize = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("cap-height"), mm: length(2, 500) }),
  z.strictObject({ by: z.literal("width"), mm: length(2, 1000) }),
  z.strictObject({ by: z.literal("height"), mm: length(2, 1000) }),
  /** Width and height, the letters stretched. */
  z.strictObject({ by: z.literal("both"), mm: length(2, 1000), height: length(2, 1000) }),
  /** As large as fits into a box. */
  z.strictObject({ by: z.literal("within"), mm: length(2, 1000), height: length(2, 1000) }),
]);

/** A line as wide as this is cut along the path, which then holds the letters, mm. */
const cutLine = length(0.5, 50).optional();
/** Distance of the letters from the line, or from its edge where it is cut, mm; negative brings them into it. */
const fromLine = length(-200, 200).default(0);

/** What letters stand on when it is not a straight line; the word's place is the middle of an arc or a spiral. */
const wordPath = z.discriminatedUnion("kind", [
  /** One below the other, each bitten into the next until the joint has this width, mm. */
  z.strictObject({ kind: z.literal("stacked"), joint: length(0, 50).default(2) }),
  z.strictObject({
    kind: z.literal("arc"),
    radius: length(1, 1000),
    /** Where on the circle the word's middle (or its first or last letter, by its alignment) is, degrees: 90 is the top, 270 the bottom. */
    angle: length(-360, 360).default(90),
    side: z.enum(["outside", "inside"]).default("outside"),
    /** Read clockwise, feet to the middle; or counter-clockwise, heads to the middle, as along the bottom of a ring. */
    reading: z.enum(["clockwise", "counter-clockwise"]).default("clockwise"),
    distance: fromLine,
    /** Letters are spread so that the ring closes. */
    around: z.boolean().default(false),
    /** A second ring beyond the heads: each letter is stretched until it bites into both. */
    between: z.strictObject({ gap: length(1, 500), bite: length(0, 50), line: length(0.5, 50) }).optional(),
    line: cutLine,
  }),
  z.strictObject({
    kind: z.literal("curve"),
    /** The curve runs smoothly through these, from the word's place on, mm. */
    points: z
      .array(z.strictObject({ x: offset, y: offset }))
      .min(2)
      .max(LIMITS.nodes),
    distance: fromLine,
    line: cutLine,
  }),
  z.strictObject({
    kind: z.literal("spiral"),
    /** Where it begins, mm from its middle. */
    radius: length(0.5, 1000),
    /** From one turn to the next, mm; negative winds inwards. */
    pitch: length(-200, 200),
    /** Direction of its beginning, degrees. */
    angle: length(-360, 360).default(90),
    distance: fromLine,
    line: cutLine,
  }),
  /** Round one of the outlines of a drawing; the word's place moves it away from there. */
  z.strictObject({
    kind: z.literal("outline"),
    drawing: id,
    /** Which of its outlines, numbered by size from 0. */
    number: z.number().int().min(0).max(LIMITS.numbered).default(0),
    /** Where the word's middle (or its first or last letter, by its alignment) is, seen from the outline's middle, degrees. */
    angle: length(-360, 360).default(90),
    side: z.enum(["outside", "inside"]).default("outside"),
    reading: z.enum(["clockwise", "counter-clockwise"]).default("clockwise"),
    distance: fromLine,
    /** Letters are spread so that they go all round it. */
    around: z.boolean().default(false),
  }),
]);

/**
 * Closed outlines as SVG path data of M, L, C, Z and circular A, absolute, mm, y downwards, in its own place and size; what lies inside
 * another outline is a hole.
 */
const closedOutlines = z
  .string()
  .max(LIMITS.outline, `has more than ${LIMITS.outline / 1e6} million characters: a simpler outline is wanted`)
  .refine((data) => (parsePathData(data)?.length ?? 0) > 0, "must be closed outlines as path data of M, L, C, A and Z");

/** An outline of the maker's own as a symbol in a text. */
const drawnSymbol = z.strictObject({
  name: z.string().trim().min(1, "must not be empty").max(LIMITS.name),
  outline: closedOutlines.max(
    LIMITS.symbol,
    `has more than ${LIMITS.symbol / 1000} thousand characters: as a symbol in a text a simpler outline is wanted`,
  ),
});

const word = z
  .strictObject({
    kind: z.literal("word"),
    id,
    text: z
      .string()
      .max(LIMITS.text, `has more than ${LIMITS.text} characters`)
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
    /** Neighbours are brought together until the joint between them has this width, mm; goes before the overlap. */
    join: length(0.1, 50).optional(),
    dots: dotsMode.default("leave"),
    /** Width of ties to dots and accents, mm; left out, as wide as the sheet wants. */
    tieWidth: length(0.1, 50).optional(),
    /** Angle of slanted ties to the line, degrees; left out, the shortest way that leans enough. */
    tieAngle: length(10, 80).optional(),
    /** Strokes grown by so much in all, mm, half of it on each side; negative makes them thinner. */
    thicken: z.number().min(-10).max(10).default(0),
    /** Corners of grown strokes. */
    corners: z.enum(["round", "sharp", "bevelled"]).default("round"),
    /** Outer points rounded, inner corners filled, by a radius, mm. */
    roundOuter: length(0, 20).default(0),
    roundInner: length(0, 20).default(0),
    /** Leaned to the right, degrees. */
    slant: length(-45, 45).default(0),
    /** Features of the font, on (1), off (0), or the number of an alternate: `{ "liga": 0, "ss01": 1 }`. */
    features: z
      .record(z.string().regex(/^[a-zA-Z0-9]{4}$/, 'must be a tag such as "liga"'), z.number().int().min(0).max(99))
      .default({}),
    /** Where a variable font stands on its axes: `{ "wght": 800 }`. */
    axes: z
      .record(z.string().regex(/^[\x20-\x7e]{4}$/, 'must be a tag such as "wght"'), z.number().min(-1e5).max(1e5))
      .default({}),
    /** Outlines of the maker's own that stand in the text like letters, by the character that stands for each: Ⓐ to Ⓩ. */
    drawn: z.record(z.string().regex(/^[Ⓐ-Ⓩ]$/u, "must be a character from Ⓐ to Ⓩ"), drawnSymbol).default({}),
    /** A symbol in place of the spaces between words; Ⓐ to Ⓩ for an outline of the maker's own. */
    separator: z.enum([...SYMBOL_NAMES, ...OWN_MARKS]).optional(),
    /** Where a letter covers another, its edge is scored. */
    score: z.boolean().default(false),
    /** It comes up (or down) to the words before it until the widest joint with them has this width, mm. */
    bitesBefore: length(0.1, 50).optional(),
    /** How it meets the material before it; engraved, it takes nothing away and adds nothing. */
    meets: z.enum(["add", "carve", "halo", "engrave"]).default("add"),
    gap: length(0.1, 100).default(1.2),
    /** Cut out, bridges are left in its strokes that hold their insides; without a width, as wide as the sheet wants, mm. */
    bridges: z.strictObject({ width: length(0.1, 50).optional() }).optional(),
    path: wordPath.optional(),
    /** Left end of the baseline. */
    at: z.strictObject({ x: offset, y: offset }).default({ x: 0, y: 0 }),
    /** Which end of the baseline, or its middle, stays put when the word changes. */
    align: z.enum(["left", "centre", "right"]).default("centre"),
  })
  .superRefine((value, context) => {
    // What is too long as text is not counted letter by letter.
    if (value.text.length > LIMITS.text) return;
    const letters = graphemesOf(value.text).length;
    if (letters > LIMITS.letters) {
      context.addIssue({ code: "custom", path: ["text"], message: `has ${letters} letters; a word can have ${LIMITS.letters}` });
    }
  })
  .transform((value) =>
    value.text.length > LIMITS.text ? value : { ...value, keys: completeKeys(value.keys, graphemesOf(value.text).length) },
  );

/**
 * How a part meets the material before it: it joins it, cuts itself out of it, or clears a gap around itself and then stands in it.
 */
const meets = z.enum(["add", "carve", "halo"]).default("add");
/**
 * A plate may also take the place of the drawing behind it: base shapes and ornaments are gone within its outline, less a small
 * overlap that joins the two.
 */
const plateMeets = z.enum(["add", "carve", "halo", "set-in"]).default("add");
/** That overlap, mm. */
const lap = length(0.1, 50).default(1.5);
/** Width of the cleared gap, mm. */
const gap = length(0.1, 100).default(1.2);

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
  /** Under the middle of the lettering; or under the centre of mass of what it carries, so that it does not tip over. */
  under: z.literal("mass").optional(),
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
  /** How far its middle bends out to the left of the way from its first to its second end, mm. */
  bend: length(-200, 200).optional(),
  /** Square instead of round ends; either die into the material. */
  square: z.boolean().optional(),
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

/** An ear for a ring or a wire, on the outline of what is there. */
const loop = z.strictObject({
  kind: z.literal("loop"),
  id,
  outer: length(1, 200).default(12),
  hole: length(0.3, 190).default(8),
  /** Where on the outline, seen from the middle of the piece: degrees, 90 is the top. */
  angle: length(-360, 360).default(90),
  /** How far it reaches into the material, mm. */
  bite: length(-50, 100).default(2.5),
});

/** The lettering's outline grown. */
const backing = z.strictObject({
  kind: z.literal("backing"),
  id,
  distance: length(0.2, 100).default(5),
  corners: z.enum(["round", "sharp", "bevelled"]).default("round"),
  /** Holes inside it stay, are filled, or are filled when they are narrower than a width, mm. */
  holes: z.union([z.enum(["keep", "fill"]), length(0.1, 200)]).default("fill"),
  /** Words that it lies under; left out, all of them. */
  words: z.array(id).max(LIMITS.parts).optional(),
  meets: z.enum(["add", "set-in"]).default("add"),
  lap,
});

export const SHAPE_FORMS = ["disc", "oval", "plate", "arch", "tag", "shield", "cloud", "banner"] as const;

/** A base shape behind or around the lettering. */
const shape = z.strictObject({
  kind: z.literal("shape"),
  id,
  form: z.enum(SHAPE_FORMS).default("plate"),
  /** Outer size of its own, or so much larger than the lettering on every side. */
  size: z
    .discriminatedUnion("by", [
      z.strictObject({ by: z.literal("own"), width: length(2, 1000), height: length(2, 1000) }),
      z.strictObject({ by: z.literal("fit"), margin: length(-200, 200) }),
    ])
    .default({ by: "fit", margin: 8 }),
  /** Solid, or a frame of this width, mm. */
  frame: length(0.5, 200).optional(),
  corner: length(0, 200).default(6),
  /** Its middle is that of the first line that runs round one; else that of the lettering's box. */
  centre: z.literal("ring").optional(),
  dx: offset.default(0),
  dy: offset.default(0),
  meets: plateMeets,
  gap,
  lap,
  /**
   * How a frame makes room for the word: not at all; it ends in the first and last letter and is gone behind the word; or it is
   * opened between two bars with round ends that the word bites into.
   */
  opening: z.enum(["none", "behind", "bars"]).default("none"),
  /** Height of those bars, and how far the letters reach into them, mm. */
  bar: length(0.5, 100).default(5),
  bite: length(-50, 50).default(1.5),
});

/** A flat stake, its letters standing in a notch. */
const stake = z.strictObject({
  kind: z.literal("stake"),
  id,
  /** Height of the body below the letters, mm. */
  below: length(1, 200).default(9),
  /** Clear space around the letters. */
  gap: length(0, 100).default(3),
  /** Clear space on one side of the letters only; on the other they reach into the body as far as below. */
  clear: z.enum(["left", "right"]).optional(),
  /** How far the letters reach down into the body. */
  bite: length(-50, 50).default(1.5),
  /** Body beyond the notch on either side. */
  margin: length(0.5, 500).default(12),
  /** Length of the pointed end. */
  point: length(0, 500).default(45),
  /** From end to end, mm: the pointed end is as long as that leaves. */
  total: length(10, 2000).optional(),
  corner: length(0, 100).default(3),
});

/** A silhouette. */
const ornament = z.strictObject({
  kind: z.literal("ornament"),
  id,
  name: z.enum(SYMBOL_NAMES),
  height: length(1, 500).default(15),
  /** Its middle; it follows the letter that it sits on. */
  at: tieEnd,
  turn: length(-180, 180).default(0),
  mirror: z.boolean().default(false),
  /** Points rounded by, mm. */
  round: length(0, 20).default(0),
  meets,
  gap,
  /** Holes of the material around it are filled before it is cut out: it takes the place of a counter. */
  closes: z.boolean().default(false),
});

/** An outline from elsewhere: a drawing, or what was traced from a picture. */
const drawing = z.strictObject({
  kind: z.literal("drawing"),
  id,
  /** How the maker calls it. */
  name: z.string().trim().min(1, "must not be empty").max(LIMITS.name),
  outline: closedOutlines,
  /** Of the whole outline, mm. */
  height: length(0.5, 1000),
  /** The middle of its box; it follows the letter that it sits on. */
  at: tieEnd,
  turn: length(-180, 180).default(0),
  mirror: z.boolean().default(false),
  /** Strokes grown by so much in all, mm, half of it on each side; negative makes them thinner. */
  thicken: z.number().min(-10).max(10).default(0),
  /** Points rounded by, mm. */
  round: length(0, 20).default(0),
  /** Solid, or a frame of this width along its edge, mm. */
  frame: length(0.2, 200).optional(),
  meets: z.enum(["add", "carve", "halo", "set-in", "engrave", "score"]).default("add"),
  gap,
  lap,
  /** It holds the letters, as a bar or a plate does. */
  holder: z.boolean().default(false),
  /** How a frame makes room for the word, as that of a base shape. */
  opening: z.enum(["none", "behind", "bars"]).default("none"),
  bar: length(0.5, 100).default(5),
  bite: length(-50, 50).default(1.5),
  /** Traced from a picture that is kept, and what was chosen for that: it can be traced again. */
  traced: z
    .strictObject({
      picture: id,
      /** mm for a pixel of the picture as it is kept; sizes of specks and holes go by it. */
      pixel: length(1e-4, 100),
      threshold: length(0, 255).optional(),
      speck: length(0, 50),
      hole: length(0, 50),
      detail: length(0.1, 10),
      turn: length(-45, 45),
      /** A place that is background, pixels from the upper left corner. */
      background: z.strictObject({ x: length(0, 20_000), y: length(0, 20_000) }).optional(),
    })
    .optional(),
});

/** An outline that the maker keeps for other pieces. */
export const keptOutlineSchema = z.strictObject({
  id,
  name: drawing.shape.name,
  outline: closedOutlines,
  height: drawing.shape.height,
});

export const partSchema = z.discriminatedUnion("kind", [
  word,
  bar,
  stick,
  tie,
  fill,
  loop,
  backing,
  shape,
  stake,
  ornament,
  drawing,
]);

/** How a sheet looks, and what is usual for it. */
export const MATERIALS = [
  "birch",
  "poplar",
  "bamboo",
  "oak",
  "maple",
  "cherry",
  "walnut",
  "mdf",
  "acrylic-clear",
  "acrylic-frosted",
  "acrylic-white",
  "acrylic-black",
  "acrylic-teal",
  "acrylic-red",
  "acrylic-gold",
  "acrylic-silver",
  "leather",
  "card",
] as const;
export type Material = (typeof MATERIALS)[number];

export const stockSchema = z.strictObject({
  id: z.string().max(40),
  name: z.string().min(1).max(60),
  material: z.enum(MATERIALS),
  thickness: length(0.1, 100),
  leastWidth: length(0.05, 50),
  kerf: length(0, 5),
  tool: z.enum(["laser", "saw"]),
  /** Bending strength, N/mm² (MPa). */
  strength: length(1, 1000).default(40),
  /** Stiffness (Young's modulus), N/mm²; left out, as usual for the material. */
  young: length(1, 300_000).optional(),
  /** Whether its fibres run one way; left out, as usual for the material. */
  grain: z.boolean().optional(),
  /** Bending strength across the grain, N/mm²; left out, as usual for wood. */
  strengthAcross: length(1, 1000).optional(),
  /** g/cm³; left out, as usual for the material. */
  density: length(0.05, 25).optional(),
  /** Left out, as usual for the material. */
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/, "must be a colour such as #2f6f73")
    .optional(),
  /** Narrowest hole that it lets be cut, mm; left out, by the kerf or the saw's blade. */
  hole: length(0.05, 20).optional(),
});

/** A finding that the maker has looked at and lets be. */
const accepted = z.strictObject({
  kind: z.string().min(1).max(40),
  /** Ids of the parts that meet at the place, ascending. */
  parts: z.array(z.string().min(1).max(120)).max(200),
  /** Width there at the time, mm: should it become narrower, the finding comes back. */
  width: z.number().min(0).max(LIMITS.coordinate),
  /** Width that was wanted there, mm: should more be wanted, by another sheet or a harder hand, it comes back too. */
  wanted: z.number().min(0).optional(),
  reason: z.string().trim().max(200),
});

/** What a piece can be held by in use; where it has several of these, by the first. */
export const HELD_BY = ["stick", "stake", "loop", "bar", "backing", "holder", "letters"] as const;

/** What a piece must bear in use, and how it is held then. Forces in N; what is left out is as usual. */
const hand = z.strictObject({
  /** What does not bear it is weak: it counts for the verdict. */
  rule: z.boolean().optional(),
  held: z.enum(HELD_BY).optional(),
  finger: length(0.1, 500).optional(),
  planting: length(0.1, 500).optional(),
  tugging: length(0.1, 500).optional(),
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
    /** Cut twice, the second time mirrored, as for a pair of earrings; engraving mirrored as well, or readable. */
    pair: z.strictObject({ gap: length(0, 500), engraving: z.enum(["readable", "mirrored"]).default("readable") }).optional(),
    /** Kept as a beginning for others: its words are what is filled in. */
    starter: z.boolean().optional(),
    /** Direction of the grain in it, degrees from the horizontal; left out, along the lettering. */
    grain: length(-90, 90).optional(),
    /** What it must bear. */
    hand: hand.optional(),
    /** Largest size that the finished piece may have, mm. */
    limit: z.strictObject({ width: length(1, 2000), height: length(1, 2000) }).optional(),
    accepted: z.array(accepted).max(LIMITS.letters).default([]),
  })
  .superRefine((piece, context) => {
    const seen = new Set<string>();
    piece.parts.forEach((part, i) => {
      if (seen.has(part.id))
        context.addIssue({ code: "custom", path: ["parts", i, "id"], message: `"${part.id}" is used twice` });
      seen.add(part.id);
    });
    const outlines = piece.parts.reduce((sum, part) => sum + (part.kind === "drawing" ? part.outline.length : 0), 0);
    if (outlines > LIMITS.outlines) {
      const message = `all drawings together have more than ${LIMITS.outlines / 1e6} million characters`;
      context.addIssue({ code: "custom", path: ["parts"], message });
    }
  });

export type Piece = z.output<typeof pieceSchema>;
export type Part = z.output<typeof partSchema>;
export type Word = Extract<Part, { kind: "word" }>;
export type Bar = Extract<Part, { kind: "bar" }>;
export type Tie = Extract<Part, { kind: "tie" }>;
export type Loop = Extract<Part, { kind: "loop" }>;
export type Backing = Extract<Part, { kind: "backing" }>;
export type Shape = Extract<Part, { kind: "shape" }>;
export type Stake = Extract<Part, { kind: "stake" }>;
export type Ornament = Extract<Part, { kind: "ornament" }>;
export type DrawingPart = Extract<Part, { kind: "drawing" }>;
/** How a drawing was traced. */
export type Tracing = NonNullable<DrawingPart["traced"]>;
export type KeptOutline = z.output<typeof keptOutlineSchema>;
export type Meets = Word["meets"];
export type Fill = Extract<Part, { kind: "fill" }>;
export type Anchor = Tie["ends"][number];
export type Stick = Extract<Part, { kind: "stick" }>;
export type WordPath = z.output<typeof wordPath>;
export type PathKind = WordPath["kind"];
export type ArcPath = Extract<WordPath, { kind: "arc" }>;
export type CurvePath = Extract<WordPath, { kind: "curve" }>;
export type SpiralPath = Extract<WordPath, { kind: "spiral" }>;
export type OutlinePath = Extract<WordPath, { kind: "outline" }>;
export type WordSize = z.output<typeof wordSize>;
export type DotsMode = z.output<typeof dotsMode>;
export type LetterChange = z.output<typeof letterChange>;
export type Hand = z.output<typeof hand>;
export type HeldBy = (typeof HELD_BY)[number];
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
export class PieceError extends ClearError {
  override name = "PieceError";
  readonly code = "piece";
}

/** Reads a document of any version. @throws PieceError */
export function parsePiece(document: unknown): Piece {
  const upgraded = upgradePiece(document);
  const result = pieceSchema.safeParse(upgraded);
  if (!result.success) throw new PieceError(describeIssues(result.error));
  const where = unstorable(result.data);
  if (where === null) return result.data;
  throw new PieceError(`${where}: has characters that cannot be kept (U+0000, or half of one)`);
}

/** False for a piece that has outgrown its bounds: it could not be saved. */
export function canBeKept(piece: Piece): boolean {
  return pieceSchema.safeParse(piece).success;
}

/** Path of the first text that no database and no file can keep: with a NUL, or with half of a surrogate pair; `null` for none. */
function unstorable(value: unknown, path = ""): string | null {
  if (typeof value === "string") return /[\0\p{Cs}]/u.test(value) ? path : null;
  if (typeof value !== "object" || value === null) return null;
  for (const [key, each] of Object.entries(value)) {
    const found = unstorable(each, Array.isArray(value) ? `${path}[${key}]` : path ? `${path}.${key}` : key);
    if (found !== null) return found;
  }
  return null;
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
  // Version 1 had no drawings, version 2 fewer materials, version 3 no direction of the grain, version 4 nothing that it must bear; all else is as it was.
  return { ...document, version: PIECE_VERSION };
}
