import { examine } from "@mend-joint/core";
import { parsePiece, STOCKS, type Word } from "@mend-joint/core/piece";
import { shippedLibrary } from "@mend-joint/library";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { stubBrowser } from "./browser";

vi.mock("sonner", () => ({ toast: Object.assign(() => {}, { error: () => {} }) }));

const { storage } = stubBrowser();
const { lineOf, selectionOf, useBench, withLetter } = await import("../state/bench");
const { copyLine, lineText, putLine, readLine } = await import("../state/copied");
const { putOnBench, usePiece } = await import("../state/piece");

const library = shippedLibrary();
const piece = (more: object = {}, ...parts: object[]) =>
  parsePiece({
    name: "p",
    stock: STOCKS[0],
    parts: [...parts, { kind: "word", id: "w", text: "Kite", font: "anton", size: { by: "cap-height", mm: 20 }, ...more }],
  });
const letter = (key: string) => selectionOf(examine(piece(), library), `w:${key}`)!;

describe("letters in the hand", () => {
  const examination = examine(piece(), library);

  it("one more is taken, one is let go, the last stays", () => {
    const two = withLetter(examination, letter("k1"), letter("k3"));
    expect(two.move).toEqual({
      what: "letters",
      letters: [
        { wordId: "w", key: "k1" },
        { wordId: "w", key: "k3" },
      ],
    });
    expect(two.solids).toEqual(["w:k1", "w:k3"]);
    const one = withLetter(examination, two, letter("k1"));
    expect(one.move).toEqual({ what: "letter", wordId: "w", key: "k3" });
    expect(withLetter(examination, one, letter("k3")).move).toMatchObject({ what: "letter", key: "k3" });
    // The dot of a letter goes along with it.
    expect(withLetter(examination, null, letter("k2")).solids).toEqual(["w:k2", "w:k2.1"]);
  });

  it("of several letters there is no one line to take", () => {
    expect(lineOf(examination, withLetter(examination, letter("k1"), letter("k3")))).toBeNull();
    expect(lineOf(examination, letter("k1"))!.move).toEqual({ what: "word", wordId: "w" });
  });

  it("engraved letters are taken like others, knocked-out ornaments like holders", () => {
    const ghosts = examine(
      piece(
        { meets: "engrave" },
        { kind: "backing", id: "b" },
        { kind: "ornament", id: "o", name: "star", at: { x: 0, y: 5 }, height: 4, meets: "carve" },
      ),
      library,
    );
    expect(selectionOf(ghosts, "w:k2")).toEqual({ solids: ["w:k2", "w:k2.1"], move: { what: "letter", wordId: "w", key: "k2" } });
    expect(selectionOf(ghosts, "o")).toEqual({ solids: ["o"], move: { what: "holder", id: "o" } });
    expect(selectionOf(ghosts, "nothing")).toBeNull();
  });
});

describe("lines from piece to piece", () => {
  beforeEach(() => storage.clear());
  const word = () =>
    piece({ dots: "tie", join: 2, changes: { k1: { dx: 3 } } }).parts.find((part): part is Word => part.kind === "word")!;

  it("keep everything that was done to them, under an id of their own", () => {
    const target = piece();
    const read = readLine(lineText(word()), target)!;
    expect({ ...read, id: "w" }).toEqual(word());
    expect(target.parts.some(({ id }) => id === read.id)).toBe(false);
  });

  it("what is no line is not taken for one", () => {
    for (const text of [
      "",
      "Kite",
      "{}",
      '{"format":"mend-joint-line"}',
      '{"format":"mend-joint-line","word":{"kind":"bar","height":4}}',
    ])
      expect(readLine(text, piece())).toBeNull();
  });

  it("are put after the words that are there; one undo takes them out again", () => {
    putOnBench(piece());
    expect(putLine()).toBe(false);
    copyLine(word());
    expect(putLine()).toBe(true);
    expect(usePiece.getState().piece!.parts.map(({ kind }) => kind)).toEqual(["word", "word"]);
    // Base shapes stay under the words: a word that is cut out of them comes after them.
    putOnBench(piece({ meets: "carve" }, { kind: "shape", id: "plate" }));
    putLine();
    expect(usePiece.getState().piece!.parts.map(({ kind }) => kind)).toEqual(["shape", "word", "word"]);
    putOnBench(piece());
    putLine();
    usePiece.temporal.getState().undo();
    expect(usePiece.getState().piece!.parts).toHaveLength(1);
    expect(useBench.getState().selection).toBeNull();
  });
});
