import fc from "fast-check";
import { expect, it } from "vitest";
import { freshSeed } from "../../core/tests/seed";
import { placeLabels } from "./labels";

const within = { width: 400, height: 300 };

it("the first label stands where it wants to, the next one beside it", () => {
  const places = [
    { x: 100, y: 100 },
    { x: 100, y: 130 },
  ];
  const wish = { places, width: 40, height: 18 };
  expect(placeLabels([wish, wish], within)).toEqual(places);
});

it("none stands beyond the edge where it has another place", () => {
  const places = [
    { x: 5, y: 4 },
    { x: 60, y: 40 },
  ];
  expect(placeLabels([{ places, width: 40, height: 18 }], within)).toEqual([places[1]]);
});

it("labels with room enough never lie on each other", () => {
  const seed = freshSeed("labels");
  const wishes = fc.array(fc.record({ x: fc.integer({ min: 30, max: 370 }), y: fc.integer({ min: 20, max: 280 }) }), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(wishes, (middles) => {
      // Each may also stand in a column of its own, where nobody else wants to be.
      const placed = placeLabels(
        middles.map((place, i) => ({ places: [place, { x: 25 + 48 * i, y: 290 }], width: 40, height: 18 })),
        { width: 400, height: 320 },
      );
      for (let i = 0; i < placed.length; i++) {
        for (let k = 0; k < i; k++) {
          const free = Math.abs(placed[i]!.x - placed[k]!.x) >= 40 || Math.abs(placed[i]!.y - placed[k]!.y) >= 18;
          if (!free) return placed[i]!.y === 290 || placed[k]!.y === 290;
        }
      }
      return true;
    }),
    { seed },
  );
});
