import { describe, expect, it } from "vitest";
import { LIMITS, onePointMore, type PathKind, parsePiece, type Word, withPath } from "./index";
import { starterById } from "./starters";

const piece = parsePiece(starterById("topper").make(["Isolde"], false));
const word = piece.parts.find((part): part is Word => part.kind === "word")!;
const asPiece = (next: Word) => parsePiece({ ...piece, parts: piece.parts.map((part) => (part.id === word.id ? next : part)) });
const KINDS: readonly PathKind[] = ["stacked", "arc", "curve", "outline", "spiral"];

describe("words on a line of another kind", () => {
  it("are words that can be kept, however wide they were", () => {
    for (const kind of KINDS) {
      for (const width of [undefined, 0.4, 12, 165, 1900, 9000]) {
        const next = withPath(word, kind, { width });
        expect(next.path?.kind).toBe(kind);
        expect(asPiece(next).parts.find(({ id }) => id === word.id)).toMatchObject({ path: next.path });
      }
    }
  });

  it("are as long as before along an arc of half their width in radius, and stand straight again as they were", () => {
    expect(withPath(word, "arc", { width: 140 }).path).toMatchObject({ radius: 70, angle: 90 });
    expect(withPath(withPath(word, "arc"), "straight")).toEqual(word);
  });

  it("a curve goes on as its last two points do, within reach on either side", () => {
    const next = (...points: [number, number][]) =>
      onePointMore({ kind: "curve", points: points.map(([x, y]) => ({ x, y })), distance: 0 }).at(-1);
    expect(next([0, 3], [10, 5])).toEqual({ x: 20, y: 3 });
    expect(next([0, 0], [LIMITS.coordinate - 1, 0])).toEqual({ x: LIMITS.coordinate, y: 0 });
    expect(next([0, 0], [1 - LIMITS.coordinate, 0])).toEqual({ x: -LIMITS.coordinate, y: 0 });
  });
});
