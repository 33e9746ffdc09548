/**
 * The proof of files with holding tabs: what is not the plan is found, what is comes through however a format joins its lines.
 */
import { describe, expect, it } from "vitest";
import { type CutPlan, PROFILES, planCut } from "../cut";
import { regionBox } from "../geometry";
import { parsePiece, STOCKS } from "../piece";
import { rectangle } from "../tests/shapes";
import { makeFile } from "./index";
import { differenceOf } from "./proof";

const profile = PROFILES[0]!;
const piece = parsePiece({
  name: "Tabs",
  stock: STOCKS[0],
  cut: "on-line",
  parts: [{ kind: "word", id: "w", text: "Kit", font: "pacifico", size: { by: "width", mm: 60 } }],
});
const sheetWith = (...material: Float64Array[]) => ({ material, engrave: [], score: [], box: regionBox(material) });
const plate = sheetWith(rectangle(0, 0, 40, 20));
const tabs = { count: 3, width: 0.5 };
const planOf = (more: object): CutPlan => planCut(piece, plate, { profile, ...more });

describe("holding tabs", () => {
  it.each(["svg", "dxf", "pdf"] as const)("are in the %s, and what is not as planned is found", async (format) => {
    const whole = (await makeFile(piece, plate, format, { profile })).bytes;
    const tabbed = (await makeFile(piece, plate, format, { profile, tabs })).bytes;
    expect(await differenceOf(tabbed, planOf({ tabs }))).toBeNull();
    expect(await differenceOf(whole, planOf({ tabs }))).toBe("a holding tab is cut");
    expect(await differenceOf(tabbed, planOf({ tabs: { count: 3, width: 0.3 } }))).toBe("a cut line is missing");
    expect(await differenceOf(tabbed, planOf({}))).not.toBeNull();
  });

  it("a line that is left out, one that is there twice, and one beside the outlines are found", async () => {
    const text = new TextDecoder().decode((await makeFile(piece, plate, "svg", { profile, tabs })).bytes);
    const differenceIn = (changed: string) => differenceOf(new TextEncoder().encode(changed), planOf({ tabs }));
    expect(await differenceIn(text)).toBeNull();
    expect(await differenceIn(text.replace(/<path[^>]*>/, ""))).toBe("a cut line is missing");
    expect(await differenceIn(text.replace(/<path[^>]*>/, "$&$&"))).toBe("a cut line is there twice");
    expect(await differenceIn(text.replace(/(<path[^>]* d=")M/, "$1M9 9L12 9M"))).toBe("a cut line lies beside every outline");
  });

  it.each(["svg", "dxf", "pdf"] as const)("two lines of different outlines that end at one place leave as %s", async (format) => {
    const left = Float64Array.from([0, 0, 0, 20, -40, 20, -40, 0]);
    await expect(makeFile(piece, sheetWith(left, rectangle(0, 0, 40, 20)), format, { profile, tabs })).resolves.toBeDefined();
  });
});
