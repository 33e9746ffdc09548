import { readList, refuseRow, USUAL_CHOICES } from "@mend-joint/core/runs";
import { expect, it } from "vitest";
import { openDatabase } from "../store/database";
import { createRun, type RowResult, rowsSince, tallyOf } from "../store/runs";
import { dataFolder } from "../tests/folder";
import { startCrew } from "./crew";
import type { Pool } from "./pool";
import { openQueue } from "./queue";
import type { Task } from "./tasks";

/** Threads that end on one name. */
function fragile(bomb: string): Pool & { asked: number } {
  return {
    width: 2,
    closed: false,
    asked: 0,
    warm: () => {},
    close: async () => {},
    run: async function (this: { asked: number }, task: Task) {
      if (task.does !== "rows") throw new Error("only rows are asked for here");
      this.asked++;
      if (task.rows.some(({ texts }) => texts[0] === bomb)) throw new Error("Worker terminated due to reaching memory limit");
      return task.rows.map(
        ({ number, texts, font }): RowResult => ({
          number,
          texts,
          font,
          pieceVersion: null,
          madeOf: texts[0]!,
          made: { document: null, facts: { ...refuseRow(texts, ""), verdict: "holds" }, shape: null },
        }),
      );
    } as never,
  };
}

it("a name that takes its thread with it is told; the others of its batch are made, and it is not tried again and again", async () => {
  const { db, close } = await openDatabase(dataFolder());
  const pool = fragile("Zoë");
  const crew = startCrew(db, await openQueue(db, { log: () => {}, alone: true }), pool, () => {});
  const { rows } = readList("Kit\nIvy\nZoë\nIlse\nTijn", 1);
  await createRun(db, { id: "r", name: "Crew", design: { starter: "topper" }, choices: USUAL_CHOICES, rows });
  await crew.begin("r");
  while ((await tallyOf(db, "r")).due > 0) await new Promise((resolve) => setTimeout(resolve, 20));
  const made = await rowsSince(db, "r", 0);
  expect(made.map(({ facts }) => facts?.verdict)).toEqual(["holds", "holds", "not made", "holds", "holds"]);
  expect(made[2]!.facts?.refused).toContain("more memory or time");
  expect(pool.asked).toBe(1 + rows.length);
  await crew.stop();
  await close();
});
