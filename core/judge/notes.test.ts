import { describe, expect, it } from "vitest";
import { normalise, penetration, type Region, type Ring } from "../geometry";
import { say } from "../tests/sentences";
import { fineCircle, place, rectangle, turned } from "../tests/shapes";
import { verdictSentence } from "../wording";
import {
  acceptFinding,
  type Finding,
  type JudgedZone,
  judgeHidden,
  judgeHoles,
  judgeSlits,
  judgeStrokes,
  judgeTwice,
  markAccepted,
  type PartLabel,
  verdictOf,
} from "./index";

const letter = (id: string, region: Region = []) => ({
  id,
  label: { kind: "letter", text: id, ordinal: "" } as PartLabel,
  holder: false,
  region,
});
const bar = (region: Region = []) => ({
  id: "bar",
  label: { kind: "bar", text: "", ordinal: "" } as PartLabel,
  holder: true,
  region,
});
const at = { x: 0, y: 0 };
const zone = (more: Partial<JudgedZone>): JudgedZone => ({
  exits: 2,
  width: 0.8,
  from: at,
  to: { x: 0.8, y: 0 },
  reach: 0,
  tip: at,
  parts: [0],
  ...more,
});

describe("how far two shapes reach into each other", () => {
  const foot = [rectangle(2, 5, 3, 10)];
  const beam = [rectangle(-20, 0, 60, 6)];

  it("a stem 3 mm wide standing 1 mm deep in a bar, at every turn", () => {
    for (const angle of [0, 30, 111]) {
      const bite = penetration(place(foot, turned(angle)), place(beam, turned(angle)))!;
      expect(bite.depth).toBeCloseTo(1, 3);
      expect(bite.length).toBeCloseTo(3, 3);
      expect(bite.area).toBeCloseTo(3, 3);
    }
  });

  it("two feet count together", () => {
    const bite = penetration(normalise([...foot, rectangle(9, 4.5, 2, 10)]), beam)!;
    expect(bite.depth).toBeCloseTo(1.5, 4);
    expect(bite.length).toBeCloseTo(5, 4);
  });

  it("two discs: the lens has the depth 2r − d and the length of their common chord", () => {
    // Plane geometry: chord 2·sqrt(r² − (d/2)²).
    const bite = penetration([fineCircle(0, 0, 5)], [fineCircle(9, 0, 5)])!;
    expect(bite.depth).toBeCloseTo(1, 3);
    expect(bite.length).toBeCloseTo(2 * Math.sqrt(25 - 4.5 ** 2), 3);
  });

  it("what does not overlap, or merely touches, has none", () => {
    expect(penetration(foot, [rectangle(-20, -2, 60, 6)])).toBeNull();
    expect(penetration(foot, [rectangle(-20, -1, 60, 6)])).toBeNull();
  });
});

describe("thin where nothing hangs on it", () => {
  it("hairlines of one letter are one note, the narrowest leading", () => {
    const notes = judgeStrokes([letter("e")], [zone({ width: 0.7 }), zone({ width: 0.9 })], [], 1.5);
    expect(notes).toHaveLength(1);
    expect(notes[0]).toMatchObject({ kind: "hairline", means: "note", width: 0.7 });
    expect(say(notes[0], [letter("e")])).toContain(
      "The e has strokes only 0.7 mm wide in two places; it wants 1.5 mm. Nothing hangs on these places",
    );
  });

  it("a hair below the limit does not read as if it were the limit", () => {
    const [note] = judgeStrokes([letter("u")], [zone({ width: 1.66 })], [], 1.68);
    expect(say(note, [letter("u")])).toContain("The u has a stroke only 1.66 mm wide; it wants 1.68 mm.");
  });

  it("a place that is told as a finding is not told again", () => {
    const known = { chord: { from: at, to: at }, at: { x: 0.4, y: 0 } } as Finding;
    expect(judgeStrokes([letter("e")], [zone({})], [known], 1.5)).toEqual([]);
  });

  it("a tail counts from twice the least width on", () => {
    const tail = (reach: number) => judgeStrokes([letter("y")], [zone({ exits: 1, reach, width: 1.4 })], [], 1.5);
    expect(tail(2.9)).toEqual([]);
    expect(say(tail(6.2)[0], [letter("y")])).toContain("The tail of the y is narrower than 1.5 mm over its last 6.2 mm");
  });
});

describe("too deep", () => {
  const stem = [rectangle(0, 0, 3, 10)];

  it("a letter of which less than half the outline is left loses its look; the depth is told", () => {
    const [note, ...others] = judgeHidden([letter("l", stem), bar([rectangle(-5, 0, 20, 7)])], [0.35, 1]);
    expect(others).toEqual([]);
    expect(note).toMatchObject({ kind: "sunk", parts: ["l", "bar"], means: "note" });
    expect(say(note, [letter("l"), bar()])).toContain("The l sits 3.0 mm deep in the bar; 35 % of its outline is left");
  });

  it("a part without any outline left is swallowed", () => {
    const [note] = judgeHidden([letter("l", stem), bar([rectangle(-5, -1, 20, 12)])], [0, 1]);
    expect(note).toMatchObject({ kind: "swallowed" });
    expect(say(note, [letter("l"), bar()])).toContain("swallowed by the bar");
  });

  it("one with enough left is left alone", () => {
    expect(judgeHidden([letter("l", stem), bar([rectangle(-5, 0, 20, 3)])], [0.7, 0.9])).toEqual([]);
  });
});

describe("the same outline twice", () => {
  it("is found whatever the order of its points, and only where it lies exactly", () => {
    const turnedRound: Ring = Float64Array.from([3, 0, 3, 10, 0, 10, 0, 0]);
    const twice = judgeTwice([letter("l", [rectangle(0, 0, 3, 10)]), letter("l2", [turnedRound])]);
    expect(twice[0]).toMatchObject({ kind: "duplicate", means: "weak", parts: ["l", "l2"] });
    expect(judgeTwice([letter("l", [rectangle(0, 0, 3, 10)]), letter("l2", [rectangle(0.1, 0, 3, 10)])])).toEqual([]);
  });
});

describe("empty places that cannot be cut", () => {
  const slit = { width: 0.1, parts: [0], from: at, to: { x: 0.1, y: 0 }, reach: 3 };
  const hole = { ring: rectangle(-0.2, -1, 0.4, 2), width: 0.4, at, parts: [0] };

  it("a slit is told with the width of the cut, unless its hole is too small as a whole", () => {
    expect(say(judgeSlits([letter("a")], [slit], [], 0.18)[0], [letter("a")])).toContain(
      "Beside the a a gap of only 0.10 mm is left",
    );
    expect(judgeSlits([letter("a")], [slit], [hole], 0.18)).toEqual([]);
    expect(judgeHoles([letter("a")], [hole], 1.6)[0]).toMatchObject({ kind: "small-hole", width: 0.4 });
  });
});

describe("accepted findings", () => {
  const thin = (width: number, parts = ["t", "h"]): Finding => ({
    kind: "thin-joint",
    parts,
    meeting: 2,
    at,
    width,
    means: "weak",
    wanted: 1.5,
    lost: 0,
  });

  it("no longer decide the verdict, and keep their reason", () => {
    const accepted = [acceptFinding(thin(1.2), "  glued on a backing ")];
    const [marked] = markAccepted([thin(1.2)], accepted);
    expect(marked!.accepted).toBe("glued on a backing");
    expect(verdictOf([marked!])).toBe("holds");
    expect(verdictSentence("holds", [marked!], null, new Map(), { name: "birch 3 mm", leastWidth: 1.5 }, "mm")).toMatch(
      /^One place accepted, the rest holds\./,
    );
  });

  it("stay accepted when wider or when more hangs on them, and come back when narrower", () => {
    const accepted = [acceptFinding(thin(1.2), "")];
    expect(verdictOf(markAccepted([thin(1.4, ["h", "t", "e"])], accepted))).toBe("holds");
    expect(verdictOf(markAccepted([thin(1.1)], accepted))).toBe("weak");
    expect(verdictOf(markAccepted([thin(1.2, ["t", "e"])], accepted))).toBe("weak");
  });

  it("come back where more is wanted, as in another sheet; not where it is less, nor where it was not kept", () => {
    const wanting = (wanted: number) => ({ ...thin(1.2), wanted }) as Finding;
    const accepted = [acceptFinding(wanting(1.5), "")];
    expect(accepted[0]).toMatchObject({ width: 1.2, wanted: 1.5 });
    expect(verdictOf(markAccepted([wanting(1.4)], accepted))).toBe("holds");
    expect(verdictOf(markAccepted([wanting(2)], accepted))).toBe("weak");
    const { wanted: _, ...older } = accepted[0]!;
    expect(verdictOf(markAccepted([wanting(2)], [older]))).toBe("holds");
  });

  it("what hangs on nothing is let be whatever is wanted", () => {
    const loose = (wanted: number): Finding => ({
      kind: "loose",
      parts: ["dot"],
      meeting: 1,
      at,
      width: 0,
      means: "falls",
      wanted,
    });
    expect(verdictOf(markAccepted([loose(3)], [acceptFinding(loose(1.5), "glued on")]))).toBe("holds");
  });
});
