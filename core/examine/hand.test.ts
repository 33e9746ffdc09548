import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { acceptFinding, openFindings } from "../judge";
import { mendAll } from "../mend";
import type { Piece } from "../piece";
import { labelsOf } from "../report";
import { createLoadTest, usesThatCount } from "../strength";
import { freshSeed } from "../tests/seed";
import { describeFinding } from "../wording";
import { examine } from "./examine";
import { examineMoving } from "./moving";

const library = shippedLibrary();
const ruled = (piece: Piece, hand: Piece["hand"] = {}): Piece => ({ ...piece, hand: { ...hand, rule: true } });
const pieces = demoPieces();
const pieceOf = (id: string) => pieces.find((piece) => piece.id === `demo-${id}`)!;

describe("what must bear the hand", () => {
  it.each(pieces.map((piece) => [piece.name, piece] as const))(
    "%s: what the load test says breaks is a finding, everything that is found breaks, and nothing else changes",
    (_, piece) => {
      const [free, strict] = [examine(piece, library), examine(ruled(piece), library)];
      const found = strict.findings.filter(({ kind }) => kind === "gives-way");
      expect(strict.findings.filter(({ kind }) => kind !== "gives-way")).toEqual(free.findings);
      expect(free.findings.some(({ kind }) => kind === "gives-way")).toBe(false);
      const { test } = createLoadTest(piece, free);
      const breaks = [...test.letters, ...usesThatCount(test)].filter(({ takes, force }) => takes < force);
      expect(found.length > 0).toBe(breaks.length > 0);
      const letters = found.flatMap((finding) => (finding.kind === "gives-way" ? finding.letters : []));
      expect(letters.sort()).toEqual(breaks.flatMap((load) => ("id" in load ? [load.id] : [])).sort());
      for (const finding of found) {
        expect(finding.means).toBe("weak");
        if (finding.kind === "gives-way") expect(finding.wanted).toBeGreaterThan(finding.width);
        expect(describeFinding(finding, labelsOf(strict), "mm")).not.toMatch(/NaN|undefined|a part/);
      }
      if (found.length > 0) expect(strict.verdict).not.toBe("holds");
      else expect(strict.verdict).toBe(free.verdict);
    },
  );

  it("a softer finger asks for less, and what is let be no longer counts", () => {
    const piece = ruled(pieceOf("tide-spiral"));
    const { findings, verdict } = examine(piece, library);
    expect(verdict).toBe("weak");
    const most = Math.max(...findings.flatMap((finding) => (finding.kind === "gives-way" ? [finding.takes] : [])));
    expect(most).toBeLessThan(5);
    expect(examine(ruled(piece, { finger: 1 }), library).verdict).toBe("holds");
    const accepted = openFindings(findings).map(({ kind, parts, meeting, width }) => ({
      kind,
      parts: parts.slice(0, meeting).sort(),
      width,
      reason: "it hangs high",
    }));
    expect(examine({ ...piece, accepted }, library).verdict).toBe("holds");
  });

  it("what was let be comes back for a harder hand", () => {
    const piece = ruled(pieceOf("tide-spiral"), { finger: 4 });
    const accepted = openFindings(examine(piece, library).findings).map((finding) => acceptFinding(finding, "for the shelf"));
    expect(accepted.length).toBeGreaterThan(0);
    expect(examine({ ...piece, accepted }, library).verdict).toBe("holds");
    expect(examine({ ...ruled(piece, { finger: 3 }), accepted }, library).verdict).toBe("holds");
    expect(examine({ ...ruled(piece, { finger: 15 }), accepted }, library).verdict).toBe("weak");
  });

  it("while a letter is in the hand the rule goes on", () => {
    const piece = ruled(pieceOf("tide-spiral"));
    expect(examineMoving(piece, library, examine(piece, library)).verdict).toBe("weak");
  });

  it("all is mended until it bears the hand, or what is left says so", () => {
    const ids = ["boat-naming", "harbour-office", "slipway", "bell-rim"];
    // One in each run: mending in the hand takes longest of all.
    const id = ids[freshSeed("core/examine hand") % ids.length]!;
    const { piece, verdict, left } = mendAll(ruled(pieceOf(id)), library);
    const after = examine(piece, library);
    expect(after.verdict, id).toBe(verdict);
    const { test } = createLoadTest(piece, after);
    const breaks = [...test.letters, ...usesThatCount(test)].some(({ takes, force }) => takes < force);
    expect(breaks, id).toBe(left.some(({ finding }) => finding.kind === "gives-way"));
    // Script on one stick: nothing small makes its long arm bear 5 N.
    expect(verdict, id).toBe(id === "boat-naming" ? "weak" : "holds");
  });
});
