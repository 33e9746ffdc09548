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
  const wishes = fc.array(fc.record({ x: fc.integer({ min: 30, max: 370 }), y: fc.integer({ min: 20, max: 260 }) }), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(wishes, (middles) => {
      // Each may also stand in a column of its own, below all others.
      const placed = placeLabels(
        middles.map((place, i) => ({ places: [place, { x: 25 + 48 * i, y: 290 }], width: 40, height: 18 })),
        { width: 400, height: 320 },
      );
      return placed.every((one, i) =>
        placed.slice(0, i).every((other) => Math.abs(one.x - other.x) >= 40 || Math.abs(one.y - other.y) >= 18),
      );
    }),
    { seed },
  );
});
