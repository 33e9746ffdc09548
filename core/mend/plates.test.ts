/**
 * Words and plates that are fitted into what is there.
 */
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { intersection, regionArea, regionBox } from "../geometry";
import { applyMove, type Piece, parsePiece, STOCKS, sidesOf } from "../piece";
import { beginPiece, intoGap, lettersIntoGap, offerMends, sizeRing } from "./index";

const library = shippedLibrary();
const pieceOf = (parts: object[]) => parsePiece({ name: "p", stock: STOCKS[0], parts });
const word = (text: string, more: object = {}) => ({
  kind: "word",
  id: "w1",
  text,
  font: "archivo-black",
  size: { by: "cap-height", mm: 20 },
  ...more,
});
const regionOf = (piece: Piece, id: string) => examine(piece, library).solids.find((solid) => solid.id === id)!.region;

describe("a plate set into a drawing", () => {
  const drawing = (meets: string, ...more: object[]) =>
    pieceOf([
      {
        kind: "shape",
        id: "plate",
        form: "plate",
        corner: 0,
        frame: 4,
        size: { by: "own", width: 80, height: 30 },
        meets,
        lap: 1.5,
      },
      word("HH", { size: { by: "both", mm: 60, height: 24 }, tracking: 4 }),
      { kind: "ornament", id: "drawing", name: "disc", height: 90, at: { x: 0, y: 12 } },
      ...more,
    ]);
  const star = { kind: "ornament", id: "star", name: "star", height: 3, at: { x: 0, y: 12 } };

  it("clears what is behind it by its outline less the overlap, and is one piece with it", () => {
    const before = regionOf(drawing("add"), "drawing");
    const set = examine(drawing("set-in"), library);
    const left = set.solids.filter(({ partId }) => partId === "drawing").flatMap(({ region }) => region);
    // The disc is 90 mm across: 80 × 30 less 1.5 mm on every side lies wholly in it.
    expect(regionArea(before) - regionArea(left)).toBeCloseTo(77 * 27, 0);
    expect(set.pieces).toBe(1);
    // Between the letters nothing of the drawing is left.
    const gap = [Float64Array.from([-1, 10, 1, 10, 1, 14, -1, 14])];
    expect(regionArea(intersection(left, gap))).toBe(0);
  });

  it("leaves what lies on it, the lettering and smaller ornaments", () => {
    const { solids } = examine(drawing("set-in", star), library);
    expect(solids.some(({ id }) => id === "star")).toBe(true);
    expect(solids.filter(({ letterId }) => letterId)).toHaveLength(2);
  });

  it("as a backing does the same, and follows the word", () => {
    const piece = (text: string) =>
      pieceOf([
        { kind: "backing", id: "backing", distance: 5, meets: "set-in", lap: 1 },
        word(text, { meets: "engrave" }),
        { kind: "ornament", id: "drawing", name: "anchor", height: 120, at: { x: 0, y: 10 } },
      ]);
    const left = (text: string) => examine(piece(text), library).solids.filter(({ partId }) => partId === "drawing");
    const area = (text: string) => left(text).reduce((sum, { region }) => sum + regionArea(region), 0);
    expect(area("Wilhelmina")).toBeLessThan(area("Kit"));
    expect(examine(piece("Kit"), library).pieces).toBe(1);
  });
});

describe("a word in a gap", () => {
  it("stands in the middle of a frame and bites above and below by the number, whatever is typed next", () => {
    const piece = pieceOf([
      {
        kind: "shape",
        id: "frame",
        form: "plate",
        corner: 0,
        frame: 5,
        size: { by: "own", width: 120, height: 50 },
        dx: 6,
        dy: -3,
      },
      word("HIT", { size: { by: "cap-height", mm: 12 } }),
    ]);
    const fitted = intoGap(piece, "w1", 1.2, library)!;
    for (const text of ["HIT", "LID"]) {
      const now = { ...fitted, parts: fitted.parts.map((part) => (part.kind === "word" ? { ...part, text } : part)) };
      const { words } = examine(now, library);
      const [inner, box] = [regionBox([regionOf(now, "frame")[1]!])!, words[0]!.box!];
      expect(box.maxY - inner.maxY).toBeCloseTo(1.2, 1);
      expect(inner.minY - box.minY).toBeCloseTo(1.2, 1);
    }
    expect(examine(fitted, library).pieces).toBe(1);
  });

  it("in a ring goes by the highest place above it; without material above and below there is nothing to do", () => {
    const ring = pieceOf([
      { kind: "shape", id: "ring", form: "disc", frame: 6, size: { by: "own", width: 100, height: 100 } },
      word("HI", { size: { by: "width", mm: 40 } }),
    ]);
    const box = examine(intoGap(ring, "w1", 2, library)!, library).words[0]!.box!;
    expect(box.maxY - box.minY).toBeCloseTo(88 + 4, 0);
    expect(intoGap(pieceOf([word("HI")]), "w1", 2, library)).toBeNull();
  });
});

describe("reaching down", () => {
  it("a letter that is short of the bar is stretched to it, its head staying where it is", () => {
    const piece = pieceOf([word("HIH", { changes: { k2: { dy: 5 } }, tracking: 6 }), { kind: "bar", id: "bar", overlap: 2 }]);
    const before = examine(piece, library);
    const loose = before.findings.find(({ kind }) => kind === "loose")!;
    const mend = offerMends(piece, before, loose, library).find(({ kind }) => kind === "reach")!;
    expect(mend.action.does).toBe("stretch down");
    const after = examine(mend.piece, library);
    expect(after.verdict).toBe("holds");
    const [old, now] = [before, after].map(({ solids }) => regionBox(solids.find(({ id }) => id === "w1:k2")!.region)!);
    expect(now!.maxY).toBeCloseTo(old!.maxY, 6);
    expect(now!.minY).toBeLessThan(old!.minY - 3);
    expect(now!.maxX).toBeCloseTo(old!.maxX, 6);
  });
});

describe("a stick", () => {
  const noted = (width: number) =>
    examine(
      pieceOf([word("H", { changes: { k1: { dx: -9 } } }), { kind: "stick", id: "stick", width, bite: 3, dx: 0 }]),
      library,
    ).findings.some(({ kind }) => kind === "thick-stick");

  it("thicker than the strokes around it is noted", () => {
    const text = beginPiece("topper", ["H"], library);
    expect(examine(text, library).findings.some(({ kind }) => kind === "thick-stick")).toBe(false);
    expect([noted(3), noted(14)]).toEqual([false, true]);
  });
});

describe("sizes by their edges", () => {
  it("an edge pulled out makes the part larger by so much, and only there", () => {
    const piece = pieceOf([
      { kind: "shape", id: "shape", form: "plate", size: { by: "own", width: 80, height: 40 } },
      word("KIT"),
      { kind: "bar", id: "bar" },
      { kind: "stick", id: "stick" },
    ]);
    for (const id of ["shape", "bar", "stick"]) {
      const part = piece.parts.find((each) => each.id === id)!;
      const old = regionBox(regionOf(piece, id))!;
      for (const side of sidesOf(part)) {
        const now = regionBox(regionOf(applyMove(piece, { what: "size", id, side, out: 1.5 }), id))!;
        const moved = { right: now.maxX - old.maxX, top: now.maxY - old.maxY, bottom: old.minY - now.minY };
        expect(moved[side], `${id} ${side}`).toBeCloseTo(1.5, 2);
      }
    }
  });

  it("stops at what can be kept", () => {
    const piece = pieceOf([{ kind: "loop", id: "loop", outer: 12, hole: 8 }, word("KIT")]);
    const shrunk = applyMove(piece, { what: "size", id: "loop", side: "right", out: -20 });
    expect(() => parsePiece(shrunk)).not.toThrow();
    expect(shrunk.parts.find(({ kind }) => kind === "loop")).toMatchObject({ outer: 8.2 });
  });
});

describe("letters stretched into a gap, each by itself", () => {
  const frame = { kind: "shape", id: "frame", form: "plate", corner: 0, frame: 6, size: { by: "own", width: 150, height: 60 } };
  const fitted = intoGap(pieceOf([frame, word("Hexagon", { size: { by: "cap-height", mm: 12 } })]), "w1", 1, library)!;

  it("short ones reach both edges too, and the frame stays where it was", () => {
    const made = lettersIntoGap(fitted, "w1", 1, library)!;
    const inner = regionBox([regionOf(made, "frame")[1]!])!;
    expect(regionBox(regionOf(made, "frame"))!.minY).toBeCloseTo(regionBox(regionOf(fitted, "frame"))!.minY, 1);
    for (const { islands } of examine(made, library).words[0]!.letters) {
      const box = regionBox(islands[0]!.region)!;
      expect(box.maxY - inner.maxY).toBeCloseTo(1, 1);
      expect(inner.minY - box.minY).toBeCloseTo(1, 1);
    }
    expect(examine(made, library).pieces).toBe(1);
  });

  it("doing it again keeps the bite; with more bite they reach further", () => {
    const made = lettersIntoGap(fitted, "w1", 1, library)!;
    const bites = (piece: Piece) => {
      const inner = regionBox([regionOf(piece, "frame")[1]!])!;
      return examine(piece, library).words[0]!.letters.map(({ islands }) => regionBox(islands[0]!.region)!.maxY - inner.maxY);
    };
    for (const bite of bites(lettersIntoGap(made, "w1", 1, library)!)) expect(bite).toBeCloseTo(1, 1);
    for (const bite of bites(lettersIntoGap(made, "w1", 2, library)!)) expect(bite).toBeCloseTo(2, 1);
  });

  it("of a letter with a dot the body goes down and the dot up", () => {
    const made = lettersIntoGap(intoGap(pieceOf([frame, word("Hi")]), "w1", 1, library)!, "w1", 1, library)!;
    const inner = regionBox([regionOf(made, "frame")[1]!])!;
    const [body, dot] = examine(made, library).words[0]!.letters[1]!.islands.map(({ region }) => regionBox(region)!);
    expect(inner.minY - body!.minY).toBeCloseTo(1, 1);
    expect(dot!.maxY - inner.maxY).toBeCloseTo(1, 1);
    expect(examine(made, library).pieces).toBe(1);
  });

  it("without a frame there is nothing to do", () => {
    expect(lettersIntoGap(pieceOf([word("Hi")]), "w1", 1, library)).toBeNull();
  });
});

describe("a ring of letters", () => {
  const arc = (more: object = {}) => ({ kind: "arc", radius: 40, angle: 90, around: true, ...more });
  const ringOf = (piece: Piece) => examine(piece, library).words[0]!.ring!;

  it("reaches from its hole to its outer diameter", () => {
    const { inner, outer, middle } = ringOf(pieceOf([word("HIHIHI", { path: arc(), at: { x: 5, y: -3 } })]));
    expect(middle).toEqual({ x: 5, y: -3 });
    // Feet on the circle: the middle of a foot of an H is nearer than its ends. Heads are 20 mm further out, their corners more.
    expect(inner).toBeGreaterThan(39);
    expect(inner).toBeLessThan(40.01);
    expect(outer).toBeGreaterThan(60);
    expect(outer).toBeLessThan(62.5);
  });

  it.each([
    ["letters on a circle", arc()],
    ["along the bottom, inside", arc({ side: "inside", reading: "counter-clockwise" })],
    ["with a line that is cut", arc({ line: 4, distance: -1 })],
    ["between two rings", arc({ line: 4, between: { gap: 15, bite: 1.5, line: 4 } })],
  ])("%s gets the diameters asked for", (_, path) => {
    const piece = pieceOf([word("WORDSROUND", { size: { by: "cap-height", mm: 14 }, path })]);
    const both = ringOf(sizeRing(piece, "w1", { outer: 110, hole: 70 }, library)!);
    expect(2 * both.outer).toBeCloseTo(110, 1);
    expect(2 * both.inner).toBeCloseTo(70, 1);
    // One of them leaves the other as it was.
    const { inner } = ringOf(piece);
    const wider = ringOf(sizeRing(piece, "w1", { outer: 130 }, library)!);
    expect(2 * wider.outer).toBeCloseTo(130, 1);
    expect(wider.inner).toBeCloseTo(inner, 1);
  });

  it("a line that runs straight has none; a hole as large as the ring cannot be", () => {
    expect(sizeRing(pieceOf([word("HI")]), "w1", { outer: 80 }, library)).toBeNull();
    expect(sizeRing(pieceOf([word("HI", { path: arc() })]), "w1", { outer: 80, hole: 80 }, library)).toBeNull();
  });

  it("a disc centred on it reaches beyond it by its margin on every side, however far it goes round", () => {
    const disc = { kind: "shape", id: "disc", form: "disc", size: { by: "fit", margin: 5 } };
    const half = word("HALF", { path: arc({ around: false }), at: { x: 7, y: 2 } });
    const piece = pieceOf([{ ...disc, centre: "ring" }, half]);
    const [{ outer }, box] = [ringOf(piece), regionBox(regionOf(piece, "disc"))!];
    expect((box.minX + box.maxX) / 2).toBeCloseTo(7, 3);
    expect((box.minY + box.maxY) / 2).toBeCloseTo(2, 3);
    expect((box.maxX - box.minX) / 2).toBeCloseTo(outer + 5, 1);
    // By the box of the lettering its middle would be elsewhere.
    const plain = regionBox(regionOf(pieceOf([disc, half]), "disc"))!;
    expect(Math.abs((plain.minY + plain.maxY) / 2 - 2)).toBeGreaterThan(5);
  });
});

it("what drops out of cut-out letters is held by bridges, in one mend", () => {
  const piece = pieceOf([
    { kind: "shape", id: "plate", form: "plate", size: { by: "fit", margin: 9 } },
    word("BOA", { meets: "carve", tracking: 3, size: { by: "cap-height", mm: 40 } }),
  ]);
  const measured = examine(piece, library);
  expect(measured.verdict).toBe("falls");
  const dropped = measured.findings.find(({ means }) => means === "falls")!;
  const mend = offerMends(piece, measured, dropped, library).find(({ action }) => action.does === "bridges")!;
  expect(examine(mend.piece, library)).toMatchObject({ verdict: "holds", pieces: 1 });
});
