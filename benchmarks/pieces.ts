/** The pieces that are timed: invented names of the harbour village, in three sizes and more. */
import { type Piece, parsePiece, STOCKS } from "@mend-joint/core/piece";

const line = (id: string, text: string, y: number, mm = 16) => ({
  kind: "word",
  id,
  text,
  font: "pacifico",
  size: { by: "cap-height", mm },
  at: { x: 0, y },
});

const piece = (name: string, parts: object[]): Piece => parsePiece({ name, stock: STOCKS[0], parts });

export const oneWord = piece("one word", [line("a", "Wilhelmina", 0), { kind: "stick", id: "stick", bite: 5 }]);

/** Lines close enough to bite into each other, about 180 mm wide. */
export const threeLines = piece("three lines", [
  line("a", "The Harbour Mother", 34),
  line("b", "Wilhelmina Rosé", 17),
  line("c", "sails at last", 0),
  { kind: "stick", id: "stick", bite: 5 },
]);

const TEXT = "The oysters of Skerrow are landed before the sun is up and sold at the bell ";

/** So many letters on one bar. */
export function letters(count: number): Piece {
  const text = TEXT.repeat(Math.ceil((count * 1.3) / TEXT.length) + 1);
  const lines: object[] = [];
  let left = count;
  let at = 0;
  while (left > 0) {
    let end = at;
    let taken = 0;
    while (taken < Math.min(left, 200)) if (text[end++ % text.length] !== " ") taken++;
    lines.push(line(`l${lines.length}`, text.slice(at, end), -18 * lines.length, 12));
    left -= taken;
    at = end;
  }
  return piece(`${count} letters`, [...lines, { kind: "bar", id: "bar", height: 6, overlap: 2 }]);
}

/** Lines of so many letters each, one below the other. */
export function linesOf(lines: number, each: number): Piece {
  const text = TEXT.replaceAll(" ", "");
  const words = Array.from({ length: lines }, (_, i) =>
    line(`l${i}`, Array.from({ length: each }, (_, k) => text[(i * each + k) % text.length]).join(""), 480 - 16 * i, 12),
  );
  return piece(`${lines} lines of ${each} letters`, words);
}

/** Letters that stand apart, each by itself. */
export const apart = (count: number): Piece =>
  piece(`${count} letters apart`, [
    { ...line("a", TEXT.replaceAll(" ", "").slice(0, count), 0, 12), font: "archivo-black", tracking: 2 },
  ]);
