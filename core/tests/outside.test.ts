/**
 * Sixty random pieces and heaps, a fresh lot in every run, against Shapely (GEOS), ezdxf and poppler. More by `npm run test:random`.
 */
import { expect, it } from "vitest";
import { disagreements } from "./outside";
import { freshSeed } from "./seed";

it("verdicts, holds and files of random pieces are those that other libraries find", async () => {
  expect(await disagreements(freshSeed("random pieces"), 60)).toEqual([]);
}, 600_000);
