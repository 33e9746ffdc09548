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

  it("a curve goes on as its last two points do, within reach", () => {
    expect(
      onePointMore({
        kind: "curve",
        points: [
          { x: 0, y: 3 },
          { x: 10, y: 5 },
        ],
        distance: 0,
      }).at(-1),
    ).toEqual({ x: 20, y: 3 });
    const far = LIMITS.reach - 1;
    expect(
      onePointMore({
        kind: "curve",
        points: [
          { x: 0, y: 0 },
          { x: far, y: 0 },
        ],
        distance: 0,
      }).at(-1)!.x,
    ).toBe(LIMITS.reach);
  });
});
