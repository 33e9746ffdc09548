/**
 * Broad lines as the shapes that they are seen as, by the formulas of plane geometry.
 */
import { describe, expect, it } from "vitest";
import { readSvg } from "../formats";
import { normalise, regionArea } from "../geometry";
import { asBroadAsDrawn, broadestLine, chooseOutlines, findOutlines, OpenLinesError } from ".";

const read = (body: string) =>
  readSvg(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80">${body}</svg>`);
const areas = (body: string) =>
  asBroadAsDrawn(read(body)).shapes.map(({ subpaths, fillRule }) => {
    const rings = subpaths.map(({ ring }) => ring);
    return Math.round(regionArea(normalise(rings, fillRule)) * 100) / 100;
  });
const line = (said: string, d = "M10 10H30") => `<path d="${d}" fill="none" stroke="black" stroke-width="4" ${said}/>`;

describe("broad lines", () => {
  const half = Math.round(4 * Math.PI * 100) / 100;
  it.each([
    ["end where they end", line(""), 80],
    ["reach out square", line('stroke-linecap="square"'), 96],
    ["reach out round", line('stroke-linecap="round"'), 80 + half],
    ["have sharp corners", line("", "M10 10H30V30"), 160],
    ["have round corners", line('stroke-linejoin="round"', "M10 10H30V30"), 156 + half / 4],
    ["go around what is closed", line("", "M10 10H30V30H10Z"), 24 * 24 - 16 * 16],
    ["of a place alone are dots", line('stroke-linecap="square"', "M10 10Z"), 16],
    ["of a place alone with flat ends are nothing", line("", "M10 10Z"), 0],
    ["grow with what they lie in", `<g transform="scale(2)">${line("")}</g>`, 320],
    ["are stretched with it", `<g transform="scale(1 3)">${line("", "M10 10V20")}</g>`, 120],
    ["end at a clip", `<clipPath id="c"><rect width="20" height="80"/></clipPath>${line('clip-path="url(#c)"')}`, 40],
  ])("%s", (_, body, area) => {
    const [found = 0] = areas(body);
    expect(Math.abs(found - area)).toBeLessThan(0.03);
  });

  it("lie over what they go around, in their own colour; thin ones stay lines", () => {
    const { shapes } = asBroadAsDrawn(
      read(
        '<rect id="r" width="20" height="10" fill="#080" stroke="red" stroke-width="2"/><path d="M0 0h9" fill="none" stroke="red" stroke-width="0.2"/>',
      ),
    );
    expect(shapes.map(({ id, fill, stroke }) => [id, fill, stroke])).toEqual([
      ["r", "#008800", null],
      ["r-line", "#ff0000", null],
      ["part-2", null, "#ff0000"],
    ]);
    expect(broadestLine(read('<rect width="9" height="9" stroke="red" stroke-width="2"/>'))).toBeCloseTo(2, 6);
    expect(broadestLine(read('<rect width="9" height="9" stroke="red" stroke-width="0.2"/>'))).toBeNull();
  });

  it("can be brought in: a ring of a circle, strokes where all lines are open", () => {
    const ring = read('<circle cx="40" cy="40" r="20" fill="none" stroke="black" stroke-width="4"/>');
    const taken = (broad: boolean) => chooseOutlines(findOutlines(ring, { broad }), [0, 1]).region;
    expect(Math.abs(regionArea(taken(false)) - 400 * Math.PI)).toBeLessThan(0.5);
    expect(Math.abs(regionArea(taken(true)) - (22 ** 2 - 18 ** 2) * Math.PI)).toBeLessThan(0.5);
    const strokes = read(line("", "M10 10H30M20 0V20"));
    expect(() => findOutlines(strokes)).toThrow(OpenLinesError);
    expect(regionArea(chooseOutlines(findOutlines(strokes, { broad: true }), [0]).region)).toBeCloseTo(144, 1);
  });
});
