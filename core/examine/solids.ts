/**
 * From a piece to the things that must hold: islands of letters, holders, ties, each with a name for sentences.
 */
import { joinBoxes, type Point, type Region } from "../geometry";
import { barOutline, type EndPlace, fillOutline, type Surroundings, stickOutline, tieOutline } from "../holders";
import type { Finding, PartLabel, Verdict } from "../judge";
import { type Font, type Letter, type LetterIsland, layoutWord, type WordLayout } from "../lettering";
import type { Body } from "../measure";
import { type Anchor, graphemesOf, type Part, type Piece, widthToDraw } from "../piece";

/** Where fonts come from. Loading them is the caller's business; examining is synchronous. */
export interface Library {
  font(id: string): Font | undefined;
}

/** One thing that must hold: an island of a letter, a holder, a shape. */
export interface Solid {
  id: string;
  /** Id of the part of the piece it comes from. */
  partId: string;
  /** Id of the letter it belongs to, for letters and their dots. */
  letterId?: string;
  label: PartLabel;
  holder: boolean;
  region: Region;
  pole?: Body | null;
}

export function layOutWords(piece: Piece, library: Library): { layouts: WordLayout[]; findings: Finding[] } {
  const layouts: WordLayout[] = [];
  const findings: Finding[] = [];
  for (const part of piece.parts) {
    if (part.kind !== "word") continue;
    const font = library.font(part.font);
    if (!font) {
      findings.push(
        remark("missing-letter", [part.id], part.at, "falls", `The lettering "${part.font}" is not here. Choose another.`),
      );
      continue;
    }
    const layout = layoutWord(part, font, widthToDraw(piece));
    layouts.push(layout);
    if (layout.missing.length === 0) continue;
    const letters = [...new Set(layout.missing.map(({ text }) => text))].map((text) => printable(text)).join(" ");
    findings.push(
      remark(
        "missing-letter",
        layout.missing.map(({ key }) => `${part.id}:${key}`),
        part.at,
        "falls",
        `${font.name} has no ${letters}. Choose other lettering, or leave it out.`,
      ),
    );
  }
  return { layouts, findings };
}

/** Control and format characters are named by number: they would not be seen. */
function printable(text: string): string {
  return /^[\p{C}\p{Z}]+$/u.test(text)
    ? [...text].map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`).join(" ")
    : text;
}

export function remark(kind: Finding["kind"], parts: string[], at: Point, means: Verdict, message: string): Finding {
  return { kind, parts, meeting: parts.length, at: { ...at }, width: 0, means, message };
}

export function solidsOf(piece: Piece, layouts: readonly WordLayout[]): Solid[] {
  const solids: Solid[] = [];
  const lettering = joinBoxes(layouts.map((layout) => layout.box));
  const filled = layouts.filter((layout) => layout.box);
  const baseline = Math.min(...filled.map((layout) => layout.baseline), filled.length > 0 ? Infinity : 0);
  for (const part of piece.parts) {
    if (part.kind === "word") {
      const layout = layouts.find(({ wordId }) => wordId === part.id);
      if (layout) solids.push(...layout.letters.flatMap((letter) => lettersToSolids(letter, layout)));
      continue;
    }
    const around = { lettering, baseline, before: solids.map((solid) => solid.region) };
    const region = outlineOf(part, around, (end) => placeOfEnd(end, layouts));
    if (region.length === 0) continue;
    solids.push({
      id: part.id,
      partId: part.id,
      label: { kind: part.kind, text: "", ordinal: "" },
      holder: part.kind === "bar" || part.kind === "stick",
      region,
    });
  }
  return solids;
}

function outlineOf(part: Exclude<Part, { kind: "word" }>, around: Surroundings, place: EndPlace): Region {
  switch (part.kind) {
    case "bar":
      return barOutline(part, around);
    case "stick":
      return stickOutline(part, around);
    case "tie":
      return tieOutline(part, place);
    case "fill": {
      const at = place(part.at);
      return at ? fillOutline(part, at, around.before) : [];
    }
  }
}

function placeOfEnd({ letter, x, y }: Anchor, layouts: readonly WordLayout[]): Point | null {
  if (!letter) return { x, y };
  const home = layouts.find(({ wordId }) => wordId === letter.wordId)?.letters.find(({ key }) => key === letter.key);
  return home ? { x: home.origin.x + x, y: home.origin.y + y } : null;
}

function lettersToSolids(letter: Letter, layout: WordLayout): Solid[] {
  const ordinal = ordinalOf(letter, layout);
  return letter.islands.map((island) => ({
    id: island.id,
    partId: layout.wordId,
    letterId: letter.id,
    label: { kind: islandKind(letter, island), text: letter.text, ordinal },
    holder: false,
    region: island.region,
    pole: island.pole,
  }));
}

function islandKind(letter: Letter, island: LetterIsland): PartLabel["kind"] {
  if (!island.dot) return "letter";
  if (/^[ij!?.:;¡¿]$/u.test(letter.text)) return "dot";
  return letter.text.normalize("NFD").length > graphemesOf(letter.text).length ? "accent" : "speck";
}

const ORDINALS = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"];

function ordinalOf(letter: Letter, layout: WordLayout): string {
  const same = layout.letters.filter((other) => other.text === letter.text);
  if (same.length < 2) return "";
  const n = same.indexOf(letter);
  return ORDINALS[n] ?? `${n + 1}th`;
}
