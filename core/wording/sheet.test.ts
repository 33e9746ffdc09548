import { describe, expect, it } from "vitest";
import { parsePiece, STOCKS, stockByName } from "../piece";
import { cutSentence, paperSentence, type SentenceChoice, sheetSentence } from "./index";

const told = (choices: readonly SentenceChoice<string>[]) =>
  choices
    .filter(({ usual }) => !usual)
    .map(({ lead, says }) => `${lead} ${says}`)
    .join("; ");
const piece = parsePiece({ name: "p", stock: STOCKS[0], parts: [] });

describe("the sheet as a sentence", () => {
  it("tells the least joint and where the cut runs, and keeps figures of the sheet behind more", () => {
    expect(told(sheetSentence(piece, "mm"))).toBe("wants joints of 1.5 mm or more; is cut on the line");
    const outside = sheetSentence({ ...piece, cut: "outside", stock: stockByName("walnut-6")! }, "in");
    expect(told(outside)).toBe("wants joints of 0.118 in or more; is cut outside the line");
    expect(outside.filter(({ usual }) => usual).map(({ says }) => says)).toEqual([
      "0.0157 in to the cut",
      "0.236 in thick",
      "100 N/mm² when bent",
    ]);
  });
});

describe("the way to the machine as a sentence", () => {
  it("tells the machine, the cut and the tabs", () => {
    const setting = { machine: "Laser", tabs: 0, tabWidth: 0.4 };
    expect(told(cutSentence(piece, setting, "mm"))).toBe("goes to the machine “Laser”; is cut on the line; has no holding tabs");
    expect(told(cutSentence(piece, { ...setting, tabs: 1 }, "mm"))).toContain("has one tab of 0.4 mm on each outline");
    expect(told(cutSentence(piece, { ...setting, tabs: 2 }, "mm"))).toContain("has two tabs of 0.4 mm on each outline");
  });
});

describe("the pattern as a sentence", () => {
  it("tells paper, pages, hatching, start holes, and the grain of what has one", () => {
    const setting = { paper: "a4", landscape: false, hatch: true, drill: 2, grain: undefined } as const;
    expect(told(paperSentence(setting, "mm"))).toBe(
      "is printed on A4; has its pages upright; leaves what is cut away inside hatched; has start holes of 2.0 mm",
    );
    const other = { ...setting, paper: "letter", landscape: true, hatch: false, grain: -30 } as const;
    expect(told(paperSentence(other, "mm"))).toBe(
      "is printed on Letter; has its pages across; leaves what is cut away inside white; has start holes of 2.0 mm; has its grain 30° down to the right",
    );
    expect(told(paperSentence({ ...setting, grain: 0 }, "mm"))).toContain("has its grain across the page");
  });
});
