import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { difference, regionArea, regionBox } from "../geometry";
import { beginPiece } from "../mend";
import { keptOutlineSchema, parsePiece, STOCKS } from "../piece";
import { outlineOf } from "./kept";

const library = shippedLibrary();

describe("a finished piece kept as an outline", () => {
  it.each([
    ["topper", ["Isolde"]],
    ["key-ring", ["Kit"]],
    ["in-wheel", ["Ahoy"]],
  ])("%s is the same shape when it lies on another piece", (starter, words) => {
    const { material } = examine(beginPiece(starter, words, library), library);
    const kept = keptOutlineSchema.parse({ id: "o", name: "kept", ...outlineOf(material)! });
    const box = regionBox(material)!;
    const at = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
    const { outline, height } = kept;
    const part = { kind: "drawing", id: "d", name: "kept", outline, height, at, holder: true };
    const again = examine(parsePiece({ name: "again", stock: STOCKS[0], parts: [part] }), library);
    const area = regionArea(material);
    expect(again.material).toHaveLength(material.length);
    expect(regionArea(difference(again.material, material)) / area).toBeLessThan(0.001);
    expect(regionArea(difference(material, again.material)) / area).toBeLessThan(0.001);
  });

  it("of nothing there is none", () => {
    expect(outlineOf([])).toBeNull();
  });
});
