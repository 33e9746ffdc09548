import { describe, expect, it } from "vitest";
import { speedsFor } from "../cut";
import { materialOf } from "../strength";
import {
  isNewer,
  MATERIALS,
  readSheets,
  SHELF,
  SheetListError,
  type ShelfSheet,
  STOCKS,
  shelfSheetSchema,
  smallestHole,
  stockByName,
  withOwn,
  writeSheetsCsv,
  writeSheetsJson,
} from "./index";
import { hasGrain } from "./stock";

const mine: ShelfSheet = {
  ...SHELF[0]!,
  id: "own-1",
  stock: {
    ...SHELF[0]!.stock,
    id: "own-1",
    name: 'Ferry "plank", 4 mm',
    thickness: 4.1,
    hole: 0.9,
    grain: true,
    density: 0.71,
    colour: "#2f6f73",
  },
  count: 3,
  price: 4.5,
  notes: "two lines\nand, a comma",
};

describe("the shelf of sheets", () => {
  it("has at least twenty, each with its figures and where they come from", () => {
    expect(SHELF.length).toBeGreaterThanOrEqual(20);
    expect(new Set(SHELF.map(({ id }) => id)).size).toBe(SHELF.length);
    for (const sheet of SHELF) {
      expect(shelfSheetSchema.parse(sheet), sheet.id).toEqual(sheet);
      expect(sheet.stock.id).toBe(sheet.id);
      for (const key of ["leastWidth", "kerf", "strength", "thickness"] as const)
        expect(sheet.sources[key], sheet.id).toBeTruthy();
      if (sheet.stock.young !== undefined) expect(sheet.sources.young, sheet.id).toBeTruthy();
      expect(SHELF.find(({ id }) => id === stockByName(sheet.stock.name)!.id)!.id).toBe(sheet.id);
    }
    // The six that pieces and the command line know by name are among them, unchanged.
    for (const stock of STOCKS) expect(SHELF.find(({ id }) => id === stock.id)!.stock).toEqual(stock);
  });

  it("every material can be cut, tested and told from the others", () => {
    for (const material of MATERIALS) {
      const stock = { ...STOCKS[0]!, material };
      expect(speedsFor(stock).cut).toBeGreaterThan(0);
      expect(materialOf(stock).young).toBeGreaterThan(0);
    }
    expect(hasGrain({ material: "oak" })).toBe(true);
    expect(hasGrain({ material: "oak", grain: false })).toBe(false);
    expect(SHELF.filter(({ stock }) => hasGrain(stock)).map(({ id }) => id)).not.toContain("oak-ply-3");
  });

  it("what the maker says goes before what is usual: stiffness, smallest hole", () => {
    expect(materialOf({ ...STOCKS[0]!, young: 4321 }).young).toBe(4321);
    expect(smallestHole({ ...STOCKS[0]!, hole: 0.9 })).toBe(0.9);
  });

  it("the maker's own stand in the place of ours, and before them", () => {
    const changed = { ...SHELF[3]!, notes: "mine" };
    const all = withOwn([changed, mine]);
    expect(all).toHaveLength(SHELF.length + 1);
    expect(all[0]).toBe(mine);
    expect(all.find(({ id }) => id === changed.id)).toBe(changed);
    expect(isNewer(STOCKS[0]!, { ...STOCKS[0]! })).toBe(false);
    expect(isNewer(STOCKS[0]!, { ...STOCKS[0]!, name: "another name" })).toBe(false);
    for (const key of ["leastWidth", "kerf", "strength"] as const)
      expect(isNewer(STOCKS[0]!, { ...STOCKS[0]!, [key]: STOCKS[0]![key] + 0.1 })).toBe(true);
    for (const change of [{ strengthAcross: 3 }, { density: 0.5 }, { colour: "#2f6f73" }])
      expect(isNewer(STOCKS[0]!, { ...STOCKS[0]!, ...change })).toBe(true);
  });
});

describe("lists of sheets", () => {
  it("come back from JSON as they were, and from a table but for where figures come from", () => {
    expect(readSheets(writeSheetsJson([...SHELF, mine]))).toEqual([...SHELF, mine]);
    const bare = (sheet: ShelfSheet) => ({ ...sheet, sources: {} });
    expect(readSheets(writeSheetsCsv([...SHELF, mine])).map(bare)).toEqual([...SHELF, mine].map(bare));
  });

  it("a table needs no more than a name, a material and a thickness", () => {
    const [sheet] = readSheets('\uFEFFname,material,thickness,strength\nMy oak,oak,"5,2",80\n\n');
    expect(sheet).toMatchObject({ id: "my-oak", stock: { name: "My oak", material: "oak", thickness: 5.2, tool: "laser" } });
  });

  it.each([
    ["", "no sheet"],
    ["{", "no JSON"],
    ['{"sheets": 3}', "no list"],
    ["name,thickness\nOak,3", "material is not among them"],
    ["name,material,thickness,strength\nOak,granite,3,40", "Sheet 1"],
    ["name,material,thickness,strength\nOak,oak,0,40", "Sheet 1"],
    ["name,material,thickness,strength\nOak,oak,3,0", "Sheet 1"],
    ["name,material,thickness,strength\nOak,oak,3,forty", "Sheet 1"],
    [`name,material,thickness,strength\n${"x".repeat(200)},oak,3,40`, "Sheet 1"],
  ])("%j is refused with a sentence", (text, says) => {
    expect(() => readSheets(text)).toThrow(SheetListError);
    expect(() => readSheets(text)).toThrow(says);
  });

  it("what a spreadsheet would take for a formula is text", () => {
    const csv = writeSheetsCsv([{ ...mine, notes: "=HYPERLINK(1)" }]);
    expect(csv).toContain("'=HYPERLINK(1)");
  });
});
