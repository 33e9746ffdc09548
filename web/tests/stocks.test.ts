import { SHELF, type ShelfSheet } from "@mend-joint/core/piece";
import { afterEach, beforeEach, expect, it, vi } from "vitest";

interface Sent {
  stock: { name: string; leastWidth: number; kerf: number; colour?: string };
  keepalive: boolean | undefined;
  answer(): void;
}
const sent: Sent[] = [];
/** Questions for all sheets. */
const asked: { answer(sheets: readonly ShelfSheet[]): void }[] = [];
let endPage: () => void;
let comeBack: () => void;
let stocks: typeof import("../state/stocks");

beforeEach(async () => {
  sent.length = 0;
  asked.length = 0;
  vi.resetModules();
  vi.stubGlobal("window", {
    addEventListener: (event: string, heard: () => void) => {
      if (event === "focus") comeBack = heard;
      else endPage = heard;
    },
  });
  vi.stubGlobal(
    "fetch",
    (_: string, { body, keepalive }: RequestInit) =>
      new Promise<Response>((resolve) =>
        body
          ? sent.push({ ...JSON.parse(body as string), keepalive, answer: () => resolve(Response.json({})) })
          : asked.push({ answer: (sheets) => resolve(Response.json({ sheets, own: [] })) }),
      ),
  );
  stocks = await import("../state/stocks");
});
afterEach(() => vi.unstubAllGlobals());

const [first, second] = SHELF;
const shown = (id: string) => stocks.useStockShelf.getState().sheets.find((sheet) => sheet.id === id)!;
const change = (id: string, stock: object) => stocks.saveSheet({ ...shown(id), stock: { ...shown(id).stock, ...stock } });
const widthAndCut = () => sent.map(({ stock }) => [stock.leastWidth, stock.kerf]);

/** The first is under way before the others are made. */
async function inTurn(...makes: (() => Promise<void>)[]): Promise<Promise<void>[]> {
  const [begin, ...others] = makes;
  const begun = begin!();
  await vi.waitFor(() => expect(sent).toHaveLength(1));
  return [begun, ...others.map((make) => make())];
}

it("a second change is made on top of the first, before that is answered, and reaches the server after it", async () => {
  const changes = await inTurn(
    () => change(first!.id, { leastWidth: 2.2 }),
    () => change(first!.id, { kerf: 0.3 }),
  );
  expect(shown(first!.id).stock).toMatchObject({ leastWidth: 2.2, kerf: 0.3 });
  expect(sent).toHaveLength(1);
  sent[0]!.answer();
  await changes[0];
  await vi.waitFor(() => expect(sent).toHaveLength(2));
  sent[1]!.answer();
  await changes[1];
  expect(widthAndCut()).toEqual([
    [2.2, first!.stock.kerf],
    [2.2, 0.3],
  ]);
});

it("when the page ends, what waits is sent at once, the last of each sheet, and outlives the page", async () => {
  const changes = await inTurn(
    () => change(first!.id, { leastWidth: 2.2 }),
    () => change(first!.id, { leastWidth: 2.4 }),
    () => change(second!.id, { kerf: 0.25 }),
    () => change(first!.id, { kerf: 0.3 }),
  );
  endPage();
  expect(widthAndCut()).toEqual([
    [2.2, first!.stock.kerf],
    [second!.stock.leastWidth, 0.25],
    [2.4, 0.3],
  ]);
  expect(sent.every(({ keepalive }) => keepalive)).toBe(true);
  // A page that comes back goes on as if nothing had been.
  for (const { answer } of sent) answer();
  await Promise.all(changes);
  expect(sent).toHaveLength(3);
});

it("of many changes while one is under way only the last is sent: a colour that is looked for", async () => {
  const changes = await inTurn(
    ...["#102030", "#203040", "#304050", "#405060"].map((colour) => () => change(first!.id, { colour })),
  );
  sent[0]!.answer();
  await vi.waitFor(() => expect(sent).toHaveLength(2));
  sent[1]!.answer();
  await Promise.all(changes);
  expect(sent.map(({ stock }) => stock.colour)).toEqual(["#102030", "#405060"]);
});

const withWidth = (leastWidth: number) => SHELF.map((sheet) => ({ ...sheet, stock: { ...sheet.stock, leastWidth } }));

/** The next question for all sheets, once it is asked. */
async function nextAsked() {
  await vi.waitFor(() => expect(asked).toHaveLength(1));
  return asked.shift()!;
}

it("what another window has changed is shown when the maker comes back to this one", async () => {
  stocks.useStockShelf.setState({ fetched: true });
  comeBack();
  comeBack();
  (await nextAsked()).answer(withWidth(2.9));
  await vi.waitFor(() => expect(shown(first!.id).stock.leastWidth).toBe(2.9));
  // Asked twice at once, it is sent once.
  expect(asked).toHaveLength(0);
});

it("is asked for after the changes made here; an answer that does not know one of them is not shown, and asked again", async () => {
  stocks.useStockShelf.setState({ fetched: true });
  const [done] = await inTurn(() => change(first!.id, { leastWidth: 2.2 }));
  comeBack();
  expect(asked).toHaveLength(0);
  sent[0]!.answer();
  await done;
  const early = await nextAsked();
  const later = change(first!.id, { leastWidth: 2.4 });
  early.answer(withWidth(2.9));
  await vi.waitFor(() => expect(sent).toHaveLength(2));
  expect(shown(first!.id).stock.leastWidth).toBe(2.4);
  sent[1]!.answer();
  await later;
  (await nextAsked()).answer(withWidth(2.6));
  await vi.waitFor(() => expect(shown(first!.id).stock.leastWidth).toBe(2.6));
});
