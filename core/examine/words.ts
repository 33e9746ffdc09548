/**
 * From the words of a piece to letters in their places, and what could not be set.
 */
import type { Point } from "../geometry";
import type { Finding, Verdict } from "../judge";
import { broughtTo, type Font, layoutWord, type WordLayout } from "../lettering";
import { formatLength, formatNumber, type Piece, type Units, type Word, widthToDraw } from "../piece";

/** Where fonts come from. Loading them is the caller's business; examining is synchronous. */
export interface Library {
  font(id: string): Font | undefined;
}

export function layOutWords(piece: Piece, library: Library, units: Units = "mm"): { layouts: WordLayout[]; findings: Finding[] } {
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
    const alone = layoutWord(part, font, widthToDraw(piece));
    const layout = part.bitesBefore === undefined ? alone : broughtTo(alone, layouts, part.bitesBefore);
    layouts.push(layout);
    findings.push(...lettersLost(part, layout, font, units));
  }
  return { layouts, findings };
}

/** Letters that the font has not got, that have thinned away, that find no room on their line. */
function lettersLost(word: Word, { missing, vanished, beyond, short, missed }: WordLayout, font: Font, units: Units): Finding[] {
  const tell = (lost: readonly { key: string; text: string }[], means: Verdict | "note", say: (names: string) => string) => {
    if (lost.length === 0) return [];
    const names = [...new Set(lost.map(({ text }) => text))].map((text) => printable(text)).join(" ");
    const ids = lost.map(({ key }) => `${word.id}:${key}`);
    return [remark(means === "weak" ? "beyond-line" : "missing-letter", ids, word.at, means, say(names))];
  };
  const size = ([width, height]: readonly [number, number]) => `${formatNumber(width, units)} × ${formatLength(height, units)}`;
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
      "weak",
      (names) =>
        `The line is ${formatLength(short, units)} too short: ${names} ${beyond.length > 1 ? "stand" : "stands"} beyond it. Make the line longer, the letters smaller, or bring them closer.`,
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
