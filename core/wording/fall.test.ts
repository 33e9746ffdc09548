import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { parsePiece, STOCKS } from "../piece";
import { groupFindings } from "../report";
import { fallReport, titleOf } from "./index";

const library = shippedLibrary();
const demo = (id: string) => examine(demoPiece(id.replace("demo-", "")), library);
const word = (text: string, font: string, more: object = {}) =>
  parsePiece({
    name: "Fall",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...more }],
  });

describe("the fall test", () => {
  it("names what fell and counts what held", () => {
    expect(fallReport(demo("demo-boat-naming"))).toBe(
      "The dot of the first i and the dot of the second i fell. Nine parts held.",
    );
  });

  it("says what else would go if the weak places broke", () => {
    expect(fallReport(demo("demo-sea-kale"))).toBe(
      "Nothing fell. Ten parts held. Should the weak places break too, the t would go.",
    );
  });

  it("lifts a piece without a holder by its largest part", () => {
    const examination = examine(word("Kate", "pacifico"), library);
    expect(fallReport(examination)).toMatch(/^Nothing fell\. Four parts held, lifted by the K\./);
  });

  it("has nothing to say of nothing", () => {
    expect(fallReport(examine(word("", "pacifico"), library))).toBe("There is nothing to test yet.");
  });
});

describe("findings by letter", () => {
  it("puts a letter's dot and strokes together under its name, in the order they came", () => {
    const examination = demo("demo-sea-kale");
    const groups = groupFindings(examination, examination.findings);
    expect(titleOf(groups[0]!.label)).toBe("The k");
    expect(groups.flatMap(({ findings }) => findings)).toHaveLength(examination.findings.length);
    expect(new Set(groups.map(({ id }) => id)).size).toBe(groups.length);
    const e = groups.find(({ label }) => titleOf(label) === "The first e")!;
    expect(e.findings.every(({ parts }) => parts.includes("w1:k4"))).toBe(true);
  });

  it("a dot belongs to its letter, a joint between letter and bar to the letter", () => {
    const examination = demo("demo-boat-naming");
    const titles = groupFindings(examination, examination.findings).map(({ label }) => titleOf(label));
    expect(titles).toEqual(["The first i", "The second i", "The stick"]);
    const made = {
      kind: "thin-joint",
      parts: ["stick", "w1:k6"],
      meeting: 2,
      at: { x: 0, y: 0 },
      width: 1,
      means: "weak",
      wanted: 1.5,
      lost: 0,
    } as const;
    expect(titleOf(groupFindings(examination, [{ ...made, parts: [...made.parts] }])[0]!.label)).toBe("The w");
  });

  it("what is engraved belongs to its letter", () => {
    const examination = examine(word("Kate", "pacifico", { meets: "engrave" }), library);
    expect(groupFindings(examination, examination.findings).map(({ label }) => titleOf(label))).toEqual(["The K"]);
  });

  it("what belongs to no part is the piece's", () => {
    const examination = examine(word("", "pacifico"), library);
    expect(groupFindings(examination, examination.findings).map(({ label }) => titleOf(label))).toEqual(["The piece"]);
  });
});
