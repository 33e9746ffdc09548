/**
 * Ready-made live beginnings: choose one, type a word.
 */

import { OUTLINES } from "./outlines";
import { nameOfWords, retype } from "./retype";
import { type Piece, parsePiece } from "./schema";
import { stockByName } from "./sheets";

export interface Starter {
  id: string;
  name: string;
  note: string;
  /** How many words or lines it asks for. */
  lines: 1 | 2;
  /** It is made for capitals: the first word is set in them, unless the maker wants it as typed. */
  capitals?: true;
  /** Separate pieces of it are to be tied together, with ties of this width, mm. */
  ties?: number;
  make(texts: readonly string[], asTyped?: boolean): Piece;
}

type Parts = Record<string, unknown>[];

function starter(
  about: Omit<Starter, "make">,
  stock: string,
  purpose: Piece["purpose"],
  parts: (first: string, second: string) => Parts,
  more: object = {},
): Starter {
  return {
    ...about,
    make: ([first = "", second = ""], asTyped = false) =>
      parsePiece({
        name: first || second ? nameOfWords(about.lines === 2 ? [first, second] : [first]) : about.name,
        purpose,
        stock: stockByName(stock),
        parts: parts(about.capitals && !asTyped ? first.toUpperCase() : first, second),
        ...more,
      }),
  };
}

const word = (text: string, font: string, size: object, more: object = {}) => ({
  kind: "word",
  id: "w1",
  text,
  font,
  size,
  ...more,
});
const drawing = (name: string, outline: string, more: object) => ({
  kind: "drawing",
  id: "drawing",
  name,
  outline,
  at: { x: 0, y: 0 },
  ...more,
});
const byWidth = (mm: number) => ({ by: "width", mm });
const byCapitals = (mm: number) => ({ by: "cap-height", mm });

/** A plate that takes the place of the drawing behind it, and the word that fills it. */
const SET_IN_PLATE = {
  kind: "shape",
  id: "shape",
  form: "plate",
  corner: 6,
  frame: 5,
  size: { by: "fit", margin: 3.6 },
  meets: "set-in",
  lap: 2,
};
const wordOnPlate = (text: string) =>
  word(text, "archivo-black", { by: "both", mm: 120, height: 26 }, { dots: "bite", tracking: 4.5 });

/** Stand in beginnings while nothing is typed. */
export const EXAMPLE_WORDS: readonly [string, string] = ["Isolde", "Kit"];

export const STARTERS: readonly Starter[] = [
  starter({ id: "topper", name: "Topper", note: "a word on a stick, 6½ in wide", lines: 1 }, "birch-3", "topper", (text) => [
    word(text, "pacifico", byWidth(165), { dots: "bite", join: 2.4 }),
    { kind: "stick", id: "stick", width: 6.35, length: 90, tip: "round", bite: 5 },
  ]),
  starter(
    { id: "plant-stake", name: "Plant stake", note: "3 in wide, with a spike of 0.12 in", lines: 1 },
    "acrylic-teal-3",
    "stake",
    (text) => [
      word(text, "lobster", byWidth(76.2), { dots: "bite", join: 2.6, thicken: 0.6 }),
      { kind: "bar", id: "bar", height: 4, overlap: 2, corner: 2, overhang: 0 },
      { kind: "stick", id: "stick", width: 3, length: 60, tip: "pointed", bite: 3 },
    ],
  ),
  starter(
    { id: "flat-stake", name: "Flat stake", note: "letters stand in its notch, 7 in long", lines: 1, capitals: true },
    "birch-3",
    "stake",
    (text) => [
      word(text, "alfa-slab-one", byWidth(95), { dots: "bite", tracking: 0.4 }),
      { kind: "stake", id: "stake", below: 9, gap: 3, bite: 1.8, margin: 12, point: 50, corner: 3 },
    ],
  ),
  starter(
    { id: "stacked-earrings", name: "Stacked earrings", note: "letters downwards, within 2 × 2 in", lines: 1, capitals: true },
    "birch-3",
    "earring",
    (text) => [
      word(
        `○${text}`,
        "titan-one",
        { by: "within", mm: 50.8, height: 50.8 },
        {
          path: { kind: "stacked", joint: 3 },
          dots: "tie",
          thicken: 0.3,
        },
      ),
    ],
    { limit: { width: 50.8, height: 50.8 }, pair: { gap: 6 } },
  ),
  starter(
    { id: "key-ring", name: "Key ring", note: "letters engraved on a backing", lines: 1 },
    "acrylic-red-3",
    "key ring",
    (text) => [
      { kind: "backing", id: "backing", distance: 5 },
      word(text, "baloo-2-extra-bold", byCapitals(13), { meets: "engrave" }),
      { kind: "loop", id: "loop", outer: 12, hole: 5.5, angle: 180, bite: 3 },
    ],
  ),
  starter(
    { id: "two-line-key-ring", name: "Two-line key ring", note: "both lines under one backing", lines: 2 },
    "acrylic-teal-3",
    "key ring",
    (first, second) => [
      { kind: "backing", id: "backing", distance: 6.5 },
      word(first, "baloo-2-extra-bold", byCapitals(14), { meets: "engrave" }),
      { ...word(second, "baloo-2-extra-bold", byCapitals(9), { meets: "engrave", at: { x: 0, y: -16 } }), id: "w2" },
      { kind: "loop", id: "loop", outer: 12, hole: 5.5, angle: 90, bite: 3 },
    ],
  ),
  starter(
    { id: "nameplate", name: "Nameplate on a bar", note: "6 × 1¼ in on a bar of ½ in", lines: 1, capitals: true },
    "walnut-6",
    "nameplate",
    (text) => [
      word(text, "alfa-slab-one", byWidth(152.4), { tracking: 0.6, dots: "bite" }),
      { kind: "bar", id: "bar", height: 12.7, overlap: 3, overhang: 4, corner: 2 },
    ],
  ),
  starter(
    { id: "ring-sign", name: "Ring sign with a word", note: "the ring opens between two bars", lines: 1, capitals: true },
    "birch-3",
    "sign",
    (text) => [
      { kind: "shape", id: "shape", form: "disc", frame: 6, opening: "bars", bar: 5, bite: 2, size: { by: "fit", margin: 14 } },
      word(text, "archivo-black", byWidth(130), { tracking: 2, dots: "bite" }),
    ],
  ),
  starter(
    { id: "word-in-outline", name: "Word in an outline", note: "the outline runs into the first and last letter", lines: 1 },
    "birch-3",
    "sign",
    (text) => [
      { kind: "shape", id: "shape", form: "oval", frame: 5, opening: "behind", size: { by: "fit", margin: 26 } },
      word(text, "lobster", byWidth(140), { dots: "bite", join: 2.6 }),
    ],
  ),
  starter(
    {
      id: "plate-in-drawing",
      name: "Plate in a silhouette",
      note: "the drawing ends at the plate and joins it",
      lines: 1,
      capitals: true,
    },
    "birch-3",
    "sign",
    (text) => [
      SET_IN_PLATE,
      wordOnPlate(text),
      { kind: "ornament", id: "ornament", name: "anchor", height: 150, at: { x: 0, y: 6 } },
    ],
  ),
  starter(
    {
      id: "own-outline",
      name: "In your own outline",
      note: "bring in a drawing: it runs into the word and is gone behind it",
      lines: 1,
    },
    "birch-3",
    "sign",
    (text) => [
      drawing("bay", OUTLINES.bay, { height: 92, at: { x: -1, y: 4 }, frame: 5, opening: "behind", holder: true }),
      word(text, "lobster", byWidth(140), { dots: "bite", join: 2.6 }),
    ],
  ),
  starter(
    {
      id: "own-plate",
      name: "Plate in your own drawing",
      note: "bring in a drawing: it ends at the plate and joins it",
      lines: 1,
      capitals: true,
    },
    "birch-3",
    "sign",
    (text) => [SET_IN_PLATE, drawing("oak", OUTLINES.oak, { height: 150, at: { x: 0, y: 12 } }), wordOnPlate(text)],
  ),
  starter(
    {
      id: "in-wheel",
      name: "Words inside a wheel",
      note: "bring in a gear or a disc: letters hang from its rim",
      lines: 1,
      capitals: true,
    },
    "birch-3",
    "sign",
    (text) => [
      drawing("capstan wheel", OUTLINES.capstan, { height: 124, holder: true }),
      word(text, "anton", byCapitals(17), {
        path: { kind: "arc", radius: 40, side: "inside", distance: -2.2, around: true },
        separator: "star",
        dots: "bite",
      }),
    ],
  ),
  starter(
    { id: "rim-lettering", name: "Rim lettering", note: "letters spread around, hanging from a ring", lines: 1, capitals: true },
    "acrylic-3",
    "sign",
    (text) => [
      word(text, "anton", byCapitals(18), {
        path: { kind: "arc", radius: 50, side: "inside", distance: -2.2, around: true, line: 6 },
        separator: "star",
        dots: "bite",
      }),
    ],
  ),
  starter(
    { id: "arched-name", name: "Arched name", note: "letters stand on a ring around a plate", lines: 1, capitals: true },
    "birch-3",
    "sign",
    (text) => [
      word(text, "titan-one", byCapitals(20), {
        path: { kind: "arc", radius: 52, distance: -2.2, line: 8 },
        tracking: 1.5,
        dots: "bite",
      }),
    ],
  ),
  starter(
    {
      id: "round-plate",
      name: "Round plate",
      note: "80 mm with a hole of 36, words engraved around it",
      lines: 1,
      capitals: true,
    },
    "birch-3",
    "sign",
    (text) => [
      { kind: "shape", id: "shape", form: "disc", frame: 22, size: { by: "own", width: 80, height: 80 } },
      word(text, "archivo-black", byCapitals(9), {
        path: { kind: "arc", radius: 25, around: true },
        separator: "star",
        meets: "engrave",
      }),
    ],
  ),
  starter(
    { id: "between-rings", name: "Words between two rings", note: "each letter reaches both", lines: 1, capitals: true },
    "birch-3",
    "sign",
    (text) => [
      word(text, "archivo-black", byCapitals(12), {
        path: { kind: "arc", radius: 75, around: true, line: 4, between: { gap: 12, bite: 1.5, line: 4 } },
        separator: "diamond",
        dots: "bite",
      }),
    ],
  ),
  starter(
    {
      id: "overlaid-names",
      name: "Overlaid names",
      note: "the front one stands in a gap, tied across it",
      lines: 2,
      capitals: true,
      ties: 2.2,
    },
    "birch-3",
    "sign",
    (first, second) => [
      word(first, "archivo-black", byWidth(150), { overlap: 1.2 }),
      {
        ...word(
          second,
          "pacifico",
          { by: "within", mm: 135, height: 52 },
          { meets: "halo", gap: 1.4, dots: "bite", join: 2.2, at: { x: 0, y: 4 } },
        ),
        id: "w2",
      },
    ],
  ),
  starter(
    {
      id: "cut-through",
      name: "Cut-through plate",
      note: "the word is the hole; bridges hold its insides",
      lines: 1,
      capitals: true,
      ties: 2.6,
    },
    "birch-3",
    "sign",
    (text) => [
      { kind: "shape", id: "shape", form: "plate", corner: 5, size: { by: "fit", margin: 9 } },
      word(text, "titan-one", byWidth(120), { meets: "carve", bridges: { width: 2.6 }, tracking: 1.5 }),
    ],
  ),
];

/** A piece of the maker's own as a beginning: its words in order are filled in, whatever was done to letters that stay is kept. */
export function fillIn({ starter: _, ...piece }: Piece, texts: readonly string[]): Piece {
  let next = 0;
  const parts = piece.parts.map((part) => {
    if (part.kind !== "word") return part;
    const text = texts[next++]?.trim();
    return text ? retype(part, text) : part;
  });
  const given = texts.slice(0, next).some((text) => text.trim() !== "");
  return { ...piece, name: given ? nameOfWords(texts.slice(0, next)) : piece.name, parts };
}

/** @throws when there is no starter of that id */
export function starterById(id: string): Starter {
  const found = STARTERS.find((each) => each.id === id);
  if (!found) throw new Error(`There is no beginning "${id}"`);
  return found;
}
