import { describe, expect, it } from "vitest";
import { MATERIALS } from "../piece";
import { lookOf, materialTile } from "./material";

describe("how sheets look", () => {
  it.each(MATERIALS)("%s in a colour of its own: the face has it, the edge is darker, nothing else is drawn", (material) => {
    const [usual, own] = [lookOf({ material }), lookOf({ material, colour: "#3f7f93" })];
    expect(own.base).toBe("#3f7f93");
    expect(own.edge).toMatch(/^#[0-9a-f]{6}$/);
    const light = (hex: string) => Number.parseInt(hex.slice(1, 3), 16) + Number.parseInt(hex.slice(3, 5), 16);
    if (material !== "acrylic-black") expect(light(own.edge)).toBeLessThan(light(own.base));
    const shapes = (text: string) => text.match(/<\w+/g);
    expect(shapes(materialTile({ material, colour: "#3f7f93" }))).toEqual(shapes(materialTile({ material })));
    // In the colour that is usual it looks as usual.
    expect(lookOf({ material, colour: usual.base }).base).toBe(usual.base);
  });
});
