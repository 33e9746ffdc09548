import { describe, expect, it } from "vitest";
import { parsePiece, STOCKS, type Word } from "../piece";
import { finishSentence, lineSentence } from "./lines";

function word(more: object): Word {
  const document = { name: "x", stock: STOCKS[0], parts: [{ kind: "word", id: "w", font: "pacifico", ...more }] };
  return parsePiece(document).parts[0] as Word;
}

/** What is read out: all that is not as usual. */
function told(more: object, setting: { units?: "mm" | "in"; only?: boolean; first?: boolean } = {}): string {
  const line = word({ text: "Kate", size: { by: "cap-height", mm: 25 }, ...more });
  const choices = lineSentence(line, { units: "mm", only: true, first: true, leastWidth: 1.7, ...setting });
  return choices
    .filter(({ usual }) => !usual)
    .map(({ lead, says }) => `${lead} ${says}`)
    .join("; ");
}

describe("a line as a sentence", () => {
  it("tells its size and how it meets the rest, and nothing that is as usual", () => {
    expect(told({})).toBe("stands with capitals 25.0 mm high; is part of the piece");
    expect(told({ size: { by: "width", mm: 165 } }, { units: "in" })).toBe("stands 6.496 in wide; is part of the piece");
    expect(told({ size: { by: "both", mm: 40, height: 20 } })).toContain("stands 40.0 mm wide and 20.0 mm high, stretched");
    expect(told({ size: { by: "within", mm: 40, height: 20 } })).toContain("stands within a box of 40.0 × 20.0 mm");
  });

  it("tells of dots only where there are any, and how wide they are tied", () => {
    expect(told({ text: "Kit" })).toContain("has its dots as in the font");
    expect(told({ text: "Zoë" })).toContain("has its dots as in the font");
    expect(told({ text: "Zoe" })).not.toContain("dots");
    expect(told({ dots: "slanted" })).toContain("has its dots tied at a slant, 1.7 mm wide");
    expect(told({ dots: "tie", tieWidth: 2 })).toContain("has its dots tied straight down, 2.0 mm wide");
  });

  it("tells how letters stand and run", () => {
    expect(told({ overlap: 0.8 })).toContain("has its letters overlapped by 0.8 mm");
    expect(told({ overlap: -0.8 })).toContain("has its letters 0.8 mm apart");
    expect(told({ join: 2 })).toContain("has its letters joined 2.0 mm wide");
    expect(told({ tracking: 3 })).toContain("has its letters 3.0 mm wider than in the font");
    expect(told({ tracking: -0.2 })).toContain("has its letters 0.2 mm closer than in the font");
    expect(told({ path: { kind: "arc", radius: 60 } })).toContain("runs along an arc of radius 60.0 mm");
    expect(told({ separator: "anchor" })).toContain("has between its words an anchor");
    expect(told({ meets: "halo", gap: 1.5, score: true })).toContain("is in front, 1.5 mm clear around, covered edges scored");
  });

  it("tells the place of one of several lines", () => {
    const lower = { at: { x: 4, y: -18 } };
    expect(told(lower)).not.toContain("lies");
    expect(told(lower, { only: false, first: false })).toContain("lies 18.0 mm down, 4.0 mm to the right, by its middle");
    expect(told({ ...lower, bitesBefore: 2.5 }, { only: false, first: false })).toContain(
      "lies against the lines above, joined 2.5 mm wide",
    );
    expect(told({}, { only: false })).not.toContain("lies");
  });
});

it("the finished piece as a sentence", () => {
  const says = (piece: Parameters<typeof finishSentence>[0]) =>
    finishSentence(piece, "mm").map((each) => `${each.lead} ${each.says}`);
  expect(says({})).toEqual(["may have any size", "is cut once"]);
  expect(says({ limit: { width: 50, height: 40 }, pair: { gap: 6, engraving: "readable" } })).toEqual([
    "must fit a box of 50.0 × 40.0 mm",
    "is cut as a mirrored pair",
  ]);
});
