import { describe, expect, it } from "vitest";
import { parsePiece, STOCKS } from "../piece";
import { type Holder, holderSentence } from "./holders";

/** What is read out: all that is not as usual. */
function told(document: object, units: "mm" | "in" = "mm"): string {
  const [part] = parsePiece({ name: "h", stock: STOCKS[0], parts: [{ id: "h", ...document }] }).parts;
  return holderSentence(part as Holder, units)
    .filter(({ usual }) => !usual)
    .map(({ lead, says }) => `${lead} ${says}`)
    .join("; ");
}

describe("a holder as a sentence", () => {
  it("tells of a bar how long, how high, and how far up it reaches", () => {
    expect(told({ kind: "bar" })).toBe("is as long as the lettering; is 6.0 mm high; reaches 1.0 mm above the baseline");
    expect(told({ kind: "bar", overhang: -3, overlap: -2 })).toContain("is 3.0 mm shorter at each end than the lettering");
    expect(told({ kind: "bar", overlap: -2 })).toContain("reaches 2.0 mm short of the baseline");
    expect(told({ kind: "bar", overlap: 0, corner: 3 })).toContain("reaches up to the baseline; has corners of radius 3.0 mm");
    expect(told({ kind: "bar", length: 152.4 }, "in")).toContain("is 6.000 in long");
  });

  it("tells of a stick what it stands under", () => {
    expect(told({ kind: "stick" })).toContain("stands under the middle");
    expect(told({ kind: "stick", under: "mass" })).toContain("stands under the centre of mass");
    expect(told({ kind: "stick", dx: -4 })).toContain("stands 4.0 mm to the left of the middle");
  });

  it("tells of a loop its ring, its wall's side, and its bite", () => {
    expect(told({ kind: "loop" })).toBe(
      "is 12.0 mm across with a hole of 8.0 mm; sits at the top; reaches 2.5 mm into the material",
    );
    expect(told({ kind: "loop", angle: -180, bite: -1 })).toContain("sits at the left; reaches to 1.0 mm short of the material");
    expect(told({ kind: "loop", angle: 45 })).toContain("sits at 45°");
  });

  it("tells of a shape its size and how it is made", () => {
    expect(told({ kind: "shape", form: "disc", size: { by: "own", width: 80, height: 80 }, frame: 5, opening: "bars" })).toBe(
      "is a disc; is 80.0 mm across; is a frame 5.0 mm wide, open between bars 5.0 mm high",
    );
    expect(told({ kind: "shape", form: "oval", dy: 3 })).toBe(
      "is an oval; is 8.0 mm larger all round than the lettering; is solid; lies 3.0 mm up of the middle",
    );
    // A disc is as large as the smaller side lets it be.
    expect(told({ kind: "shape", form: "disc", size: { by: "own", width: 90, height: 60 } })).toContain("is 60.0 mm across");
    expect(told({ kind: "shape", size: { by: "own", width: 90, height: 60 } })).toContain("is 90.0 × 60.0 mm");
    expect(told({ kind: "shape", size: { by: "fit", margin: 0 } })).toContain("is as large as the lettering");
  });

  it("tells of stakes, ornaments, ties and fillings", () => {
    expect(told({ kind: "stake", clear: "right", total: 177.8 })).toContain(
      "leaves 3.0 mm clear to the right of them; ends in a point that makes it 177.8 mm long in all",
    );
    expect(told({ kind: "ornament", name: "anchor", at: { x: 4, y: 0 }, turn: 20, mirror: true, meets: "halo" })).toBe(
      "is an anchor; is 15.0 mm high; is turned by 20° and mirrored; lies 4.0 mm to the right; is free in a gap of 1.2 mm",
    );
    const ends = [
      { x: 0, y: 0 },
      { x: 9, y: 0 },
    ];
    expect(told({ kind: "tie", width: 2, ends, bend: -3 })).toBe("is 2.0 mm wide; is bent by 3.0 mm");
    expect(told({ kind: "fill", at: { x: 0, y: 0 }, width: 0.3, reach: 5 })).toBe(
      "closes gaps up to 0.3 mm; reaches 5.0 mm around",
    );
  });
});
