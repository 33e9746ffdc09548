/**
 * From the words of a piece to letters in their places, and what could not be set.
 */
import { type Point, type Ring, ringArea, transformRing } from "../geometry";
import type { Finding, FindingFacts, FindingKind, FindingOf } from "../judge";
import { broughtTo, type Font, type WordLayout } from "../lettering";
import { type DrawingPart, type Piece, type Word, widthToDraw } from "../piece";
import { Memory } from "./memory";

/** Where fonts come from. Loading them is the caller's business; examining is synchronous. */
export interface Library {
  font(id: string): Font | undefined;
  /** What was made with it lately. */
  memory?: Memory | undefined;
}

/** A library that remembers, for as long as somebody holds it. */
export const withMemory = (library: Library): Library => (library.memory ? library : { ...library, memory: new Memory() });

export function layOutWords(piece: Piece, library: Library): { layouts: WordLayout[]; findings: Finding[] } {
  const layouts: WordLayout[] = [];
  const findings: Finding[] = [];
  const { memory = new Memory() } = library;
  for (const part of piece.parts) {
    if (part.kind !== "word") continue;
    const font = library.font(part.font)?.vary(part.axes);
    if (!font) {
      const facts = { letters: "", font: part.font, why: "no font" } as const;
      findings.push(remark("missing-letter", [part.id], part.at, "falls", facts));
      continue;
    }
    const alone = memory.layout(part, font, { joint: widthToDraw(piece), guide: guideOf(part, piece, memory) });
    const layout = part.bitesBefore === undefined ? alone : broughtTo(alone, layouts, part.bitesBefore);
    layouts.push(layout);
    findings.push(...lettersLost(part, layout, font));
  }
  return { layouts, findings };
}

/** The outline of a drawing that a word goes round. One that sits on a letter itself is no guide: where it lies is not known yet. */
function guideOf({ path }: Word, { parts }: Piece, memory: Memory): Ring | undefined {
  if (path?.kind !== "outline") return undefined;
  const drawing = parts.find((part): part is DrawingPart => part.kind === "drawing" && part.id === path.drawing);
  if (!drawing || drawing.at.letter) return undefined;
  const shape = memory.drawing(drawing);
  const bySize = [...shape].sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)));
  const ring = bySize[Math.min(path.number, bySize.length - 1)];
  return ring && transformRing(ring, [1, 0, 0, 1, drawing.at.x, drawing.at.y]);
}

type Lost = readonly { key: string; text: string }[];

/** Letters that the font has not got, that have thinned away, that find no room on their line. */
function lettersLost(word: Word, { missing, vanished, beyond, short, missed }: WordLayout, font: Font): Finding[] {
  const idsOf = (lost: Lost) => lost.map(({ key }) => `${word.id}:${key}`);
  const inRow = (texts: Iterable<string>) => [...texts].map((text) => printable(text)).join(" ");
  /** Each letter once, however often the font lacks it. */
  const lettersOf = (lost: Lost) => inRow(new Set(lost.map(({ text }) => text)));
  const gone = (lost: Lost, why: "not in font" | "too thin") =>
    lost.length === 0
      ? []
      : [remark("missing-letter", idsOf(lost), word.at, "falls", { letters: lettersOf(lost), font: font.name, why })];
  return [
    ...(missed ? [remark("size-missed", [word.id], word.at, "note", missed)] : []),
    ...gone(missing, "not in font"),
    ...gone(vanished, "too thin"),
    ...(beyond.length === 0
      ? []
      : [
          remark("beyond-line", idsOf(beyond), word.at, "weak", {
            letters: inRow(beyond.map(({ text }) => text)),
            many: beyond.length > 1,
            short,
          }),
        ]),
  ];
}

/** Control and format characters are named by number: they would not be seen. */
function printable(text: string): string {
  return /^[\p{C}\p{Z}]+$/u.test(text)
    ? [...text].map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`).join(" ")
    : text;
}

/** A finding that is about no width. */
export function remark<Kind extends FindingKind>(
  kind: Kind,
  parts: string[],
  at: Point,
  means: Finding["means"],
  facts: FindingFacts[Kind],
): FindingOf<Kind> {
  return { kind, parts, meeting: parts.length, at: { ...at }, width: 0, means, ...facts } as unknown as FindingOf<Kind>;
}
