import { demoPieces } from "@mend-joint/demo";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { solidsFromShapes } from "../drawings";
import { readSvg } from "../formats";
import { islandsOf, regionArea } from "../geometry";
import { CRUMB } from "../joints";
import { acceptFinding } from "../judge";
import { applyMove, parsePiece, STOCKS } from "../piece";
import { chainOf, labelsOf, reportOf, thinnestPlace } from "../report";
import { sentencesOf } from "../tests/sentences";
import { verdictSentence } from "../wording";
import { examine, examineSolids } from "./index";

const library = shippedLibrary();

const pieceOf = (text: string, font: string, more: object[] = [], stock = STOCKS[0]!) =>
  parsePiece({
    name: `Word ${text.slice(0, 20)}`,
    stock,
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 } }, ...more],
  });

const sentence = (piece: ReturnType<typeof pieceOf>, units: "mm" | "in" = "mm") => {
  const examination = examine(piece, library);
  return verdictSentence(
    examination.verdict,
    examination.findings,
    thinnestPlace(examination),
    labelsOf(examination),
    piece.stock,
    units,
  );
};

it("that there is nothing to cut cannot be let be: the verdict stays", () => {
  const engraved = pieceOf("a", "pacifico");
  for (const nothing of [
    pieceOf("", "pacifico"),
    pieceOf("Жук", "archivo-black"),
    pieceOf("a", "nowhere"),
    parsePiece({ ...engraved, parts: [{ ...engraved.parts[0], meets: "engrave" }] }),
  ]) {
    const { findings } = examine(nothing, library);
    const accepted = findings.map((finding) => acceptFinding(finding, "never mind"));
    const again = examine({ ...nothing, accepted }, library);
    expect(again.verdict).toBe("falls");
    expect(again.findings.map(({ kind }) => kind)).toContain("empty");
    expect(again.findings[0]!.accepted).toBeUndefined();
  }
});

describe("the demo pieces have the trouble they are meant to have", () => {
  const verdicts = Object.fromEntries(demoPieces().map((piece) => [piece.id, examine(piece, library)]));

  it("the nameplate holds", () => {
    const { verdict, findings, pieces } = verdicts["demo-harbour-office"]!;
    expect({ verdict, pieces }).toEqual({ verdict: "holds", pieces: 1 });
    // Crossbars inside letters are thinner than walnut wants; nothing hangs on them.
    expect(new Set(findings.map(({ kind, means }) => `${kind} ${means}`))).toEqual(new Set(["hairline note"]));
  });

  it("the stake has a weak t", () => {
    const { verdict } = verdicts["demo-sea-kale"]!;
    expect(verdict).toBe("weak");
    expect(sentencesOf(verdicts["demo-sea-kale"]!).join()).toContain("the t ");
  });

  it("the topper's dots are loose", () => {
    const { verdict, findings, cutouts } = verdicts["demo-boat-naming"]!;
    expect(verdict).toBe("falls");
    expect(findings.filter(({ means }) => means !== "note").map(({ kind }) => kind)).toEqual(["loose", "loose"]);
    expect(sentencesOf(verdicts["demo-boat-naming"]!)[0]).toContain("The dot of the first i is not joined");
    expect(cutouts.filter(({ falls }) => falls)).toHaveLength(2);
  });

  it("a dot lowered by what is missing, and a little more, holds", () => {
    const piece = demoPieces().find(({ id }) => id === "demo-boat-naming")!;
    let mended = piece;
    for (const finding of examine(piece, library).findings.filter(({ kind }) => kind === "loose")) {
      const key = finding.parts[0]!.split(":")[1]!.split(".")[0]!;
      mended = applyMove(mended, { what: "dots", wordId: "w1", key, dx: 0, dy: -(finding.gap!.width + 2.5) });
    }
    expect(examine(mended, library).verdict).toBe("holds");
  });
});

describe("verdict sentences", () => {
  it("say what falls, what is thinnest, and what the sheet wants", () => {
    expect(sentence(pieceOf("Kit", "pacifico"))).toMatch(
      /^The dot of i falls off\. Thinnest (joint|stroke) \d\.\d mm, (at|in) .+; birch 3 mm wants 1\.5 mm\.$/,
    );
    expect(sentence(pieceOf("Hi", "archivo-black", [{ kind: "bar", id: "bar" }]), "in")).toMatch(/birch 3 mm wants 0\.059 in\.$/);
    expect(sentence(pieceOf("HHH", "archivo-black", [{ kind: "bar", id: "bar", overlap: -5 }]))).toContain("letters fall off");
  });

  it("name everything that hangs together in one finding", () => {
    const { findings } = examine(
      pieceOf("ooo", "pacifico", [{ kind: "bar", id: "bar", overlap: -8, height: 12, overhang: 30 }]),
      library,
    );
    expect(findings.filter(({ kind }) => kind === "loose")).toHaveLength(1);
    expect(findings[0]!.parts).toHaveLength(3);
    expect(findings[0]!.gap!.width).toBeGreaterThan(7);
  });
});

describe("bad and odd input becomes a finding", () => {
  it.each([
    ["empty text", pieceOf("", "pacifico"), "empty"],
    ["only blanks", pieceOf("   ", "pacifico"), "empty"],
    ["characters the font lacks", pieceOf("aЖb", "archivo-black"), "missing-letter"],
    ["emoji", pieceOf("🧭", "pacifico"), "missing-letter"],
    ["right-to-left text", pieceOf("שלום", "pacifico"), "missing-letter"],
    ["lettering that is not there", pieceOf("a", "nowhere"), "missing-letter"],
  ])("%s", (_, piece, kind) => {
    const examination = examine(piece, library);
    expect(examination.verdict).toBe("falls");
    expect(examination.findings[0]!.kind).toBe(kind);
    expect(sentencesOf(examination)[0]!.length).toBeGreaterThan(15);
  });

  it("on a stick, letters that the font lacks are one finding; a word that was emptied is another", () => {
    const kindsOf = (text: string, font = "archivo-black") =>
      examine(
        pieceOf(text, font, [
          { kind: "stick", id: "s" },
          { kind: "bar", id: "bar" },
        ]),
        library,
      )
        .findings.filter(({ means }) => means !== "note")
        .map(({ kind }) => kind);
    expect(kindsOf("Жук")).toEqual(["missing-letter"]);
    expect(kindsOf("a", "nowhere")).toEqual(["missing-letter"]);
    expect(kindsOf("")).toEqual(["empty"]);
    expect(kindsOf("\u200d")).toHaveLength(1);
  });

  it("names the missing letters", () => {
    expect(sentencesOf(examine(pieceOf("aЖb", "archivo-black"), library))[0]).toBe(
      "Archivo Black has no Ж. Choose other lettering, or leave it out.",
    );
  });

  it("all letters on top of each other, and a piece of only dots, are measured", () => {
    const heap = examine(pieceOf("aaaa", "archivo-black", []), library);
    const stacked = parsePiece({
      ...pieceOf("aaaa", "archivo-black"),
      parts: [{ ...pieceOf("aaaa", "archivo-black").parts[0], tracking: -16 }],
    });
    const { holds } = examine(stacked, library);
    for (const hold of [...holds, ...heap.holds]) expect(Number.isFinite(hold.width + hold.at.x + hold.at.y)).toBe(true);
    expect(examine(pieceOf("...", "pacifico"), library).verdict).toBe("falls");
  });

  it("examines 200 letters", () => {
    const text = "The oysters of Skerrow are landed before the sun is up. ".repeat(4).slice(0, 200);
    const { letters, holds } = examine(pieceOf(text, "pacifico", [{ kind: "bar", id: "bar" }]), library);
    expect(letters.length).toBeGreaterThan(150);
    expect(holds.every((hold) => Number.isFinite(hold.width))).toBe(true);
  });

  it("finds the holder's own weakness", () => {
    const { findings } = examine(pieceOf("HH", "archivo-black", [{ kind: "bar", id: "bar", height: 1, overlap: 0.5 }]), library);
    expect(findings.length).toBeGreaterThan(0);
    expect(findings[0]!.means).toBe("weak");
  });
});

describe("every shipped font, word after word", () => {
  it.each(CATALOGUE.map(({ id }) => id))("%s: areas add up, chain and report agree with the holds", (font) => {
    for (const text of ["Isolde", "Jiří", "Zoë", "Bjørn", "Wilhelmina", "Kit", "Ffion", "Ángela"]) {
      if ([...text].some((letter) => !library.font(font)!.has(letter.codePointAt(0)!))) continue;
      const examination = examine(pieceOf(text, font, [{ kind: "bar", id: "bar", overlap: 1.2 }]), library);
      const cutouts = examination.cutouts.map(({ region }) => regionArea(region));
      const edges = new Set(examination.cutouts.map(({ region }) => region[0]));
      const crumbs = islandsOf(examination.material)
        .filter(([edge]) => !edges.has(edge))
        .map(regionArea);
      expect(Math.max(0, ...crumbs)).toBeLessThan(CRUMB);
      expect([...cutouts, ...crumbs].reduce((sum, area) => sum + area, 0)).toBeCloseTo(examination.area, 6);
      const placed = new Set(examination.cutouts.flatMap(({ solids }) => solids));
      for (const [i, { region }] of examination.solids.entries()) expect(placed.has(i) || regionArea(region) < CRUMB).toBe(true);
      const chain = chainOf(examination);
      expect(chain.map((letter) => letter.text).join("")).toBe(text);
      for (const letter of chain) {
        const hold = examination.holds[letter.solids[0]!]!;
        expect(letter.falls).toBe(hold.falls);
        if (letter.posts.length === 0 && !letter.falls) expect(letter.hold).toBeGreaterThan(0);
      }
      const report = reportOf(examination, String);
      expect(report.solids).toBe(examination.pieces);
      expect(report.parts.filter((part) => part.falls).length).toBe(examination.holds.filter((hold) => hold.falls).length);
    }
  });
});

describe("outlines from elsewhere", () => {
  const drawing = (body: string) =>
    readSvg(`<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">${body}</svg>`);
  const check = (body: string, holders: string[] = []) => {
    const { solids, findings } = solidsFromShapes(drawing(body).shapes, holders);
    return reportOf(examineSolids(solids, 2, { extra: findings }), String, true);
  };

  it("every shape is a part, measured in the coordinates of the file", () => {
    const report = check(
      '<circle id="A" cx="6" cy="8" r="5"/><circle id="B" cx="15.5" cy="8" r="5"/><circle id="C" cx="40" cy="20" r="3"/>',
      ["A"],
    );
    expect(report).toMatchObject({ verdict: "falls", minWidth: 2, solids: 2 });
    const b = report.parts.find((part) => part.id === "B")!;
    expect(b.hold).toBeCloseTo(3.1225, 2);
    expect(b).toMatchObject({ ties: 1, falls: false });
    const joint = report.joints[0]!;
    expect(joint.between).toEqual(["A", "B"]);
    expect(joint.from[0]).toBeCloseTo(10.75, 2);
    expect((joint.from[1] + joint.to[1]) / 2).toBeCloseTo(8, 2);
    expect(report.findings[0]).toMatchObject({ kind: "loose", parts: ["C"], width: 0 });
  });

  it("finds the same outline lying twice, open lines, and lines without area", () => {
    const report = check(
      '<rect id="a" width="20" height="10"/><rect id="b" width="20" height="10"/><path id="c" d="M5 5L25 5L25 8"/><line id="d" x1="0" y1="0" x2="9" y2="9"/>',
    );
    expect(report.findings.map(({ kind }) => kind).sort()).toEqual(["duplicate", "no-area", "open-outline"]);
    expect(report.verdict).toBe("weak");
  });
});

describe("what is merely worth knowing", () => {
  it("a letter sunk in its bar is told, one that vanishes in it is swallowed", () => {
    const kinds = (overlap: number, height: number) =>
      examine(pieceOf("HIM", "archivo-black", [{ kind: "bar", id: "bar", overlap, height, overhang: 4 }]), library).findings.map(
        ({ kind, means }) => `${kind} ${means}`,
      );
    expect(kinds(2, 6)).toEqual([]);
    expect(kinds(14, 18)).toContain("sunk note");
    expect(kinds(24, 30)).toContain("swallowed note");
  });

  it("the same word twice in one place is an error", () => {
    const [word] = pieceOf("Kate", "pacifico").parts;
    const { verdict, findings } = examine(
      parsePiece({ name: "Twice", stock: STOCKS[0], parts: [word, { ...word, id: "w2" }] }),
      library,
    );
    expect(verdict).toBe("weak");
    expect(findings.filter(({ kind }) => kind === "duplicate")).toHaveLength(4);
  });

  it("can be left out to save time, and the stages are told as they begin", () => {
    const piece = demoPieces().find(({ id }) => id === "demo-sea-kale")!;
    const stages: string[] = [];
    const quick = examine(piece, library, { notes: false, onProgress: (stage) => stages.push(stage) });
    expect(quick.findings.every(({ means }) => means !== "note")).toBe(true);
    expect(stages).toEqual(["lettering", "holders", "weld", "measure", "joints", "judge", "report"]);
    const { skeleton, thinnest } = examine(piece, library, { skeleton: true, thinnest: true });
    expect(skeleton!.length % 6).toBe(0);
    expect(skeleton!.every(Number.isFinite)).toBe(true);
    expect(thinnest).toBeGreaterThan(0.5);
  });
});
