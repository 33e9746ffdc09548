import type { Examination } from "@mend-joint/core";
import { demoPiece } from "@mend-joint/demo";
import { expect, it } from "vitest";
import { createRackExaminer } from "../state/rack";

const stored = (id: string, version = 1) => ({
  id,
  version,
  save: null,
  updatedAt: "2026-05-01T08:00:00Z",
  piece: { ...demoPiece("harbour-office"), name: id },
});

/** An examiner that answers when it is told to. */
function slowExaminer() {
  const asked: string[] = [];
  const answers: ((examination: Examination) => void)[] = [];
  const examiner = createRackExaminer((piece) => {
    asked.push(piece.name);
    return new Promise((resolve) => answers.push(resolve));
  });
  const answer = async () => {
    answers.shift()!({ verdict: "holds" } as Examination);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { ...examiner, asked, answer };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

it("one piece after the other is examined, those in sight first", async () => {
  const { ask, asked, answer } = slowExaminer();
  const told: string[] = [];
  for (const [id, inSight] of [
    ["a", false],
    ["b", true],
    ["c", false],
    ["d", true],
  ] as const)
    ask({ stored: stored(id), inSight, tell: () => told.push(id) });
  await settled();
  expect(asked).toEqual(["b"]);
  for (let k = 0; k < 4; k++) await answer();
  expect(told).toEqual(["b", "d", "a", "c"]);
});

it("when the maker has gone on, nothing more is begun", async () => {
  const { ask, asked, answer } = slowExaminer();
  const leave = ["a", "b", "c"].map((id) => ask({ stored: stored(id), inSight: true, tell: () => {} }));
  await settled();
  for (const each of leave) each();
  await answer();
  expect(asked).toEqual(["a"]);
});

it("what is known is not examined again until it is saved anew", async () => {
  const { ask, asked, answer, known } = slowExaminer();
  const leave = ask({ stored: stored("a"), inSight: false, tell: () => {} });
  await settled();
  // It comes into sight while it is being examined.
  leave();
  let told = 0;
  ask({ stored: stored("a"), inSight: true, tell: () => told++ });
  await answer();
  expect([asked, told]).toEqual([["a"], 1]);
  expect(known(stored("a"))).toMatchObject({ verdict: "holds" });
  expect(known(stored("a", 2))).toBeNull();
});

it("one that cannot be examined does not hold up the others", async () => {
  const told: string[] = [];
  const { ask } = createRackExaminer(async ({ name }) => {
    if (name === "a") throw new Error("broken off");
    return { verdict: "holds" } as Examination;
  });
  for (const id of ["a", "b"]) ask({ stored: stored(id), inSight: true, tell: () => told.push(id) });
  await settled();
  expect(told).toEqual(["b"]);
});
