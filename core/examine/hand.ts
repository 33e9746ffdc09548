/**
 * What a piece must bear in the hand, where that is a rule of its verdict.
 */
import { boxDistance, boxOfPoint, type Point, regionBox, regionContains } from "../geometry";
import type { Finding, FindingOf } from "../judge";
import { lostToCut, type Piece } from "../piece";
import { createLoadTest, type LetterLoad, type LoadTester, StrengthError, type UseLoad, usesThatCount } from "../strength";
import type { Examination } from "./examination";
import type { Solid } from "./solids";
import { remark } from "./words";

type GivesWay = FindingOf<"gives-way">;

/** One finding for each place that breaks at less than it gets, the weakest first. */
export function judgeHand(piece: Piece, examination: Examination): { findings: Finding[]; tester?: LoadTester } {
  // What falls is told; nothing of it is in anybody's hand.
  if (!examination.cutouts.some(({ falls }) => !falls)) return { findings: [] };
  let tester: LoadTester;
  try {
    tester = createLoadTest(piece, examination);
  } catch (error) {
    if (!(error instanceof StrengthError)) throw error;
    const { centre } = examination;
    return { findings: [remark("untested", [], centre ?? { x: 0, y: 0 }, "weak", { why: error.message })] };
  }
  const { test } = tester;
  const loads = [...test.letters, ...usesThatCount(test)]
    .filter(({ takes, force }) => takes < force)
    .sort((a, b) => a.takes / a.force - b.takes / b.force);
  const findings: GivesWay[] = [];
  for (const load of loads) {
    const found = givesWay(load, examination, lostToCut(piece));
    // Letters that break at one place are one finding.
    const same = findings.find(
      ({ at, width, letters }) =>
        letters.length > 0 && found.letters.length > 0 && distance(at, found.at) < Math.max(width, found.width),
    );
    if (!same) {
      findings.push(found);
      continue;
    }
    same.wanted = Math.max(same.wanted, found.wanted);
    same.letters.push(...found.letters);
    same.parts.push(...found.parts.filter((id) => !same.parts.includes(id)));
  }
  return { findings, tester };
}

function givesWay(load: LetterLoad | UseLoad, { solids, letters, holds }: Examination, lost: number): GivesWay {
  const { takes, force, breaks } = load;
  const width = breaks.width + lost;
  const there = solids.filter(({ region }, i) => !holds[i]!.falls && regionContains(region, breaks.x, breaks.y));
  const letter = "id" in load ? letters.find(({ id }) => id === load.id) : undefined;
  const hanging = letter?.solids.map((i) => solids[i]!) ?? [];
  const nearest = there.length + hanging.length > 0 ? [] : nearestTo(breaks, solids);
  const place = [there, hanging, nearest].find((some) => some.length > 0)!.map(({ id }) => id);
  const half = { x: (-breaks.along.y * width) / 2, y: (breaks.along.x * width) / 2 };
  return {
    kind: "gives-way",
    parts: [...new Set([...place, ...hanging.map(({ id }) => id)])],
    meeting: place.length,
    at: { x: breaks.x, y: breaks.y },
    width,
    chord: {
      from: { x: breaks.x - half.x, y: breaks.y - half.y },
      to: { x: breaks.x + half.x, y: breaks.y + half.y },
    },
    means: "weak",
    wanted: load.wanted + lost,
    takes,
    force,
    load: "id" in load ? load.direction : load.kind,
    letters: "id" in load ? [load.id] : [],
  };
}

/** Where no part has the place itself, as in a crack between two that was closed. */
function nearestTo({ x, y }: Point, solids: readonly Solid[]): Solid[] {
  const away = ({ region }: Solid) => {
    const box = regionBox(region);
    return box ? boxDistance(box, boxOfPoint({ x, y })) : Infinity;
  };
  return [...solids].sort((a, b) => away(a) - away(b)).slice(0, 1);
}

const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
