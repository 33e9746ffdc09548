/**
 * From a piece to the things that must hold: islands of letters, holders, ties, each with a name for sentences.
 */
import { boxesMeet, difference, joinBoxes, type Point, type Region, regionBox, strokeRegion } from "../geometry";
import { barOutline, type EndPlace, fillOutline, type Surroundings, stickOutline, tieOutline } from "../holders";
import type { Finding, PartLabel, Verdict } from "../judge";
import { type Font, type Letter, type LetterIsland, layoutWord, type WordLayout } from "../lettering";
import type { Body } from "../measure";
import { type Anchor, graphemesOf, type Part, type Piece, type Word, widthToDraw } from "../piece";

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
    const font = library.font(part.font)?.vary(part.axes);
    if (!font) {
      findings.push(
        remark("missing-letter", [part.id], part.at, "falls", `The lettering "${part.font}" is not here. Choose another.`),
      );
      continue;
    }
    const layout = layoutWord(part, font, widthToDraw(piece));
    layouts.push(layout);
    findings.push(...lettersLost(part, layout, font));
  }
  return { layouts, findings };
}

/** Letters that the font has not got, that have thinned away, that find no room on their line. */
function lettersLost(word: Word, { missing, vanished, beyond, short, missed }: WordLayout, font: Font): Finding[] {
  const tell = (lost: readonly { key: string; text: string }[], means: Verdict | "note", say: (names: string) => string) => {
    if (lost.length === 0) return [];
    const names = [...new Set(lost.map(({ text }) => text))].map((text) => printable(text)).join(" ");
    const ids = lost.map(({ key }) => `${word.id}:${key}`);
    return [remark(means === "note" ? "beyond-line" : "missing-letter", ids, word.at, means, say(names))];
  };
  const size = ([width, height]: readonly [number, number]) => `${width.toFixed(1)} × ${height.toFixed(1)} mm`;
  return [
    ...(missed
      ? [
          remark(
            "size-missed",
            [word.id],
            word.at,
            "note",
            `The word cannot be ${size(missed.asked)}: it is ${size(missed.got)}. Its spacing, its line or moved letters leave no other size.`,
          ),
        ]
      : []),
    ...tell(missing, "falls", (names) => `${font.name} has no ${names}. Choose other lettering, or leave it out.`),
    ...tell(vanished, "falls", (names) => `Nothing is left of ${names} when its strokes are made so thin. Make them thicker.`),
    ...tell(
      beyond,
      "note",
      (names) =>
        `The line is ${short.toFixed(1)} mm too short: ${names} ${beyond.length > 1 ? "stand" : "stands"} beyond it. Make the line longer, the letters smaller, or bring them closer.`,
    ),
  ];
}

/** Control and format characters are named by number: they would not be seen. */
function printable(text: string): string {
  return /^[\p{C}\p{Z}]+$/u.test(text)
    ? [...text].map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`).join(" ")
    : text;
}

export function remark(kind: Finding["kind"], parts: string[], at: Point, means: Finding["means"], message: string): Finding {
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
      if (layout) solids.push(...wordSolids(part, layout));
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
  return keepHolesFree(solids, layouts);
}

/** The letters of a word, and the line they stand on where it is to be cut. */
function wordSolids(word: Word, layout: WordLayout): Solid[] {
  const letters = layout.letters.flatMap((letter) => lettersToSolids(letter, layout));
  const width = word.path && word.path.kind !== "stacked" ? word.path.line : undefined;
  if (!layout.line || width === undefined) return letters;
  const region = strokeRegion(layout.line.points, width, layout.line.closed ? "closed" : "round");
  const line: Solid = {
    id: `${word.id}-line`,
    partId: word.id,
    label: { kind: "line", text: "", ordinal: "" },
    holder: true,
    region,
  };
  return [line, ...letters];
}

/** Nothing else may reach into a hole that is there to be used. */
function keepHolesFree(solids: Solid[], layouts: readonly WordLayout[]): Solid[] {
  const holes = layouts.flatMap(({ letters }) => letters.filter(({ free }) => free.length > 0));
  return holes.reduce((now, { id, free }) => {
    const box = regionBox(free);
    return now.map((solid) =>
      solid.letterId === id || !boxesMeet(box, regionBox(solid.region))
        ? solid
        : { ...solid, region: difference(solid.region, free), pole: undefined },
    );
  }, solids);
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
    label: { kind: islandKind(letter, island), text: letter.symbol ?? letter.text, ordinal },
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
