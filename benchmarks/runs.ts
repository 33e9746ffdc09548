/**
 * A long list through one design: until the first ten verdicts, until all, with mending, and again after the design has changed.
 */
import { randomUUID } from "node:crypto";
import { STARTERS } from "@mend-joint/core/piece";
import { type KeptDesign, readList, USUAL_CHOICES } from "@mend-joint/core/runs";
import { REGATTA_CREW } from "@mend-joint/demo/crew";
import { startCrew } from "../server/jobs/crew";
import { openPool } from "../server/jobs/pool";
import { openQueue } from "../server/jobs/queue";
import { openDatabase } from "../server/store/database";
import { changeRun, createRun, tallyOf } from "../server/store/runs";
import { type Bar, stopwatch } from "./clock";

const COUNT = 1000;
/** Two lines and a bar; many of the names do not reach it. */
const design = (bar: number): KeptDesign => {
  const piece = STARTERS.find(({ id }) => id === "topper")!.make(["Name"], false);
  const [word, stick] = piece.parts as [(typeof piece.parts)[0], (typeof piece.parts)[0]];
  const below = { ...word, id: "w2", text: "Skerrow", at: { x: 0, y: -44 } };
  return {
    piece: {
      ...piece,
      parts: [word, below as typeof word, { kind: "bar", id: "bar", height: bar, overlap: 3 } as typeof word, stick],
    },
  };
};

export async function runs(bar: Bar): Promise<void> {
  const store = await openDatabase(":memory:");
  const pool = openPool();
  pool.warm();
  const crew = startCrew(store.db, await openQueue(store.db, { log: console.error, alone: true }), pool, console.error);
  const list = Array.from(
    { length: COUNT },
    (_, i) => `${REGATTA_CREW[i % REGATTA_CREW.length]}${"abcdefghijklmnopqrstuvwxyz"[Math.floor(i / REGATTA_CREW.length)]}`,
  );
  const { rows } = readList(list.join("\n"), 1);
  const until = async (id: string, most: number) => {
    // Asking takes time from those that work.
    const pause = most > 0 ? 50 : 400;
    while ((await tallyOf(store.db, id)).due > most) await new Promise((resolve) => setTimeout(resolve, pause));
  };
  const run = async (mend: boolean) => {
    const id = randomUUID();
    await createRun(store.db, { id, name: "Crew", design: design(6), choices: { ...USUAL_CHOICES, mend }, rows });
    const seconds = stopwatch();
    const start = performance.now();
    await crew.begin(id);
    await until(id, COUNT - 10);
    const ten = performance.now() - start;
    await until(id, 0);
    const took = performance.now() - start;
    const all = seconds();
    return { id, ten: (all * ten) / took, all };
  };
  // The threads are there before the maker presses the button.
  await run(false).then(({ id }) => until(id, 0));
  const plain = await run(false);
  bar("first ten of 1,000 names", plain.ten, 1, "s");
  bar("1,000 names examined", plain.all, 30, "s");
  const tally = await tallyOf(store.db, plain.id);
  console.log(
    `  ${tally.holds} hold, ${tally.weak} weak, ${tally.falls} fall; ${Math.round(process.memoryUsage().rss / 1e6)} MB in all`,
  );
  const seconds = stopwatch();
  await changeRun(store.db, plain.id, { design: design(9) });
  await crew.begin(plain.id);
  await until(plain.id, 0);
  bar("1,000 names again with another bar", seconds(), 30, "s");
  const mended = await run(true);
  bar("1,000 names examined and mended", mended.all, 90, "s");
  await Promise.all([pool.close(), crew.stop()]);
  await store.close();
}
