import { describe, expect, it } from "vitest";
import { partBounds, pieceBounds, stockBounds } from "./bounds";
import { parsePiece } from "./schema";
import { STOCKS } from "./stock";

const withBar = (height: number) => parsePiece({ name: "bar", stock: STOCKS[0], parts: [{ kind: "bar", id: "bar", height }] });

describe("bounds of figures", () => {
  it("are those that a document is held to", () => {
    const { least, most } = partBounds("bar", "height");
    expect(withBar(least).parts[0]).toMatchObject({ height: least });
    expect(withBar(most).parts[0]).toMatchObject({ height: most });
    expect(() => withBar(least - 0.001)).toThrow("height");
    expect(() => withBar(most + 0.001)).toThrow("height");
  });

  it("lead through what may be left out, through forms and records", () => {
    expect(partBounds("shape", "frame")).toEqual({ least: 0.5, most: 200 });
    expect(partBounds("shape", "size", "own", "width")).toEqual({ least: 2, most: 1000 });
    expect(partBounds("shape", "size", "fit", "margin")).toEqual({ least: -200, most: 200 });
    expect(partBounds("word", "path", "arc", "between", "bite")).toEqual({ least: 0, most: 50 });
    expect(partBounds("word", "changes", "turn")).toEqual({ least: -180, most: 180 });
    expect(partBounds("bar", "length")).toEqual({ least: 1, most: 1000 });
    expect(pieceBounds("limit", "width")).toEqual({ least: 1, most: 2000 });
    expect(stockBounds("thickness")).toEqual({ least: 0.1, most: 100 });
  });

  it("are not made up for what has none", () => {
    expect(() => partBounds("bar", "nothing")).toThrow("nothing");
    expect(() => partBounds("bar", "id")).toThrow("no figure");
  });
});
