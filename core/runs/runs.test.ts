import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine, layOutWords } from "../examine";
import { backwards, intersection, nearestPoints, regionArea, regionBox, regionContains, translateRegion } from "../geometry";
import { parsePiece, SHELF, type ShelfSheet, STOCKS, type Word } from "../piece";
import type { Sheet } from "../report";
import { rectangle } from "../tests/shapes";
import { describeAllDone } from "../wording";
import {
  boxOfShape,
  costOf,
  decodeList,
  factsOf,
  keptSheetChoices,
  type Layout,
  ListError,
  layoutSchema,
  leftoverOf,
  linesOf,
  makeRow,
  namesToTry,
  numberSheet,
  outlineOf,
  packRegion,
  type RowFacts,
  type RowShape,
  rankFonts,
  readList,
  rectangleOutline,
  type SizeRule,
  shapeOf,
  sheetChoicesSchema,
  thinnestHold,
  tryFont,
  USUAL_CHOICES,
  unpackRegion,
  usedOf,
} from "./index";

const library = shippedLibrary();
const texts = (list: string, lines = 1) => readList(list, lines).rows.map((row) => row.texts.join("|"));

describe("a list", () => {
  it("of plain lines is one name each; empty lines are left out and said", () => {
    const { rows, notes } = readList("Isolde\nJiří\n\n  Zoë \n", 1);
    expect(rows.map(({ texts: [text], line }) => [text, line])).toEqual([
      ["Isolde", 1],
      ["Jiří", 2],
      ["Zoë", 4],
    ]);
    expect(notes).toEqual(["1 empty line was left out."]);
    expect(rows.every(({ count }) => count === 1)).toBe(true);
  });

  // RFC 4180 (Y. Shafranovich, 2005), section 2, rules 1 to 7.
  it.each([
    ["records on lines, with a break at the end", "aaa,bbb\r\nzzz,yyy\r\n", ["aaa|bbb", "zzz|yyy"]],
    ["none at the end", "aaa,bbb\r\nzzz,yyy", ["aaa|bbb", "zzz|yyy"]],
    ["quotes around fields", '"aaa","bbb"\r\nzzz,yyy', ["aaa|bbb", "zzz|yyy"]],
    ["commas and breaks in quotes", '"a, b","b\r\nbb"\r\nzzz,yyy', ["a, b|b bb", "zzz|yyy"]],
    ["doubled quotes", '"aaa","b""bb"', ['aaa|b"bb']],
    ["semicolons", "aaa;bbb\nzzz;yyy", ["aaa|bbb", "zzz|yyy"]],
    ["tabs", "aaa\tbbb\nzzz\tyyy", ["aaa|bbb", "zzz|yyy"]],
  ])("%s", (_, list, expected) => expect(texts(list, 2)).toEqual(expected));

  it("headings tell the columns, in any order", () => {
    const { rows, columns } = readList("Note,How many,Line 2,Line 1\nfor the gate,3,Skerrow,Kit\n,,,Ffion\n", 2);
    expect(columns).toEqual(["note", "count", 1, 0]);
    expect(rows[0]).toMatchObject({ texts: ["Kit", "Skerrow"], count: 3, note: "for the gate", line: 2 });
    expect(rows[1]).toMatchObject({ texts: ["Ffion", ""], count: 1 });
  });

  it("without headings figures are how many, what comes then is a note", () => {
    expect(readList("Kit,2,left\nFfion,1,right", 1)).toMatchObject({
      columns: [0, "count", "note"],
      rows: [
        { texts: ["Kit"], count: 2, note: "left" },
        { texts: ["Ffion"], count: 1, note: "right" },
      ],
    });
    // A year is a second line where the design has one and no figures are due.
    expect(readList("Kit,Skerrow\nFfion,1904", 2).columns).toEqual([0, 1]);
  });

  it("columns are what the maker says, also against the headings", () => {
    const { rows, columns } = readList("name,number\nKit,7\n", 2, ["note", 0]);
    expect([columns, rows[0]]).toEqual([["note", 0], expect.objectContaining({ texts: ["7", ""], note: "Kit", count: 1 })]);
  });

  it("what cannot be made is told row by row, and the others stay", () => {
    const list = readList(`name,count\n=HYPERLINK("x"),1\n${"a".repeat(501)},1\nKit,0\nKit,2.5\n"",4\nFfion,1\nFfion,2\n`, 1);
    expect(list.rows.map(({ problem }) => problem?.replace(/“.*”/, "…"))).toEqual([
      "… is a formula, not a name: put its result in its place.",
      "A text has 501 letters; a line can have 500.",
      "… is not how many are wanted: put a whole number.",
      "… is not how many are wanted: put a whole number.",
      "There is no name in this row.",
      undefined,
      undefined,
    ]);
    expect(list.rows[6]).toMatchObject({ sameAs: 6, count: 2 });
  });

  it("control characters are gone, letters with marks are one letter", () => {
    expect(texts("Zo\u0065\u0308\u0007\nK\u200Bit")).toEqual(["Zoë", "Kit"]);
  });

  it("nothing, only headings, or more rows than a run takes are told", () => {
    expect(() => readList(" \n\n", 1)).toThrow(ListError);
    expect(() => readList("name\n", 1)).toThrow("no names");
    expect(() => readList("a\n".repeat(10_001), 1)).toThrow("10,001 rows");
    expect(() => readList("a\n".repeat(3_000_000), 1)).toThrow("3,000,000 rows");
    expect(() => readList("a".repeat(5_000_000), 1)).toThrow("5,000,000 characters");
    expect(readList("a\n".repeat(10_000), 1).rows).toHaveLength(10_000);
  });
});

describe("what spreadsheets write", () => {
  const name = "Jiří,Zoë";
  it("is read in UTF-8 with and without its mark, in UTF-16, and in Windows-1252", () => {
    const utf8 = new TextEncoder().encode(name);
    expect(decodeList(utf8)).toBe(name);
    expect(decodeList(Uint8Array.from([0xef, 0xbb, 0xbf, ...utf8]))).toBe(name);
    const utf16 = (big: boolean) => {
      const bytes = [...name].flatMap((letter) => [letter.charCodeAt(0) & 0xff, letter.charCodeAt(0) >> 8]);
      return big ? bytes.map((_, i) => bytes[i ^ 1]!) : bytes;
    };
    expect(decodeList(Uint8Array.from([0xff, 0xfe, ...utf16(false)]))).toBe(name);
    expect(decodeList(Uint8Array.from([0xfe, 0xff, ...utf16(true)]))).toBe(name);
    expect(decodeList(Uint8Array.from([0x5a, 0x6f, 0xeb]))).toBe("Zoë");
  });

  it("other files are no lists", () => {
    expect(() => decodeList(Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0, 8]))).toThrow("another kind");
  });
});

describe("a row", () => {
  const design = {
    piece: parsePiece({
      name: "plate",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text: "Name", font: "pacifico", size: { by: "width", mm: 120 } },
        { kind: "bar", id: "bar", height: 6, overlap: 3 },
      ],
    }),
  };

  it("is the design with its own words, and is examined as that would be alone", () => {
    const { piece, examination, before } = makeRow(design, ["Bjørn"], library, { mend: false });
    expect((piece.parts[0] as Word).text).toBe("Bjørn");
    const alone = examine(piece, library);
    expect([before, examination.verdict, thinnestHold(examination)]).toEqual([alone.verdict, alone.verdict, thinnestHold(alone)]);
  });

  it("is mended where that is wanted, and says what was done", () => {
    const bare = makeRow(design, ["Jiří"], library, { mend: false });
    expect(bare.examination.verdict).toBe("falls");
    const mended = makeRow(design, ["Jiří"], library, { mend: true });
    expect([mended.before, mended.examination.verdict]).toEqual(["falls", "holds"]);
    expect(mended.mended!.done.length).toBeGreaterThan(0);
    expect(thinnestHold(mended.examination)).toBeGreaterThanOrEqual(mended.examination.leastWidth - 0.01);
  });

  it("a beginning has as many lines as it says, a piece as many as it has words", () => {
    expect(linesOf({ starter: "two-line-key-ring" })).toBe(2);
    expect(linesOf(design)).toBe(1);
    expect(makeRow({ starter: "key-ring" }, ["Ffion"], library, { mend: true }).piece.name).toBe("Ffion");
  });

  it("another lettering, and sizes by rule", () => {
    const other = makeRow(design, ["Kit"], library, { mend: false, font: "lobster" });
    expect((other.piece.parts[0] as Word).font).toBe("lobster");
    const width = ({ examination: { box } }: typeof other) => box!.maxX - box!.minX;
    const sized = (text: string, size: SizeRule) => makeRow(design, [text], library, { mend: false, size });
    expect(width(sized("Wilhelmina", { by: "width", mm: 90 }))).toBeCloseTo(90, 1);
    const letters = ["Kit", "Wilhelmina"].map(
      (text) => layOutWords(sized(text, { by: "letters" }).piece, library).layouts[0]!.capHeight,
    );
    expect(letters[0]).toBeCloseTo(letters[1]!, 6);
    expect(letters[0]).toBeCloseTo(layOutWords(design.piece, library).layouts[0]!.capHeight, 6);
  });
});

describe("what is kept of a row", () => {
  const made = makeRow({ starter: "topper" }, ["Héloïse"], library, { mend: true });

  it("is what its examination says, with names for all that findings name", () => {
    const facts = JSON.parse(JSON.stringify(factsOf(made))) as RowFacts;
    expect(facts).toMatchObject({ verdict: "holds", name: "Héloïse", texts: ["Héloïse"] });
    const told = describeAllDone(facts.mends, new Map(facts.labels), "mm");
    expect(told).toEqual(describeAllDone(made.mended?.done ?? [], made.mended?.labels ?? new Map(), "mm"));
    expect(facts.thinnest! - facts.wanted!).toBeGreaterThan(-0.02);
  });

  it("its drawing is within 0.03 mm of the piece, and less than half as long", () => {
    const { material } = made.examination;
    const shape = JSON.parse(JSON.stringify(shapeOf(made))) as RowShape;
    const drawn = unpackRegion(shape.held);
    expect(drawn).toHaveLength(material.length);
    expect(Math.abs(regionArea(drawn) - regionArea(material)) / regionArea(material)).toBeLessThan(0.001);
    const worst = Math.max(
      ...drawn.flatMap((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) => nearestPoints([ring.subarray(2 * i, 2 * i + 2)], material)!.distance),
      ),
    );
    expect(worst).toBeLessThan(0.03);
    expect(JSON.stringify(shape).length).toBeLessThan(JSON.stringify(material.map((ring) => [...ring])).length / 2);
    expect(boxOfShape(shape)!.maxX).toBeCloseTo(made.examination.box!.maxX, 1);
  });
});

describe("numbers on a sheet", () => {
  it("stand beside their pieces, clear of all material and of each other", () => {
    const square = (x: number, y: number): Sheet => ({ material: [rectangle(x, y, 30, 20)], engrave: [], score: [], box: null });
    const placed = [square(10, 10), square(44, 10), square(10, 40)];
    const same = [1, 0, 0, 1, 0, 0] as const;
    const page = { width: 100, height: 70 };
    const sheet = numberSheet(
      placed.map((sheet, i) => ({ sheet, matrix: same, number: String(i + 8) })),
      page,
    );
    const lines = sheet.score.map((line) => regionBox([line])!);
    expect(lines.length).toBeGreaterThanOrEqual(5);
    for (const line of sheet.score) {
      const own = Math.min(...placed.map(({ material }) => nearestPoints([line], material)!.distance));
      expect(own).toBeGreaterThan(0.7);
      expect(own).toBeLessThan(9);
    }
    expect(Math.min(...lines.map(({ minX, minY }) => Math.min(minX, minY)))).toBeGreaterThan(0);
    // Where nothing is left of the sheet no number is scored: they go to the other side.
    const used = [rectangle(40, 0, 60, 70)];
    const beside = numberSheet([{ sheet: square(10, 10), matrix: same, number: "8" }], page, used).score;
    expect(beside.length).toBeGreaterThan(0);
    for (const line of beside) expect(regionBox([line])!.maxX).toBeLessThan(40);
    expect(numberSheet([{ sheet: square(1, 1), matrix: same, number: "1" }], { width: 32, height: 22 }).score).toEqual([]);
  });
});

describe("letterings for a whole list", () => {
  it("are told apart by how many names hold in each, as those names are alone", () => {
    const design = { starter: "topper" } as const;
    const names = [["Kit"], ["Jiří"], ["Fjord 9"], ["Щука"]];
    const fonts = Object.fromEntries(
      ["pacifico", "anton"].map((font) => {
        const alone = { holds: 0, weak: 0, falls: 0, notMade: 0 };
        for (const texts of names) alone[makeRow(design, texts, library, { mend: false, font }).before]++;
        const tally = tryFont(design, names, library, font, { by: "design" });
        expect(tally, font).toEqual(alone);
        return [font, tally];
      }),
    );
    const [first, second] = rankFonts(fonts);
    expect(first![1].holds).toBeGreaterThanOrEqual(second![1].holds);
    // What cannot be made at a size counts against the lettering.
    expect(tryFont(design, [["Kit"]], library, "anton", { by: "height", mm: 5 })).toMatchObject({ holds: 0, notMade: 1 });
  });

  it("are tried with each name once, of long lists with some from all over", () => {
    expect(namesToTry([{ texts: ["a"] }, { texts: ["b"] }, { texts: ["a"] }])).toEqual([["a"], ["b"]]);
    const many = namesToTry(Array.from({ length: 1000 }, (_, i) => ({ texts: [`n${i}`] })));
    expect([many.length, many[0], many[59]]).toEqual([60, ["n0"], ["n983"]]);
    expect(namesToTry([])).toEqual([]);
  });
});

describe("offcuts", () => {
  const sheet = { width: 200, height: 100 };
  const plate = [rectangle(20, 20, 60, 40), backwards(rectangle(40, 30, 20, 20))];

  it("what is left of a sheet has a hole where a piece was, counters and all, and no more than what was there", () => {
    const left = leftoverOf([plate], sheet)!;
    expect(left).toHaveLength(2);
    expect(regionArea(left)).toBeGreaterThan(200 * 100 - 61 * 41 - 1);
    expect(regionArea(left)).toBeLessThan(200 * 100 - 60 * 40);
    expect(regionContains(left, 50, 40)).toBe(false);
    const again = leftoverOf([translateRegion(plate, 100, 0)], sheet, usedOf({ outline: packRegion(left) }, sheet))!;
    expect(again).toHaveLength(3);
    expect(regionArea(intersection(again, left))).toBeCloseTo(regionArea(again), 0);
  });

  it("only its largest piece is kept, from its own lower left corner; crumbs are not", () => {
    const bar = [rectangle(0, 30, 200, 10)];
    const left = leftoverOf([bar], sheet)!;
    expect(regionBox(left)!.minX).toBeCloseTo(0, 6);
    expect(regionBox(left)!.minY).toBeCloseTo(0, 6);
    expect(regionBox(left)!.maxY).toBeCloseTo(100 - 40 - 0.3, 1);
    expect(leftoverOf([[rectangle(10, 10, 180, 80)]], sheet)).not.toBeNull();
    expect(leftoverOf([[rectangle(2, 2, 196, 96)]], sheet)).toBeNull();
  });

  it("are kept as few figures, and read as they were", () => {
    const outline = rectangleOutline({ width: 120, height: 80 });
    expect(outlineOf({ outline }).map((ring) => [...ring])).toEqual([[0, 0, 120, 0, 120, 80, 0, 80]]);
    expect(regionArea(usedOf({ outline }, sheet))).toBeCloseTo(200 * 100 - 120 * 80, 3);
    // What is beyond the sheet is not counted.
    expect(usedOf({ outline: rectangleOutline({ width: 300, height: 300 }) }, sheet)).toEqual([]);
  });

  it("choices and layouts of before they could be chosen are read", () => {
    const { mirror, together, offcuts, ...older } = USUAL_CHOICES.sheet;
    expect(keptSheetChoices.parse(older)).toEqual({ ...older, mirror: false, together: false, offcuts: [] });
    const layout = { choices: older, sheets: [], tooLarge: [], fewest: 0, made: {}, faults: [] };
    expect(layoutSchema.parse(layout).choices).toEqual(USUAL_CHOICES.sheet);
    // A part of the choices stays a part.
    expect(Object.keys(sheetChoicesSchema.partial().parse({ gap: 2 }))).toEqual(["gap"]);
  });
});

describe("what sheets cost", () => {
  const shelved = { ...SHELF[0]!, width: 600, height: 400, price: 12, count: 2 };
  const sheet = (pieces: number, offcut?: string) => ({
    pieces: Array.from({ length: pieces }, () => ({})),
    ...(offcut && { offcut }),
  });
  const cost = (width: number, height: number, sheets: object[], of: typeof shelved | ShelfSheet = shelved) =>
    costOf({ sheets, choices: { width, height } } as unknown as Layout, of);

  it("goes by whole sheets and their size; offcuts cost nothing", () => {
    expect(cost(600, 400, [sheet(10), sheet(6)])).toEqual({ sheets: 2, price: 24, each: 1.5, short: 0 });
    expect(cost(600, 400, [sheet(4, "left"), sheet(8)])).toEqual({ sheets: 1, price: 12, each: 1, short: 0 });
    // Halves of a bought sheet, three of them: two sheets are begun.
    expect(cost(300, 400, [sheet(4), sheet(4), sheet(4)])).toEqual({ sheets: 2, price: 18, each: 1.5, short: 0 });
    expect(cost(600, 400, [sheet(1), sheet(1), sheet(1)])).toMatchObject({ sheets: 3, short: 1 });
  });

  it("is not known without a price, and nobody is short where nobody counts", () => {
    expect(cost(600, 400, [sheet(3)], { ...shelved, price: null, count: null })).toEqual({
      sheets: 1,
      price: null,
      each: null,
      short: 0,
    });
    expect(cost(600, 400, [])).toEqual({ sheets: 0, price: 0, each: null, short: 0 });
  });
});
