/**
 * Jobs of the trade from the word to the file, each in few actions: a press, or a figure or a word typed, is one. (A bound of our own.)
 */
import type { Locator, Page } from "@playwright/test";
import { expect, test } from "./test";

const MOST = 12;
/** Of jobs with many parts. */
const MOST_OF_MANY = 20;
const verdict = (page: Page) => page.getByTestId("verdict");
/** The piece as it is now, not as it was a moment ago. */
const holds = (page: Page) => expect(page.locator("[data-testid=verdict][aria-busy=false]")).toContainText("Everything holds.");

/** Counts what is done. */
class Maker {
  actions = 0;
  constructor(
    readonly page: Page,
    readonly most = MOST,
  ) {}

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

  /** @returns a file: the one for the cutter when no other is named */
  async takeFile(name: string | RegExp = "SVG true curves"): Promise<string> {
    await this.press(this.page.getByRole("link", { name: "To the cutter" }));
    return (await this.takeNow(name)).text;
  }

  /** On the cutter's page. */
  async takeNow(name: string | RegExp = "SVG true curves"): Promise<{ name: string; text: string }> {
    const [download] = await Promise.all([this.page.waitForEvent("download"), this.pressButton(name)]);
    const chunks: Buffer[] = [];
    for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
    expect(this.actions).toBeLessThanOrEqual(this.most);
    return { name: download.suggestedFilename(), text: Buffer.concat(chunks).toString() };
  }
}

async function begin(page: Page, words: readonly string[], kind: RegExp, most = MOST): Promise<Maker> {
  await page.goto("/new");
  const maker = new Maker(page, most);
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

test("dots tied at 60° with 2.5 mm", async ({ page }) => {
  await page.goto("/new");
  const maker = new Maker(page);
  await maker.pressButton("Start empty");
  await maker.typeInto("Word or line", "Kittiwake");
  await maker.choose("Dots and accents", /at a slant/);
  await maker.typeInto("Width of the ties", "2.5");
  await maker.press(page.getByRole("radio", { name: "at an angle" }));
  await maker.typeInto("Their angle", "60");
  await expect(page.getByRole("button", { name: "Dots and accents: tied at 60°, 2.5 mm wide" })).toBeVisible();
  await holds(page);
  expect(outlines(await maker.takeFile())).toBeGreaterThan(0);
});

test("a plant stake with another form of a letter, scaled to 3.5 in as a whole", async ({ page }) => {
  const maker = await begin(page, ["dill"], /^Plant stake/);
  await maker.pressButton(/^the d,/);
  await maker.pressButton(/^Form 2 of/);
  await page.keyboard.press("Escape");
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
  // Acrylic wants a wider wall than 2 mm where the cut takes some of it; plywood does with it.
  await maker.press(page.getByRole("button", { name: /joints from/ }));
  await maker.press(page.getByRole("menuitem", { name: /^birch 3/ }));
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

test("a flat stake 7 in long, clear to the right of the letters", async ({ page }) => {
  const maker = await begin(page, ["mint"], /^Flat stake/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton(/^Clear space: /);
  await maker.press(page.getByRole("radio", { name: "at the right" }));
  await maker.pressButton(/^Point: /);
  await maker.press(page.getByRole("radio", { name: "the whole length" }));
  await maker.typeInto("Whole length", "7 in");
  await holds(page);
  await expect(page.getByTestId("finished-size")).toContainText("177.8");
  expect(await maker.takeFile()).toContain("<path");
});

test("a joined script topper, its stick under the centre of mass, then retyped", async ({ page }) => {
  const maker = await begin(page, ["Ffion"], /^Topper/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton(/^Place: under the middle/);
  await maker.press(page.getByRole("radio", { name: "the centre of mass" }));
  await maker.pressButton(/^1 Words/);
  await maker.typeInto("Word or line", "Wilhelmina");
  await holds(page);
  await expect(page.getByRole("region", { name: "Findings" })).not.toContainText("lean");
  expect(await maker.takeFile()).toContain("<path");
});

test("a word for the scroll saw, its letters joined by a measured joint, on a paper pattern", async ({ page }) => {
  await page.goto("/new");
  const maker = new Maker(page);
  await maker.pressButton("Start empty");
  await maker.typeInto("Word or line", "Anchor");
  await maker.pressButton("More about the line Anchor");
  await maker.choose("Letters stand", /joined/);
  await maker.typeInto("Joint width", "4");
  await maker.press(page.getByRole("button", { name: /joints from/ }));
  await maker.press(page.getByRole("menuitem", { name: /^walnut 6 mm/ }));
  await expect(verdict(page)).toContainText("walnut 6 mm wants 3.0 mm");
  // Its strokes are too thin for the saw: the word has to be larger.
  await maker.pressButton(/^Size: /);
  await maker.typeInto("Capitals", "48");
  await holds(page);
  expect(await maker.takeFile(/^Paper pattern/)).toContain("%PDF");
});

test("a split ring of 80 mm, its word made wider, an ornament joined", async ({ page }) => {
  const maker = await begin(page, ["oyster"], /^Ring sign/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton(/^Size: .*all round/);
  await maker.press(page.getByRole("radio", { name: "its own" }));
  await maker.typeInto("Outer diameter", "80");
  await maker.pressButton("Add a holder or shape");
  await maker.press(page.getByRole("menuitem", { name: /^Ornament/ }));
  await maker.press(page.getByRole("menuitem", { name: "heart", exact: true }));
  await expect(page.getByText("It was put where it joins most.")).toBeVisible();
  await holds(page);
  expect(await maker.takeFile()).toContain("<path");
});

test("words on a round plate 80/36, turned by hand", async ({ page }) => {
  const maker = await begin(page, ["harbour and quay"], /^Round plate/);
  await holds(page);
  await maker.press(page.locator("[data-solid='w1:k4']").last());
  const handle = (await page.locator("[data-turn]").boundingBox())!;
  maker.actions++;
  await page.mouse.move(handle.x + 8, handle.y + 8);
  await page.mouse.down();
  await page.mouse.move(handle.x + 20, handle.y + 14, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole("button", { name: /^Undo/ })).toBeEnabled();
  expect(await maker.takeFile()).toContain('<g id="engrave"');
});

test("six words between two rings, kept as a beginning and used again", async ({ page }) => {
  const maker = await begin(page, ["TIDE WIND SAND KELP FOAM GULL"], /^Words between two rings/);
  await expect(verdict(page)).not.toContainText("fall");
  const name = `Six words ${Date.now()}`;
  await maker.type(page.getByLabel("Name of the piece"), name);
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await maker.press(page.getByRole("link", { name: "Back to the rack" }));
  await maker.pressButton(`What to do with ${name}`);
  await maker.press(page.getByRole("menuitem", { name: "Keep as a beginning" }));
  await expect(page.getByText("It stands among your own beginnings")).toBeVisible();
  await maker.press(page.getByRole("button", { name: "New piece", exact: true }));
  maker.actions++;
  await page.getByLabel("Your word").fill("SALT RAIN MOON STAR SURF DUNE");
  await maker.press(page.getByRole("region", { name: "Your own beginnings" }).getByRole("button", { name: new RegExp(name) }));
  await expect(page.getByLabel("Word or line")).toHaveValue("SALT RAIN MOON STAR SURF DUNE");
  expect(await maker.takeFile()).toContain("<path");
});

test("a word in the 18 mm gap of a ring of 100 mm, all its letters touching", async ({ page }) => {
  const maker = await begin(page, ["SKERROW"], /^Ring sign/);
  await maker.choose("Letters stand", /joined/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton(/^Size: .*all round/);
  await maker.press(page.getByRole("radio", { name: "its own" }));
  await maker.typeInto("Outer diameter", "100");
  await maker.pressButton(/^Made as: /);
  await maker.typeInto("Gap between the bars", "18");
  await holds(page);
  await expect(page.getByRole("textbox", { name: "Gap between the bars" })).toHaveValue("18");
  expect(await maker.takeFile()).toContain("<path");
});

test("earrings of three angled letters, a star in the place of a counter, their edges scored, as a pair", async ({ page }) => {
  const maker = await begin(page, ["Oda"], /^Stacked earrings/, MOST_OF_MANY);
  await maker.pressButton(/^The word is: /);
  await maker.press(page.getByRole("radio", { name: "their edge is scored" }));
  for (const [letter, turn] of [
    ["O", "-12"],
    ["D", "10"],
    ["A", "-8"],
  ] as const) {
    await maker.pressButton(new RegExp(`^the ${letter},`));
    await maker.typeInto("Turned", turn);
  }
  await maker.pressButton(/^the O,/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton("Add a holder or shape");
  await maker.press(page.getByRole("menuitem", { name: /^Ornament/ }));
  await maker.press(page.getByRole("menuitem", { name: "star", exact: true }));
  await expect(page.getByText("It stands in the place of the counter")).toBeVisible();
  await holds(page);
  const svg = await maker.takeFile();
  expect(svg).toContain('<g id="score"');
  expect(outlines(svg) % 2).toBe(0);
});

test("three names on a backing that is wider than the beginning has it", async ({ page }) => {
  const maker = await begin(page, ["Isolde"], /^Key ring/);
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton(/^Size: .*larger than the letters/);
  await maker.typeInto("Larger than the letters by", "5.6");
  await maker.press(page.getByRole("link", { name: "To the cutter" }));
  const files = [await maker.takeNow()];
  for (const next of ["Ffion", "Kit"]) {
    await maker.type(page.getByLabel("The word"), next);
    files.push(await maker.takeNow());
  }
  expect(files.map(({ name }) => name)).toEqual(["isolde.svg", "ffion.svg", "kit.svg"]);
  expect(new Set(files.map(({ text }) => text)).size).toBe(3);
});

/** The ornaments that are drawn, by their ids. */
async function ornaments(page: Page): Promise<Set<string | null>> {
  const ids = await page
    .locator("[data-solid^='ornament']")
    .evaluateAll((all) => all.map((one) => one.getAttribute("data-solid")));
  return new Set(ids);
}

test("a topper of two lines 8 in wide, tied twice, two stars that bridge", async ({ page }) => {
  const maker = await begin(page, ["Isolde"], /^Topper/, MOST_OF_MANY);
  await maker.pressButton("Add a line");
  await maker.type(page.getByLabel("Word or line").last(), "Kittiwake");
  await maker.press(page.getByTestId("finished-size"));
  await maker.typeInto("Finished width", "8 in");
  await expect(page.getByTestId("finished-size")).toContainText("203.2");
  await maker.pressButton(/^3 Holders/);
  await maker.press(page.getByRole("radio", { name: "two" }));
  await maker.pressButton("Tie the pieces together");
  await holds(page);
  for (let k = 0; k < 2; k++) {
    await maker.pressButton("Add a holder or shape");
    await maker.press(page.getByRole("menuitem", { name: /^Ornament/ }));
    await maker.press(page.getByRole("menuitem", { name: "star", exact: true }));
    // One that is loose is drawn twice: where it was put, and where it falls.
    await expect.poll(async () => (await ornaments(page)).size).toBe(k + 1);
  }
  // Both are put to their places, one after the other.
  await expect(page.getByRole("button", { name: /^Place: .* of its letter$/ })).toHaveCount(2);
  await holds(page);
  await maker.press(page.getByRole("button", { name: /^4 Joints/ }));
  const joints = page.getByRole("button", { name: /^Show the joint .*star/ });
  // Each of the two holds a letter of either line.
  expect(await joints.count()).toBeGreaterThanOrEqual(4);
  await expect(page.getByRole("button", { name: /^Show the joint .*star.*star/ })).toHaveCount(0);
  expect(await maker.takeFile()).toContain("<path");
});

test("overlaid names, three in front", async ({ page }) => {
  const maker = await begin(page, ["HARBOUR", "Isolde"], /^Overlaid names/);
  for (const name of ["Ffion", "Kit"]) {
    await maker.pressButton("Add a line");
    await maker.type(page.getByLabel("Word or line").last(), name);
  }
  await maker.pressButton(/^3 Holders/);
  await maker.pressButton("Tie the pieces together");
  await holds(page);
  expect(await maker.takeFile()).toContain("<path");
});
