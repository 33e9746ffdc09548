/**
 * Lines that bite into each other.
 */
import { type Region, regionBox, translateRegion } from "../geometry";
import { biteShift } from "./dots";
import type { WordLayout } from "./layout";
import type { Letter } from "./letters";

/** A word brought up or down to the words before it until the widest joint with them is as wide as asked, mm. */
export function broughtTo(layout: WordLayout, before: readonly WordLayout[], joint: number): WordLayout {
  const [above, own] = [before.flatMap(outlines), outlines(layout)];
  if (above.length === 0 || own.length === 0) return layout;
  // From a place where the two are surely apart, so that it does not matter where the line stood.
  const [far, near] = [regionBox(above)!, regionBox(own)!];
  const below = near.minY + near.maxY <= far.minY + far.maxY;
  const start = below ? far.minY - near.maxY - 1 : far.maxY - near.minY + 1;
  return moveLayout(layout, start + biteShift(above, translateRegion(own, 0, start), joint));
}

const outlines = ({ letters }: WordLayout): Region => letters.flatMap(({ islands }) => islands.flatMap(({ region }) => region));

function moveLayout(layout: WordLayout, dy: number): WordLayout {
  const { box, line, secondRing, ring } = layout;
  return {
    ...layout,
    letters: layout.letters.map((letter) => moveLetterBy(letter, dy)),
    box: box && { ...box, minY: box.minY + dy, maxY: box.maxY + dy },
    baseline: layout.baseline + dy,
    secondRing: secondRing && { ...secondRing, middle: { ...secondRing.middle, y: secondRing.middle.y + dy } },
    ring: ring && { ...ring, middle: { ...ring.middle, y: ring.middle.y + dy } },
    line: line && { ...line, points: line.points.map((value, i) => (i % 2 === 1 ? value + dy : value)) },
  };
}

function moveLetterBy(letter: Letter, dy: number): Letter {
  const up = <P extends { y: number }>(point: P): P => ({ ...point, y: point.y + dy });
  return {
    ...letter,
    origin: up(letter.origin),
    foot: up(letter.foot),
    stand: up(letter.stand),
    free: translateRegion(letter.free, 0, dy),
    islands: letter.islands.map((island) => ({
      ...island,
      region: translateRegion(island.region, 0, dy),
      pole: island.pole && up(island.pole),
    })),
  };
}
