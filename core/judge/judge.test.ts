import { describe, expect, it } from "vitest";
import { countWord, describeFinding, nameOf, placeName, verdictSentence } from "../wording";
import {
  type Finding,
  type JudgedHold,
  type JudgedMaterial,
  judgeHolds,
  type Labels,
  measureState,
  type PartLabel,
  verdictOf,
} from "./index";

const label = (kind: PartLabel["kind"], text = "", ordinal = ""): PartLabel => ({ kind, text, ordinal });
const LABELS: Labels = new Map([
  ["t", label("letter", "t")],
  ["h", label("letter", "h")],
  ["e2", label("letter", "e", "second")],
  ["i.1", label("dot", "i")],
  ["ř.1", label("accent", "ř", "first")],
  ["bar", label("bar")],
  ["A", label("shape", "A")],
]);

const at = { x: 1, y: 2 };
const neck = (width: number, parts: number[]) => ({ width, parts, from: { x: 0, y: 0 }, to: { x: width, y: 0 } });
const hold = (width: number, more: Partial<JudgedHold> = {}): JudgedHold => ({
  width,
  falls: width === 0,
  neck: null,
  at,
  anchor: false,
  ...more,
});
const part = (id: string, holder = false) => ({ id, label: LABELS.get(id)!, holder });
const finding = (more: object): Finding =>
  ({ kind: "loose", parts: ["t"], meeting: 1, at, width: 0, means: "falls", wanted: 1.5, lost: 0, ...more }) as Finding;

describe("names", () => {
  it.each([
    ["t", "the t"],
    ["e2", "the second e"],
    ["i.1", "the dot of i"],
    ["ř.1", "the accent of the first ř"],
    ["bar", "the bar"],
    ["A", "A"],
    ["?", "a part"],
  ])("%s is called %s", (id, name) => {
    expect(nameOf(LABELS.get(id))).toBe(name);
  });

  it("places are called by what meets there", () => {
    expect(placeName(["t", "h"], LABELS)).toBe("t–h");
    expect(placeName(["e2", "bar"], LABELS)).toBe("second e–bar");
  });

  it("counts in words up to twelve", () => {
    expect([0, 1, 12, 13].map(countWord)).toEqual(["no", "one", "twelve", "13"]);
  });
});

/** One component with all parts in it, but for those that lie in one of their own. */
function material(parts: number, loose: number[] = []): JudgedMaterial {
  const held = Array.from({ length: parts }, (_, i) => i).filter((i) => !loose.includes(i));
  const component = (piece: number, home: number[], holds: boolean) => ({
    piece,
    area: 100,
    at: { x: 0, y: 0 },
    width: 5,
    home,
    parts: home,
    held: holds,
  });
  return { components: [component(0, held, true), ...loose.map((i) => component(i, [i], false))], limbs: [], gaps: new Map() };
}

describe("findings", () => {
  it("what falls comes first, then the narrowest; what holds is not mentioned", () => {
    const shared = neck(0.8, [0, 1]);
    const parts = [part("t"), part("h"), part("i.1"), part("bar", true)];
    const holds = [hold(0.8, { neck: shared }), hold(2), hold(0), hold(6, { anchor: true })];
    const findings = judgeHolds(parts, holds, material(4, [2]), { wanted: 1.5, lost: 0 });
    expect(findings.map(({ kind, parts: ids }) => [kind, ids])).toEqual([
      ["loose", ["i.1"]],
      ["thin-joint", ["t", "h"]],
    ]);
    expect(verdictOf(findings)).toBe("falls");
    expect(verdictOf(findings.slice(1))).toBe("weak");
    expect(verdictOf([])).toBe("holds");
  });

  it("parts that hang on one place are one finding", () => {
    const shared = neck(0.8, [0, 3]);
    const parts = [part("t"), part("h"), part("e2"), part("bar", true)];
    const holds = [0, 1, 2].map(() => hold(0.8, { neck: shared }));
    const [only, ...rest] = judgeHolds(parts, [...holds, hold(6, { anchor: true })], material(4), { wanted: 1.5, lost: 0 });
    expect(rest).toEqual([]);
    expect(only).toMatchObject({ parts: ["t", "bar", "h", "e2"], meeting: 2, chord: { from: { x: 0, y: 0 } } });
    expect(describeFinding(only!, LABELS, "mm")).toBe(
      "The joint t–bar is only 0.8 mm; it wants 1.5 mm. The h and the second e would go with it. Bring the parts closer or overlap them more.",
    );
  });

  it("exactly as wide as needed is wide enough", () => {
    expect(judgeHolds([part("t")], [hold(1.4999)], material(1), { wanted: 1.5, lost: 0 })).toEqual([]);
    expect(judgeHolds([part("t")], [hold(1.49)], material(1), { wanted: 1.5, lost: 0 })).toHaveLength(1);
  });

  it("what the cut takes wholly falls, though the drawing joins it", () => {
    const parts = [part("t"), part("bar", true)];
    const holds = [hold(0.18, { neck: neck(0.18, [0, 1]) }), hold(6, { anchor: true })];
    const [only] = judgeHolds(parts, holds, material(2), { wanted: 1.68, lost: 0.18 });
    expect(only).toMatchObject({ kind: "thin-joint", means: "falls" });
    expect(describeFinding(only!, LABELS, "mm")).toBe(
      "The joint t–bar is only 0.2 mm. The cut takes 0.2 mm and goes through it. Overlap the parts by 1.7 mm or more.",
    );
  });

  it("a letter that stands in for a holder is judged like all others", () => {
    expect(measureState(hold(1, { anchor: true }), 1.5)).toBe(1);
    expect(measureState(hold(2, { anchor: true }), 1.5)).toBe(0);
    expect(measureState(hold(0), 1.5)).toBe(2);
  });

  it("a separate piece of a part falls, though the middle of the part is held", () => {
    const { components } = material(1);
    const island = { piece: 1, area: 21, at: { x: 9, y: 0 }, width: 3, home: [], parts: [0], held: false };
    const gap = { width: 0.4, from: at, to: at };
    const [only] = judgeHolds(
      [part("bar", true)],
      [hold(6, { anchor: true })],
      { components: [...components, island], limbs: [], gaps: new Map([[1, gap]]) },
      { wanted: 1.5, lost: 0 },
    );
    expect(only).toMatchObject({ kind: "island", parts: ["bar"], means: "falls", at: { x: 9, y: 0 }, gap });
    expect(describeFinding(only!, LABELS, "mm")).toBe(
      "A separate piece of the bar, 21 mm², is not joined to the rest and falls off. It is 0.4 mm short of the nearest material: move it until they overlap.",
    );
  });

  it("what would break off beyond a thin place counts", () => {
    const limb = { neck: neck(0.93, [0]), at, area: 21 };
    const judged = (lost: number, width = 0.93) =>
      judgeHolds(
        [part("t")],
        [hold(6, { anchor: true })],
        { ...material(1), limbs: [{ ...limb, neck: neck(width, [0]) }] },
        { wanted: 1.5, lost },
      );
    expect(judged(0)[0]).toMatchObject({ kind: "thin-stroke", means: "weak", width: 0.93 });
    expect(describeFinding(judged(0)[0]!, LABELS, "mm")).toContain("21 mm² of it would break off there");
    expect(judged(0.18, 0.02)[0]).toMatchObject({ means: "falls" });
  });
});

describe("sentences", () => {
  it("say what, where, how much, what to do", () => {
    const gap = { width: 1.92, from: at, to: at };
    expect(describeFinding(finding({ parts: ["i.1"], gap }), LABELS, "mm")).toBe(
      "The dot of i is not joined. It is 1.9 mm short of the nearest material: move it until they overlap.",
    );
    expect(describeFinding(finding({ parts: ["t", "h"], gap: { ...gap, width: 0 } }), LABELS, "mm")).toContain(
      "only touch in a point: overlap them by 1.5 mm",
    );
    expect(describeFinding(finding({}), LABELS, "mm")).toContain("add a bar or a stick");
    expect(describeFinding(finding({ kind: "thin-stroke", width: 0.9, means: "weak" }), LABELS, "in")).toBe(
      "The t is only 0.035 in wide here; it wants 0.059 in. Make it larger or choose heavier lettering.",
    );
  });

  const stock = { name: "birch 3 mm", leastWidth: 1.5 };
  const thinnest = { width: 0.8, parts: ["t", "h"] };

  it("one above the piece: falls, weak, holds", () => {
    const loose = [finding({ parts: ["t"] }), finding({ parts: ["h"] })];
    expect(verdictSentence("falls", loose, thinnest, LABELS, stock, "mm")).toBe(
      "Two letters fall off. Thinnest joint 0.8 mm, at t–h; birch 3 mm wants 1.5 mm.",
    );
    const mixed = [finding({ parts: ["t", "i.1"] })];
    expect(verdictSentence("falls", mixed, null, LABELS, stock, "mm")).toBe("Two parts fall off. Birch 3 mm wants 1.5 mm.");
    const weak = [finding({ kind: "thin-joint", means: "weak" })];
    expect(verdictSentence("weak", weak, thinnest, LABELS, stock, "mm")).toMatch(/^One weak place\. /);
    expect(verdictSentence("holds", [], { width: 2, parts: ["t"] }, LABELS, stock, "mm")).toBe(
      "Everything holds. Thinnest hold 2.0 mm, in the t; birch 3 mm wants 1.5 mm.",
    );
  });

  it("say what the cut takes", () => {
    expect(verdictSentence("holds", [], thinnest, LABELS, stock, "mm", 0.18)).toContain(
      "wants 1.5 mm, drawn 1.7 mm since the cut takes 0.2 mm.",
    );
  });
});
