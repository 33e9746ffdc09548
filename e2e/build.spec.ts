/**
 * Holders and the constructions of the trade, by hand and by keyboard.
 */
import type { Page } from "@playwright/test";
import { faults } from "./axe";
import { choose, openChoice } from "./sentence";
import { expect, test } from "./test";

const verdict = (page: Page) => page.getByTestId("verdict");
const step = (page: Page, name: RegExp) => page.getByRole("button", { name }).first();

async function newPiece(page: Page, word: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill(word);
  await expect(verdict(page)).toContainText("wants");
}

async function add(page: Page, kind: RegExp): Promise<void> {
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: kind }).click();
}

test("a beginning is chosen, a word typed, and the piece holds", async ({ page }) => {
  await page.goto("/new");
  await page.getByLabel("Your word").fill("Kate");
  const card = page.getByRole("button", { name: /Ring sign with a word.*holds/ });
  await expect(card).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await card.click();
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.getByLabel("Name of the piece")).toHaveValue("Kate");
  await page.getByLabel("Word or line").fill("KATINKA");
  await expect(verdict(page)).toContainText("Everything holds.");
});

test("a backing with a loop: letters are engraved, the loop goes round by hand and hangs straight by a press", async ({
  page,
}) => {
  await newPiece(page, "Wiii");
  await step(page, /Holders/).click();
  await add(page, /^Backing/);
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.getByText("The letters are engraved or cut out")).toBeVisible();
  await add(page, /^Loop/);
  await expect(page.getByText(/It hangs \d/)).toBeVisible();
  await page.getByRole("button", { name: "Hang it straight" }).click();
  await expect(page.getByText("It hangs straight.")).toBeVisible();
  await page
    .getByRole("group", { name: "Loop" })
    .getByRole("button", { name: /^Place: / })
    .click();
  const where = page.getByLabel("Where");
  const before = Number(await where.inputValue());
  const box = (await page.locator('[data-solid="loop"]').boundingBox())!;
  await page.mouse.move(box.x + 4, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 150, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await where.inputValue())).toBeLessThan(before - 5);
});

test("a word is cut through a plate; its islands fall, ties hold them, and go with the letters", async ({ page }) => {
  await newPiece(page, "OOOO");
  await choose(page, "The word is", /cut out/);
  await page.getByRole("radio", { name: "drops out" }).click();
  await step(page, /Holders/).click();
  await add(page, /^Base shape/);
  await expect(verdict(page)).toContainText("fall off");
  await page.getByRole("button", { name: "Tie the pieces together" }).click();
  await expect(page.getByText("It is one piece now.")).toBeVisible();
  await expect(verdict(page)).not.toContainText("fall");
  await expect(page.getByText(/^\d ties$/)).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(verdict(page)).toContainText("fall off");
});

test("an ornament is added by keyboard, moved by arrow keys, and knocked out of a letter", async ({ page }) => {
  await newPiece(page, "●");
  await step(page, /Holders/).click();
  await page.getByRole("button", { name: "Add a holder or shape" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitem", { name: /^Bar/ })).toBeFocused();
  await page.keyboard.press("O");
  await expect(page.getByRole("menuitem", { name: /^Ornament/ })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitem", { name: "heart", exact: true })).toBeFocused();
  await page.keyboard.press("Enter");
  // It goes to where it is joined.
  await expect(page.getByText("It was put where it joins most.")).toBeVisible();
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.locator('[data-solid="ornament"]').last().click();
  await page.keyboard.press("Shift+ArrowLeft");
  await page.getByRole("button", { name: /^Place: .*right/ }).click();
  const right = page.getByRole("textbox", { name: "Right", exact: true });
  const before = Number(await right.inputValue());
  await page.locator('[data-solid="ornament"]').last().click();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect.poll(async () => Number(await right.inputValue())).toBe(before - 1);
  await right.fill("0");
  await right.press("Enter");
  // Turned by its handle, with the keys and by a pull.
  const handle = page.getByRole("button", { name: "Turn the heart" });
  await handle.focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await page
    .getByRole("button", { name: /^Turn: turned by 2°/ })
    .first()
    .click();
  const grip = (await handle.boundingBox())!;
  await page.mouse.move(grip.x + 9, grip.y + 9);
  await page.mouse.down();
  await page.mouse.move(grip.x - 30, grip.y - 25, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await page.getByLabel("Turned", { exact: true }).first().inputValue())).toBeGreaterThan(5);
  await page.getByRole("button", { name: /^Height: / }).click();
  await page.getByRole("textbox", { name: "Height", exact: true }).fill("4");
  await page.getByRole("textbox", { name: "Height", exact: true }).press("Enter");
  await page.getByRole("button", { name: /^It: / }).click();
  await page.getByRole("radio", { name: "is knocked out" }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
});

test("a frame ends in the word and follows it; a limit that is exceeded is told", async ({ page }) => {
  await newPiece(page, "Isolde");
  await openChoice(page, "Its size");
  await page.getByRole("radio", { name: "must fit a box" }).click();
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("larger than the 50.8 mm × 50.8 mm it may be");
  await page.getByRole("radio", { name: "may have any size" }).click();
  await step(page, /Holders/).click();
  await add(page, /^Frame/);
  await page.getByRole("button", { name: /^Made as: / }).click();
  await page.getByRole("radio", { name: "ends in the word" }).click();
  const frame = () => page.locator('[data-solid="shape"]').first().getAttribute("d");
  const before = await frame();
  await step(page, /Words/).click();
  await page.getByLabel("Word or line").fill("Isoldes");
  await expect.poll(frame).not.toBe(before);
});

test("the best place for a stick is found, and a piece that would lean says so", async ({ page }) => {
  await newPiece(page, "Kate");
  await step(page, /Holders/).click();
  await add(page, /^Stick/);
  await page.getByRole("button", { name: /^Place: under/ }).click();
  await page.getByLabel("Right of middle").fill("40");
  await page.getByLabel("Right of middle").press("Enter");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("It will lean");
  await page.getByRole("button", { name: "Best place" }).click();
  await expect(page.getByRole("region", { name: "Findings" })).not.toContainText("It will lean");
});

test("a piece is kept as a beginning and filled in with another word", async ({ page }) => {
  await newPiece(page, "Ffion");
  const name = `Quay sign ${Date.now()}`;
  await page.getByLabel("Name of the piece").fill(name);
  await page.getByLabel("Name of the piece").press("Enter");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.getByRole("link", { name: "Back to the rack" }).click();
  await page.getByRole("button", { name: `What to do with ${name}` }).click();
  await page.getByRole("menuitem", { name: "Keep as a beginning" }).click();
  await expect(page.getByText("It stands among your own beginnings")).toBeVisible();
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByLabel("Your word").fill("Kate");
  await page
    .getByRole("region", { name: "Your own beginnings" })
    .getByRole("button", { name: new RegExp(name) })
    .click();
  await expect(page.getByLabel("Word or line")).toHaveValue("Kate");
});

test("earrings are a mirrored pair, which follows the word and goes into the cut file twice", async ({ page }) => {
  await page.goto("/new");
  await page.getByLabel("Your word").fill("Kit");
  await page.getByRole("button", { name: /Stacked earrings.*(holds|weak)/ }).click();
  await expect(page.getByTestId("twin")).toHaveCount(1);
  await page.getByRole("link", { name: "To the cutter" }).click();
  const file = page.getByRole("button", { name: "SVG true curves" });
  const [download] = await Promise.all([page.waitForEvent("download"), file.click()]);
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  expect(
    Buffer.concat(chunks)
      .toString()
      .match(/<path /g),
  ).toHaveLength(2);
  await page.getByRole("link", { name: "Back to the bench" }).click();
  await openChoice(page, "Cut");
  await page.getByRole("radio", { name: "once" }).click();
  await expect(page.getByTestId("twin")).toHaveCount(0);
});

test("edges of what is in the hand are pulled; a word is stretched into a frame; a plate is set into a drawing", async ({
  page,
}) => {
  await newPiece(page, "HH");
  await page.getByRole("button", { name: /^3 Holders/ }).click();
  await add(page, /^Frame/);
  const frameChoice = (label: string) =>
    page
      .getByRole("group", { name: "Frame" })
      .getByRole("button", { name: new RegExp(`^${label}: `) })
      .click();
  await frameChoice("Made as");
  await page.getByRole("radio", { name: "closed" }).click();
  await frameChoice("Form");
  await page.getByRole("radio", { name: /^rounded plate/ }).click();
  await frameChoice("Size");
  const asLettering = (await page.locator("[data-solid='shape']").boundingBox())!;
  await page.getByRole("radio", { name: "its own" }).click();
  // A size of its own begins with the one it has.
  await expect(page.getByRole("textbox", { name: "Height", exact: true })).toBeVisible();
  expect((await page.locator("[data-solid='shape']").boundingBox())!.width).toBeCloseTo(asLettering.width, 0);
  const width = page.getByRole("textbox", { name: "Width", exact: true });
  await width.fill("100");
  await width.press("Enter");
  await page.getByRole("textbox", { name: "Height", exact: true }).fill("60");
  await page.getByRole("textbox", { name: "Height", exact: true }).press("Enter");
  await frameChoice("Made as");
  await page.getByLabel("Letters bite in").fill("2");
  await page.getByLabel("Letters bite in").press("Enter");
  await page.getByRole("button", { name: "Stretch the word into it" }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
  // Each letter by itself: both of them reach already, and nothing is asked for twice.
  await page.getByRole("button", { name: "Stretch each letter to both edges" }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
  await frameChoice("Size");
  // Along its left side the frame is taken, and then pulled by its right edge.
  const frame = (await page.locator("[data-solid='shape']").boundingBox())!;
  await page.mouse.click(frame.x + 5, frame.y + frame.height / 2);
  const edge = (await page.locator("[data-edge='shape right']").boundingBox())!;
  await page.mouse.move(edge.x + 7, edge.y + 7);
  await page.mouse.down();
  await page.mouse.move(edge.x + 37, edge.y + 7, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await width.inputValue())).toBeGreaterThan(105);
  await page.getByRole("button", { name: "More about the frame" }).click();
  await frameChoice("Shapes behind it");
  await page.getByRole("radio", { name: "end at its edge" }).click();
  await expect(page.getByLabel("They reach into it by")).toHaveValue("1.5");
  await add(page, /^Ornament/);
  await page.getByRole("menuitem", { name: "disc", exact: true }).click();
  await page.getByRole("button", { name: /^Height: / }).click();
  await page.getByRole("textbox", { name: "Height", exact: true }).last().fill("140");
  await page.getByRole("textbox", { name: "Height", exact: true }).last().press("Enter");
  await page.getByRole("button", { name: /^Place: .*right/ }).click();
  await page.getByRole("textbox", { name: "Right", exact: true }).fill("0");
  await page.getByRole("textbox", { name: "Right", exact: true }).press("Enter");
  // The disc goes behind the plate all round and leaves the spaces between the letters open.
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.locator("[data-solid^='ornament']")).not.toHaveCount(0);
});

test("a tie under a cut-out letter is taken, pulled by one end, turned by its angle; its card never lies on it", async ({
  page,
}) => {
  await page.goto("/new");
  await page.getByRole("textbox").first().fill("Tide");
  await page
    .getByRole("button", { name: /^Cut-through plate/ })
    .first()
    .click();
  await expect(verdict(page)).toContainText("Everything holds.");
  // Ties in the place of its bridges.
  await openChoice(page, "The word is");
  await page.getByRole("radio", { name: "drops out" }).click();
  await expect(verdict(page)).toContainText("fall");
  await step(page, /Holders/).click();
  await page.getByRole("button", { name: "Tie the pieces together" }).click();
  await expect(page.getByText("It is one piece now.")).toBeVisible();
  await step(page, /Words/).click();
  const tie = page.locator("[data-solid^='tie']").last();
  await tie.click();
  const card = page.getByRole("group", { name: "In the hand" });
  await card.getByRole("button", { name: "More about the tie" }).click();
  await card.getByRole("button", { name: /^Angle and length: / }).click();
  const angle = card.getByRole("textbox", { name: "Angle" });
  const apart = async () => {
    const [one, other] = [(await card.boundingBox())!, (await tie.boundingBox())!];
    return (
      one.x > other.x + other.width ||
      other.x > one.x + one.width ||
      one.y > other.y + other.height ||
      other.y > one.y + one.height
    );
  };
  await expect.poll(apart).toBe(true);
  const before = await angle.inputValue();
  const end = (await page.locator("[data-end$=' 1']").boundingBox())!;
  await page.mouse.move(end.x + 7, end.y + 7);
  await page.mouse.down();
  await page.mouse.move(end.x + 27, end.y + 12, { steps: 5 });
  await page.mouse.up();
  await expect.poll(() => angle.inputValue()).not.toBe(before);
  await angle.fill("80");
  await angle.press("Enter");
  await expect.poll(async () => Math.abs(Number(await angle.inputValue()) - 80)).toBeLessThan(0.5);
  await expect(verdict(page)).toContainText("Everything holds.");
});
