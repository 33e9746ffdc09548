/**
 * Jobs of the trade from the word to the file, each in few actions: a press, or a figure or a word typed, is one. (A bound of our own.)
 */
import { expect, type Locator, type Page, test } from "@playwright/test";

const MOST = 12;
const verdict = (page: Page) => page.getByTestId("verdict");
const holds = (page: Page) => expect(verdict(page)).toContainText("Everything holds.");

/** Counts what is done. */
class Maker {
  actions = 0;
  constructor(readonly page: Page) {}

  async press(target: Locator, at?: { x: number; y: number }): Promise<void> {
    this.actions++;
    await target.click(at ? { position: at } : {});
  }

  pressButton = (name: string | RegExp) => this.press(this.page.getByRole("button", { name }).first());

  async type(field: Locator, text: string): Promise<void> {
    this.actions++;
    await field.fill(text);
    await field.press("Enter");
  }

  typeInto = (label: string, text: string) => this.type(this.page.getByRole("textbox", { name: label, exact: true }), text);

  /** Opens a choice of the sentence and takes one of its cards. */
  async choose(choice: string, option: RegExp): Promise<void> {
    await this.pressButton(new RegExp(`^${choice}: `));
    await this.press(this.page.getByRole("radiogroup", { name: choice }).getByRole("radio", { name: option }));
  }

  /** @returns the cut file */
  async takeFile(): Promise<string> {
    await this.press(this.page.getByRole("link", { name: "To the cutter" }));
    const [download] = await Promise.all([this.page.waitForEvent("download"), this.pressButton("SVG true curves")]);
    const chunks: Buffer[] = [];
    for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
    expect(this.actions).toBeLessThanOrEqual(MOST);
    return Buffer.concat(chunks).toString();
  }
}

async function begin(page: Page, words: readonly string[], kind: RegExp): Promise<Maker> {
  await page.goto("/new");
  const maker = new Maker(page);
  const fields = page.getByRole("textbox");
  for (const [i, word] of words.entries()) {
    maker.actions++;
    await fields.nth(i).fill(word);
  }
  await maker.pressButton(kind);
  await expect(verdict(page)).toContainText("wants");
  return maker;
}

/** Outlines that are cut: each begins with a move. */
const outlines = (svg: string) => (/<g id="cut"[\s\S]*?<\/g>/.exec(svg)?.[0].match(/\bM/g) ?? []).length;

test("dots lowered until they bite", async ({ page }) => {
  await page.goto("/new");
  const maker = new Maker(page);
  await maker.pressButton("Start empty");
  await maker.typeInto("Word or line", "Kittiwake");
  await expect(verdict(page)).toContainText("fall off");
  await maker.choose("Dots and accents", /lowered/);
  await holds(page);
  expect(outlines(await maker.takeFile())).toBeGreaterThan(0);
});

test("a surname as a key ring: letters overlapped, a loop 12/5 at the first", async ({ page }) => {
  await page.goto("/new");
  const maker = new Maker(page);
  await maker.pressButton("Start empty");
  await maker.typeInto("Word or line", "Marrow");
  await maker.pressButton("More about the line Marrow");
  await maker.choose("Letters stand", /overlapped/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton("Add a holder or shape");
  await maker.press(page.getByRole("menuitem", { name: /^Loop/ }));
  await maker.pressButton(/^Size: .*across/);
  await maker.typeInto("Hole", "5");
  await holds(page);
  expect(await maker.takeFile()).toContain("<path");
});

test("a plant stake, scaled to 3.5 in as a whole", async ({ page }) => {
  const maker = await begin(page, ["dill"], /^Plant stake/);
  await maker.press(page.getByTestId("finished-size"));
  await maker.typeInto("Finished width", "3.5 in");
  await expect(page.getByTestId("finished-size")).toContainText("88.9");
  expect(await maker.takeFile()).toContain("<path");
});

test("a stacked pair of earrings", async ({ page }) => {
  const maker = await begin(page, ["Kit"], /^Stacked earrings/);
  const cut = outlines(await maker.takeFile());
  expect(cut).toBeGreaterThan(0);
  expect(cut % 2).toBe(0);
});

test("two lines under one backing, with a ring 12/8", async ({ page }) => {
  const maker = await begin(page, ["Skerrow", "ferry"], /^Two-line key ring/);
  const loop = (await page.locator("[data-solid='loop']").last().boundingBox())!;
  await maker.press(page.locator("[data-solid='loop']").last(), { x: 4, y: loop.height / 2 });
  await maker.pressButton(/^Size: .*across/);
  await maker.typeInto("Hole", "8");
  await holds(page);
  expect(await maker.takeFile()).toContain('<g id="engrave"');
});

test("a nameplate whose face is changed twice", async ({ page }) => {
  const maker = await begin(page, ["HARBOUR"], /^Nameplate on a bar/);
  await maker.pressButton(/^2 Lettering/);
  for (const face of [/^Archivo Black/, /^Anton/]) {
    await maker.pressButton("Choose from the shelf");
    await maker.pressButton(face);
    await maker.pressButton("Back to the piece");
  }
  await holds(page);
  expect(await maker.takeFile()).toContain("<path");
});
