import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { parsePiece, STOCKS, type Word } from "../piece";
import { decodeList, ListError, linesOf, makeRow, readList, thinnestHold } from "./index";

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
});
