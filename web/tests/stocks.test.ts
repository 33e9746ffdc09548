import { SHELF } from "@mend-joint/core/piece";
import { expect, it, vi } from "vitest";
import { saveSheet, useStockShelf } from "../state/stocks";

it("a second change is made on top of the first, before that is answered, and reaches the server after it", async () => {
  const bodies: { stock: { leastWidth: number; kerf: number } }[] = [];
  const answers: (() => void)[] = [];
  vi.stubGlobal("fetch", (_: string, init: RequestInit) => {
    bodies.push(JSON.parse(init.body as string));
    return new Promise<Response>((resolve) => answers.push(() => resolve(Response.json({}))));
  });
  const id = SHELF[0]!.id;
  const shown = () => useStockShelf.getState().sheets.find((sheet) => sheet.id === id)!;
  const change = (stock: object) => saveSheet({ ...shown(), stock: { ...shown().stock, ...stock } });
  const [first, second] = [change({ leastWidth: 2.2 }), change({ kerf: 0.3 })];
  expect(shown().stock).toMatchObject({ leastWidth: 2.2, kerf: 0.3 });
  await vi.waitFor(() => expect(answers).toHaveLength(1));
  answers[0]!();
  await first;
  await vi.waitFor(() => expect(answers).toHaveLength(2));
  answers[1]!();
  await second;
  expect(bodies.map(({ stock }) => [stock.leastWidth, stock.kerf])).toEqual([
    [2.2, SHELF[0]!.stock.kerf],
    [2.2, 0.3],
  ]);
  vi.unstubAllGlobals();
});
