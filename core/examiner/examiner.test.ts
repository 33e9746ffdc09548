import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { beforeEach, describe, expect, it } from "vitest";
import { PROFILES } from "../cut";
import { examine } from "../examine";
import { makeFile } from "../formats";
import { offerMends } from "../mend";
import { applyMove, type Piece } from "../piece";
import { sheetOf } from "../report";
import { describeFinding, describeMend } from "../wording";
import { createExaminer, type Examiner } from "./index";

const library = shippedLibrary();
const topper = demoPiece("boat-naming");
const choices = { profile: PROFILES[0]! };
/** As it comes from another thread. */
const copyOf = (piece: Piece): Piece => structuredClone(piece);
let examiner: Examiner;
beforeEach(() => {
  examiner = createExaminer(library);
});

describe("a piece is examined once", () => {
  it("whether its findings are opened, its sheet is changed or its files are taken", async () => {
    const { findings } = examiner.update(topper);
    findings.forEach((_, i) => {
      examiner.mends(copyOf(topper), i);
    });
    examiner.sheet(copyOf(topper), choices);
    examiner.sheet(copyOf(topper), { ...choices, without: ["score"] });
    await examiner.files(copyOf(topper), ["svg", "dxf"], choices);
    examiner.mendAll(copyOf(topper));
    expect(examiner.examined).toBe(1);
  });

  it("and its sentences are made in other units without examining it again", () => {
    const { findings, solids, ghosts } = examiner.update(topper);
    const labels = new Map([...solids, ...ghosts].map(({ id, label }) => [id, label]));
    const [mm, inches] = (["mm", "in"] as const).map((units) => describeFinding(findings[0]!, labels, units));
    expect(mm).toContain("2.6 mm short");
    expect(inches).toContain("0.102 in short");
    const [mend] = examiner.mends(topper, 0);
    expect(describeMend(mend!.action, "in")).toMatch(/ in$/);
    expect(examiner.examined).toBe(1);
  });

  it("a changed one anew, the one before it not when it comes back", () => {
    examiner.update(topper);
    const changed = applyMove(topper, { what: "letter", wordId: "w1", key: "k1", dx: 1, dy: 0 });
    examiner.update(changed);
    examiner.update(copyOf(topper));
    expect(examiner.examined).toBe(2);
  });

  it("again where the line along its middle is wanted and was not made", () => {
    examiner.update(topper);
    expect(examiner.update(topper, { skeleton: true }).skeleton).toBeDefined();
    examiner.update(topper);
    expect(examiner.examined).toBe(2);
  });
});

describe("what it remembers changes nothing", () => {
  it("mends are those that are found without it", () => {
    const before = examine(topper, library);
    const plain = offerMends(topper, before, before.findings[0]!, library);
    expect(examiner.mends(topper, 0).map(({ action }) => action)).toEqual(plain.map(({ action }) => action));
  });

  it("files are the same byte for byte, the first time and the second", async () => {
    const plain = await makeFile(topper, sheetOf(topper, examine(topper, library)), "svg", choices);
    for (let k = 0; k < 2; k++) {
      const [made] = await examiner.files(topper, ["svg"], choices);
      expect(Buffer.from(made!.bytes).equals(Buffer.from(plain.bytes))).toBe(true);
    }
  });

  it("what is in the hand has the verdict of the piece as it then is", () => {
    examiner.update(topper);
    const moved = applyMove(topper, { what: "letter", wordId: "w1", key: "k1", dx: -30, dy: 0 });
    expect(examiner.moving(moved).verdict).toBe(examine(moved, library).verdict);
    expect(examiner.examined).toBe(1);
  });

  it("the piece in the hand is never told by what is known of another one", () => {
    const stake = demoPiece("sea-kale");
    examiner.update(stake);
    const { findings } = examiner.moving(topper);
    expect(findings.map(({ kind }) => kind)).toEqual(examine(topper, library).findings.map(({ kind }) => kind));
    expect(examiner.examined).toBe(2);
  });
});
