import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { type Finding, openFindings } from "../judge";
import { type Piece, parsePiece, STOCKS, type Tie } from "../piece";
import { createLoadTest } from "../strength";
import { describeFinding, describeLeft, describeMend } from "../wording";
import { mendAll, offerMends } from "./index";

const library = shippedLibrary();

const pieceOf = (text: string, font: string, more: object[] = [], word: object = {}): Piece =>
  parsePiece({
    name: "Mend me",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...word }, ...more],
  });

it("offers a loose dot two ways, the least change first", () => {
  const piece = pieceOf("Kit", "pacifico");
  const examination = examine(piece, library);
  const mends = offerMends(piece, examination, examination.findings[0]!, library);
  expect(mends.map(({ kind }) => kind).sort()).toEqual(["lower-dot", "tie"]);
  expect(mends.map(({ change }) => change)).toEqual([...mends.map(({ change }) => change)].sort((a, b) => a - b));
  for (const { piece: mended, before } of mends) expect([examine(mended, library).verdict, before]).toEqual(["holds", 0]);
});

it("offers letters that stand alone a bar", () => {
  const piece = pieceOf("HIM", "archivo-black");
  const examination = examine(piece, library);
  const mends = offerMends(piece, examination, examination.findings[0]!, library);
  expect(mends.map(({ kind }) => kind)).toContain("bar");
});

it("raises a bar that is just too low, no further than needed", () => {
  const piece = pieceOf("HIM", "archivo-black", [{ kind: "bar", id: "bar", overlap: -0.4, overhang: 1 }]);
  const examination = examine(piece, library);
  const mend = offerMends(piece, examination, examination.findings[0]!, library).find(({ kind }) => kind === "overlap")!;
  const bar = mend.piece.parts.find((part) => part.kind === "bar")!;
  expect(bar).toMatchObject({ kind: "bar" });
  expect((bar as { overlap: number }).overlap).toBeGreaterThan(0);
  expect((bar as { overlap: number }).overlap).toBeLessThan(1);
});

it("a tie follows its letters, and rests when they are gone", () => {
  const piece = pieceOf("Kit", "pacifico");
  const examination = examine(piece, library);
  const mend = offerMends(piece, examination, examination.findings[0]!, library).find(({ kind }) => kind === "tie")!;
  const tie = mend.piece.parts.find((part): part is Tie => part.kind === "tie")!;
  expect(tie.ends.every((end) => end.letter?.key === "k2")).toBe(true);
  const larger = {
    ...mend.piece,
    parts: mend.piece.parts.map((part) => (part.kind === "word" ? { ...part, at: { x: 40, y: -9 } } : part)),
  };
  expect(examine(larger, library).verdict).toBe("holds");
  const gone = {
    ...mend.piece,
    parts: mend.piece.parts.map((part) => (part.kind === "word" ? { ...part, text: "Kt", keys: ["k1", "k3"] } : part)),
  };
  expect(examine(gone, library).solids.some((solid) => solid.label.kind === "tie")).toBe(false);
});

describe("mend all", () => {
  it.each(["pacifico", "dancing-script-bold", "archivo-black", "alfa-slab-one"])(
    "makes names hold in %s, or says what is left",
    (font) => {
      for (const text of ["Jiří", "Zoë", "Kit"]) {
        const { piece, left, labels } = mendAll(pieceOf(text, font), library);
        const after = examine(piece, library);
        const kindOf = ({ kind, parts }: Finding) => [kind, ...parts];
        expect(left.map(({ finding }) => kindOf(finding))).toEqual(openFindings(after.findings).map(kindOf));
        for (const each of left) {
          const open = describeFinding(each.finding, labels, "mm");
          expect(describeLeft(each, labels, "mm").startsWith(open)).toBe(true);
          expect(open.length).toBeGreaterThan(20);
        }
        if (left.length === 0) expect(after.verdict).toBe("holds");
      }
    },
  );

  it("stops when told to, and keeps what is mended so far", () => {
    const { done } = mendAll(demoPieces().find(({ id }) => id === "demo-boat-naming")!, library, {
      onProgress: (n) => n < 1,
    });
    expect(done).toHaveLength(1);
  });

  it("leaves a piece that holds as it is", () => {
    const piece = demoPieces()[0]!;
    expect(mendAll(piece, library)).toMatchObject({ piece, done: [], left: [], change: 0, more: false });
  });
});

describe("kinds of mends", () => {
  const offered = (piece: Piece, kind: string, suits: (finding: Finding) => boolean = () => true) => {
    const examination = examine(piece, library);
    const finding = examination.findings.find((each) => each.kind === kind && suits(each))!;
    expect(finding, `no ${kind} in ${examination.findings.map((each) => each.kind).join(" ")}`).toBeDefined();
    return { finding, mends: offerMends(piece, examination, finding, library) };
  };
  it("a gap that the cut would eat is filled, and the filling follows its letter", () => {
    // Bring the letters so near that 0.1 mm is left between them.
    const bar = { kind: "bar", id: "bar", overlap: 1, height: 5 };
    const [first, second] = examine(pieceOf("II", "archivo-black", [bar]), library).solids;
    const right = Math.max(...first!.region[0]!.filter((_, n) => n % 2 === 0));
    const left = Math.min(...second!.region[0]!.filter((_, n) => n % 2 === 0));
    const near = pieceOf("II", "archivo-black", [bar], { tracking: right + 0.1 - left });
    const { finding, mends } = offered(near, "narrow-gap");
    expect(finding.width).toBeCloseTo(0.1, 2);
    expect(mends.map(({ kind }) => kind)).toEqual(["fill"]);
    const after = examine(mends[0]!.piece, library);
    expect(after.findings.filter(({ kind }) => kind === "narrow-gap")).toEqual([]);
    expect(after.solids.at(-1)).toMatchObject({ label: { kind: "fill" }, holder: false });
    expect(mends[0]!.piece.parts.at(-1)).toMatchObject({ at: { letter: { wordId: "w" } } });
  });

  it("a loop whose hole leaves no ring gets one: by a smaller hole, or by more around it", () => {
    const loop = { kind: "loop", id: "loop", outer: 12, hole: 14, angle: 180, bite: 3 };
    const piece = pieceOf("Kit", "archivo-black", [{ kind: "bar", id: "bar", overlap: 2, height: 6 }, loop], { tracking: -1 });
    const { mends } = offered(piece, "hole-too-large");
    expect(mends.map(({ kind }) => kind).sort()).toEqual(["holder", "hole"]);
    for (const mend of mends) {
      const after = examine(mend.piece, library);
      expect(after.findings.filter(({ kind }) => kind === "hole-too-large")).toEqual([]);
      const ring = mend.piece.parts.find((part) => part.kind === "loop")!;
      expect((ring.outer - ring.hole) / 2).toBeGreaterThanOrEqual(after.leastWidth);
      const i = after.solids.findIndex(({ id }) => id === "loop");
      expect(after.holds[i]!.falls).toBe(false);
      expect(describeMend(mend.action, "mm")).toMatch(mend.kind === "hole" ? /^Make the hole \d/ : /^Make the loop \d.* wider$/);
    }
    // All at once it is done too.
    expect(mendAll(piece, library).left.filter(({ finding }) => finding.kind === "hole-too-large")).toEqual([]);
  });

  it("what hangs askew or leans goes below or above its centre of mass, and nothing holds less", () => {
    const backing = { kind: "backing", id: "backing", distance: 5 };
    for (const [kind, part, says] of [
      ["hangs-askew", { kind: "loop", id: "loop", outer: 12, hole: 6, angle: 40, bite: 3 }, "Hang it straight"],
      ["leans", { kind: "stick", id: "stick", width: 6, length: 60, bite: 4, dx: 18 }, "under the centre of mass"],
      ["leans", { kind: "stick", id: "stick", width: 6, length: 60, bite: 4, dx: 18, under: "mass" }, "under the centre of mass"],
    ] as const) {
      const piece = pieceOf("Hill", "archivo-black", [backing, part]);
      const { mends } = offered(piece, kind);
      expect(mends.map((mend) => mend.kind)).toEqual(["upright"]);
      expect(describeMend(mends[0]!.action, "mm")).toContain(says);
      const [before, after] = [examine(piece, library), examine(mends[0]!.piece, library)];
      expect(after.findings.map((each) => each.kind)).not.toContain(kind);
      expect(openFindings(after.findings).length).toBeLessThanOrEqual(openFindings(before.findings).length);
      // A stick's place is counted from the middle of the lettering then.
      for (const each of mends[0]!.piece.parts) if (each.kind === "stick") expect(each.under).toBeUndefined();
      // Notes are for the maker to decide: all at once leaves them.
      expect(mendAll(piece, library).done.map(({ action }) => action.does)).not.toContain(mends[0]!.action.does);
    }
  });

  it("what gives way in the hand is made wide enough, or held a second time, and bears it then", () => {
    for (const id of ["demo-harbour-office", "demo-slipway"]) {
      const piece = demoPieces().find((each) => each.id === id)!;
      const { finding, mends } = offered(
        { ...piece, hand: { rule: true } },
        "gives-way",
        (each) => "letters" in each && each.letters.length > 0,
      );
      expect(finding).toMatchObject({ means: "weak", force: 5 });
      expect(mends.length, id).toBeGreaterThan(1);
      const named = "letters" in finding ? finding.letters : [];
      for (const { takes, piece: mended } of mends) {
        expect(takes!.before).toBeLessThan(5);
        expect(takes!.after).toBeGreaterThanOrEqual(5);
        const { letters } = createLoadTest(mended, examine(mended, library)).test;
        for (const letter of letters) if (named.includes(letter.id)) expect(letter.takes).toBeGreaterThanOrEqual(5);
      }
    }
  });

  it("a second tie gives a letter a second way to its holder", () => {
    const weak = demoPieces().find(({ id }) => id === "demo-sea-kale")!;
    const { finding, mends } = offered(weak, "thin-stroke", ({ beyond }) => !beyond);
    const second = mends.find(({ kind }) => kind === "second-tie")!;
    const after = examine(second.piece, library);
    const i = after.solids.findIndex(({ id }) => id === finding.parts[0]);
    expect(after.holds[i]!.ties).toBeGreaterThan(1);
    expect(after.holds[i]!.width).toBeGreaterThanOrEqual(after.leastWidth - 0.005);
  });

  it("another letterform is one that the font has, and is kept as a change of the letter", () => {
    const font = library.font("pacifico")!;
    const forms = font.formsOf("Kite", 0, 1);
    expect(forms.length).toBeGreaterThan(0);
    const plain = font.shape("Kite").glyphs.map(({ id }) => id);
    for (const form of forms) {
      const glyphs = font.shape("Kite", [{ form, start: 0, end: 1 }]).glyphs.map(({ id }) => id);
      expect(glyphs.slice(1)).toEqual(plain.slice(1));
      expect(glyphs[0]).not.toBe(plain[0]);
    }
    expect(new Set(forms).size).toBe(forms.length);
  });
});
