/**
 * Outline files from elsewhere: the faults that makers meet are named, and put right where that needs no decision.
 */
import { describe, expect, it } from "vitest";
import { PROFILES } from "../cut";
import { readSvg } from "../formats";
import { regionArea } from "../geometry";
import { STOCKS } from "../piece";
import { sentencesOf } from "../tests/sentences";
import { describeMarks, describeRepair } from "../wording";
import { asSeen, checkDrawing } from ".";

const MM = 'xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"';
const check = (body: string) => checkDrawing(readSvg(`<svg ${MM}>${body}</svg>`), { stock: STOCKS[0]!, profile: PROFILES[0]! });
const lines = (body: string) => check(`<g fill="none" stroke="#ff0000" stroke-width="0.1">${body}</g>`);
const kinds = ({ examination }: ReturnType<typeof check>) => examination.findings.map(({ kind }) => kind);

describe("cut lines", () => {
  it("an outline with holes is one piece that holds", () => {
    const checked = lines('<rect width="60" height="40"/><circle cx="20" cy="20" r="8"/>');
    expect([checked.as, checked.examination.verdict, checked.examination.cutouts.length]).toEqual(["lines", "holds", 1]);
    expect(checked.examination.area).toBeCloseTo(2400 - Math.PI * 64, 0);
  });

  it("what lies in a hole falls out", () => {
    const { examination } = lines(
      '<rect width="60" height="40"/><circle cx="20" cy="20" r="12"/><circle cx="20" cy="20" r="5"/>',
    );
    expect(examination.verdict).toBe("falls");
    expect(examination.cutouts).toHaveLength(2);
  });

  it("an outline that lies twice is named, and does not make its hole vanish", () => {
    const twice = lines(
      '<rect width="60" height="40"/><circle id="a" cx="20" cy="20" r="8"/><circle id="b" cx="20" cy="20" r="8"/>',
    );
    expect(kinds(twice)).toContain("duplicate");
    expect(twice.examination.area).toBeCloseTo(2400 - Math.PI * 64, 0);
    expect(sentencesOf(twice.examination).join()).toMatch(/b lies exactly on a.*cut twice/);
    expect(regionArea(twice.repaired)).toBeCloseTo(2400 - Math.PI * 64, 0);
    expect(describeRepair(twice.repairs[0]!, "mm")).toContain("left out");
  });

  it("an outline open by a little is closed, one open by much is named", () => {
    const nearly = lines('<path id="n" d="M0 0H60V40H0V0.3"/>');
    expect(kinds(nearly)).toEqual(["open-outline"]);
    expect(nearly.examination.verdict).toBe("holds");
    expect(regionArea(nearly.repaired)).toBeCloseTo(2400, 0);
    const open = lines('<rect width="60" height="40"/><path id="o" d="M70 0H90V30"/>');
    expect(open.examination.verdict).toBe("weak");
    expect(sentencesOf(open.examination)[0]).toContain("frees nothing");
  });

  it("a place thinner than the sheet wants makes it weak, with the measure", () => {
    const { examination } = lines('<path d="M0 0H40V18H41V0H80V40H41V19.2H40V40H0Z"/>');
    expect(examination.verdict).toBe("weak");
    expect(examination.findings[0]).toMatchObject({ kind: "thin-stroke", means: "weak" });
    expect(examination.findings[0]!.width).toBeCloseTo(1.2, 6);
    expect(sentencesOf(examination)[0]).toContain("only 1.2 mm wide");
  });

  it("crumbs are left out of the repaired file", () => {
    const { repaired, repairs } = lines('<rect width="60" height="40"/><rect x="70" width="0.2" height="0.2"/>');
    expect(repaired).toHaveLength(1);
    expect(repairs).toContainEqual({ what: "crumbs", count: 1 });
  });

  it("lines of scoring are not cut", () => {
    const { examination, marks } = check(
      '<g fill="none"><rect width="60" height="40" stroke="#f00"/><rect x="5" y="5" width="20" height="10" stroke="#00f"/></g>',
    );
    expect(examination.area).toBeCloseTo(2400, 3);
    expect(marks).toBe(1);
    expect(describeMarks(marks)).toContain("1 shape is to be scored or engraved");
  });
});

describe("filled shapes", () => {
  it("beside hairlines in the colour of cutting are engraved, and not cut", () => {
    const { as, examination } = check(
      '<rect width="60" height="40" fill="none" stroke="#f00" stroke-width="0.1"/><rect x="5" y="5" width="9" height="9"/>',
    );
    expect([as, examination.cutouts.length]).toEqual(["lines", 1]);
    expect(examination.area).toBeCloseTo(2400, 3);
  });

  it("are parts that join where they overlap", () => {
    const { as, examination } = check('<rect id="a" width="40" height="20"/><rect id="b" x="38" width="40" height="20"/>');
    expect([as, examination.verdict, examination.solids.length, examination.pieces]).toEqual(["shapes", "holds", 2, 1]);
  });
});

describe("nothing to cut", () => {
  it("is said", () => {
    expect(kinds(lines('<path d="M0 0L50 50"/>'))).toContain("open-outline");
    expect(sentencesOf(check("").examination)[0]).toMatch(/nothing to cut/);
    expect(sentencesOf(lines('<rect width="1" height="1"/>').examination).join()).toContain("unit of the file");
  });
});

it("that lines are drawn broad is said", () => {
  const ring = (width: number) =>
    check(`<circle cx="40" cy="40" r="20" fill="none" stroke="red" stroke-width="${width}"/>`).notes;
  expect(ring(4)).toEqual(["Lines that are drawn broad are read as the outlines that they follow, without their width"]);
  expect(ring(0.2)).toEqual([]);
});

describe("white over what is filled", () => {
  const holes = (body: string) => {
    const { as, examination, notes } = check(body);
    return { as, verdict: examination.verdict, area: examination.area, pieces: examination.pieces, notes: notes.length };
  };
  const disc = (r: number, colour: string) => `<circle cx="40" cy="40" r="${r}" fill="${colour}"/>`;

  it("is a hole, and what lies in it falls out", () => {
    const ring = holes(`${disc(20, "#123")}${disc(12, "white")}`);
    expect(ring).toMatchObject({ as: "shapes", verdict: "holds", pieces: 1, notes: 1 });
    expect(ring.area).toBeCloseTo(Math.PI * (400 - 144), 0);
    expect(holes(`${disc(20, "black")}${disc(12, "#fefefe")}${disc(5, "black")}`)).toMatchObject({ verdict: "falls", pieces: 2 });
  });

  it("goes through all that lies below it, and no further than its own place in the order", () => {
    const bars = '<rect width="60" height="20"/><rect x="20" width="60" height="20" fill="#800"/>';
    const cover = '<rect x="30" y="5" width="20" height="10" fill="#fff"/>';
    expect(holes(`${bars}${cover}`).area).toBeCloseTo(1600 - 200, 3);
    expect(holes(`<rect width="60" height="20"/>${cover}<rect x="20" width="60" height="20"/>`).area).toBeCloseTo(1600, 3);
    // Over an edge it is a notch.
    expect(holes('<rect width="60" height="20"/><rect x="50" width="60" height="10" fill="white"/>').area).toBeCloseTo(1100, 3);
  });

  it("the ground of a page is no piece; where nothing has another colour, white is what is drawn", () => {
    const page = '<rect width="120" height="80" fill="white"/>';
    expect(holes(`${page}<rect width="60" height="20"/>`)).toMatchObject({ area: 1200, notes: 0 });
    expect(holes(disc(20, "white")).area).toBeCloseTo(Math.PI * 400, 0);
    // White over everything leaves nothing to be cut.
    expect(holes(`${page}<rect width="60" height="20"/>${page}`)).toMatchObject({ area: 0, notes: 1 });
  });

  it("white with a line around it is that line: what lies in a hole falls out", () => {
    const outlines = [20, 12, 5].map((r) => `<circle cx="40" cy="40" r="${r}" fill="white" stroke="red"/>`).join("");
    expect(holes(outlines)).toMatchObject({ as: "lines", verdict: "falls", pieces: 2 });
  });

  it("keeps the curves of both where it lies wholly within", () => {
    const { shapes } = asSeen(readSvg(`<svg ${MM}>${disc(20, "black")}${disc(12, "white")}</svg>`));
    expect(shapes).toHaveLength(1);
    expect(shapes[0]!.commands!.filter(({ type }) => type === "C").length).toBeGreaterThan(8);
    // Along an edge it is no hole but a notch.
    const plate = '<rect width="60" height="20"/><rect x="20" width="10" height="10" fill="white"/>';
    const [notched] = asSeen(readSvg(`<svg ${MM}>${plate}</svg>`)).shapes;
    expect(notched!.subpaths).toHaveLength(1);
  });
});
