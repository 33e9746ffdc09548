/**
 * Lettering arranged in every way the trade does, by hand and by keyboard.
 */
import { createRequire } from "node:module";
import type { Page } from "@playwright/test";
import { faults } from "./axe";
import { copyOf } from "./pieces";
import { choose } from "./sentence";
import { expect, test } from "./test";

const require = createRequire(import.meta.url);
const verdict = (page: Page) => page.getByTestId("verdict");
const size = (page: Page) => page.getByTestId("finished-size");

async function newPiece(page: Page, word: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill(word);
  await expect(verdict(page)).toContainText("wants");
}

const outline = (page: Page, key: string) => page.locator(`[data-solid$=":${key}"]`).last();

/** Middle of what is drawn, on the page. */
async function middleOf(page: Page, selector: string): Promise<{ x: number; y: number }> {
  const box = (await page.locator(selector).last().boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

async function drag(page: Page, from: { x: number; y: number }, dx: number, dy: number): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + dx / 2, from.y + dy / 2, { steps: 4 });
  await page.mouse.move(from.x + dx, from.y + dy, { steps: 4 });
}

test("letters run downwards, round a ring, along a curve and a spiral; undo goes back through all of it", async ({ page }) => {
  await newPiece(page, "OOOO");
  const flat = await size(page).textContent();
  await choose(page, "Letters run", /downwards/);
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(size(page)).not.toHaveText(flat!);
  await page.getByLabel("Joint from letter to letter").fill("4");
  await page.getByLabel("Joint from letter to letter").press("Enter");
  await expect(verdict(page)).toContainText("Everything holds.");
  await choose(page, "Letters run", /along an arc/);
  await page.getByRole("radio", { name: "spread to close the ring" }).click();
  await page.getByRole("radio", { name: "is cut and holds" }).click();
  await page.getByLabel("Distance from it").fill("-2");
  await page.getByLabel("Distance from it").press("Enter");
  await expect(page.locator("[data-solid$='-line']")).toHaveCount(1);
  // A letter that has no room on the ring is told in the verdict, not only beside it.
  await expect(verdict(page)).toContainText("too short: O stands beyond it");
  await choose(page, "Letters run", /along a curve/);
  await expect(page.locator("[data-node]")).toHaveCount(4);
  await choose(page, "Letters run", /along a spiral/);
  await expect(page.getByLabel("From turn to turn")).toBeVisible();
  for (let i = 0; i < 8; i++) await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(size(page)).toHaveText(flat!);
});

test("a curve is bent by its points; what does not fit on it is named", async ({ page }) => {
  await newPiece(page, "Kit");
  await choose(page, "Letters run", /along a curve/);
  await expect(page.locator("[data-node]")).toHaveCount(4);
  const before = await outline(page, "k1").getAttribute("d");
  await drag(page, await middleOf(page, '[data-node$=" 1"]'), 0, -60);
  await expect(page.getByTestId("stage")).toContainText("↑");
  await page.mouse.up();
  await expect.poll(() => outline(page, "k1").getAttribute("d")).not.toBe(before);
  await page.getByLabel("Word or line").fill("Kittiwakes over the harbour");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("beyond it");
});

test("a ring has its diameters by name; a whole line and a point of a curve have their card; the sheet says what it would hold", async ({
  page,
}) => {
  await page.goto(`/bench/${await copyOf(page, "demo-oyster-bar", "Ring by name")}`);
  await expect(verdict(page)).toContainText("holds");
  await page.getByRole("button", { name: "Take the line OYSTER BAR in the hand" }).click();
  const card = page.getByRole("group", { name: "In the hand" });
  await expect(card.getByRole("heading", { name: "The line “OYSTER BAR”" })).toBeVisible();
  await card.getByRole("button", { name: /^Letters run: / }).click();
  const outer = card.getByRole("textbox", { name: "Outer diameter" });
  await outer.fill("180");
  await outer.press("Enter");
  await expect.poll(async () => Number(await outer.inputValue())).toBeCloseTo(180, 0);
  const hole = Number(await card.getByRole("textbox", { name: "Hole" }).inputValue());
  expect(hole).toBeCloseTo(114, 0);
  // What was typed has been taken, so Escape closes the fields, whether or not the ring has been measured meanwhile.
  await page.keyboard.press("Escape");
  await expect(outer).toBeHidden();
  await page.getByRole("button", { name: "Change the sheet" }).click();
  await expect(page.getByRole("menuitem", { name: /^MDF 3 mm.*(holds|weak|falls)/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await card.getByRole("button", { name: /^Letters run: / }).click();
  await card.getByRole("radio", { name: /along a curve/ }).click();
  await page.getByRole("button", { name: "Point 2 of the curve" }).focus();
  await expect(card.getByRole("heading", { name: "Point 2 of 4 of the curve" })).toBeVisible();
  await card.getByRole("button", { name: "Add one after it" }).click();
  await expect(card.getByRole("heading", { name: "Point 2 of 5 of the curve" })).toBeVisible();
});

test("a letter is turned by its handle, with Ctrl by steps; figures for it stand beside", async ({ page }) => {
  await newPiece(page, "●★●");
  await outline(page, "k2").click();
  const handle = await middleOf(page, '[data-turn$=" k2"]');
  await page.keyboard.down("Control");
  await drag(page, handle, 180, 60);
  await expect(page.getByTestId("stage")).toContainText("↻");
  await page.mouse.up();
  await page.keyboard.up("Control");
  const turned = Number(await page.getByLabel("Turned").inputValue());
  expect(turned).toBeLessThan(0);
  expect(Math.abs(turned % 15)).toBe(0);
  await page.getByRole("button", { name: "Stand it upright" }).click();
  await expect(page.getByLabel("Turned")).toHaveValue("0");
  await page.getByLabel("Size", { exact: true }).fill("150");
  await page.getByLabel("Size", { exact: true }).press("Enter");
  await page.getByLabel("Gap before it").fill("3");
  await page.getByLabel("Gap before it").press("Enter");
  await page.getByRole("button", { name: "Put back" }).click();
  await expect(page.getByLabel("Size", { exact: true })).toHaveValue("100");
});

test("several letters are taken with Shift and move together, by hand and by arrow keys", async ({ page }) => {
  await newPiece(page, "●★●");
  await outline(page, "k1").click();
  await page.keyboard.down("Shift");
  await outline(page, "k3").click();
  await page.keyboard.up("Shift");
  await expect(page.getByText("2 letters are in the hand")).toBeVisible();
  const places = async () => [await middleOf(page, '[data-solid$=":k1"]'), await middleOf(page, '[data-solid$=":k3"]')];
  await page.getByRole("button", { name: "Larger", exact: true }).click();
  await page.waitForTimeout(300);
  const before = await places();
  await drag(page, before[0]!, 0, -30);
  await page.mouse.up();
  await expect.poll(async () => Math.round((await places())[1]!.y - before[1]!.y)).toBeLessThan(-20);
  await page.keyboard.press("Shift+ArrowUp");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(async () => Math.abs(Math.round((await places())[1]!.y - before[1]!.y))).toBeLessThan(3);
});

test("dots are tied, one of them otherwise than the others", async ({ page }) => {
  await newPiece(page, "minim");
  await expect(verdict(page)).toContainText("fall off");
  await choose(page, "Dots and accents", /tied straight down/);
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.getByRole("button", { name: /^the first i,/ }).click();
  await page.getByLabel("Its dots and accents").selectOption("leave");
  await expect(verdict(page)).toContainText("The dot of the first i falls off.");
});

test("a symbol is put into the text and stands in the row like a letter", async ({ page }) => {
  await newPiece(page, "Zoe");
  await page.getByRole("button", { name: "Put in a symbol …" }).click();
  await page.getByRole("menuitem", { name: "heart" }).click();
  await expect(page.getByLabel("Word or line")).toHaveValue(/♥/);
  await expect(page.getByRole("button", { name: /^the heart,/ })).toBeVisible();
});

test("a line goes into another piece with everything done to it", async ({ page }) => {
  await newPiece(page, "Ffion");
  await choose(page, "Dots and accents", /lowered/);
  await page.getByRole("button", { name: "Copy the line Ffion" }).click();
  await newPiece(page, "Kit");
  await page.getByRole("button", { name: "Put in the copied line" }).click();
  await expect(page.getByLabel("Word or line")).toHaveCount(2);
  await expect(page.getByLabel("Word or line").nth(1)).toHaveValue("Ffion");
  await expect(page.getByRole("button", { name: "Dots and accents: lowered until they bite" })).toHaveCount(1);
});

test("a font file of one's own comes on the shelf and can be taken off; what is no font is refused", async ({ page }) => {
  await newPiece(page, "Kai");
  await page
    .getByRole("button", { name: /Lettering/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
  const input = page.getByLabel("Font file");
  await input.setInputFiles({ name: "letter.ttf", mimeType: "font/ttf", buffer: Buffer.from("Dear harbour office") });
  await expect(page.getByText("letter.ttf is not a font file.")).toBeVisible();
  await input.setInputFiles(
    require.resolve("@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2"),
  );
  const card = page.getByRole("button", { name: /^.*Bricolage Grotesque.*strokes from/ });
  await expect(card).toBeVisible();
  await expect(card).toHaveAttribute("aria-pressed", "true");
  // Its axis is there to be set, and changes the strokes.
  await page.getByRole("button", { name: "Back to the piece" }).click();
  const weight = page.getByRole("slider", { name: /Weight/ });
  const before = await size(page).textContent();
  await weight.press("Home");
  await expect(page.getByText("200", { exact: true })).toBeVisible();
  await expect(size(page)).not.toHaveText(before!);
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
  await page.getByRole("button", { name: /^Take .*Bricolage.* off the shelf/ }).click();
  await expect(page.getByText("Pieces that are set in it keep it.")).toBeVisible();
});

test("the whole piece is scaled by its finished size; one undo takes it back", async ({ page }) => {
  await newPiece(page, "mm");
  const before = await size(page).textContent();
  await size(page).click();
  await page.getByLabel("Finished width").fill("90");
  await page.getByLabel("Finished width").press("Tab");
  await page.getByRole("button", { name: /^Scale to/ }).click();
  await expect(size(page)).toContainText("90.0 ×");
  // Beyond what a part can be it is refused, with words.
  await size(page).click();
  await page.getByLabel("Finished width").fill("9000");
  await page.getByLabel("Finished width").press("Tab");
  await page.getByRole("button", { name: /^Scale to/ }).click();
  await expect(page.getByRole("alert")).toContainText("cannot have that size");
  await page.keyboard.press("Escape");
  await expect(size(page)).toContainText("90.0 ×");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(size(page)).toHaveText(before!);
});

test("a line is a sentence: choices are tried on the piece, Escape closes them, undo works from the field", async ({ page }) => {
  await newPiece(page, "Kit");
  const dots = page.getByRole("button", { name: /^Dots and accents: / });
  await dots.click();
  const cards = page.getByRole("radiogroup", { name: "Dots and accents" });
  await expect(cards.getByRole("radio", { name: /as in the font.*falls/ })).toBeChecked();
  await expect(cards.getByRole("radio", { name: /lowered.*holds/ })).toBeVisible();
  // The letter in the hand has its choices beside it, on the stage.
  await outline(page, "k1").click();
  await expect(page.getByRole("group", { name: "In the hand" }).getByLabel("Turned")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await cards.getByRole("radio", { checked: true }).focus();
  // A hand holds a key for a moment; the focus moves on within it.
  await page.keyboard.press("ArrowRight", { delay: 80 });
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.keyboard.press("Escape");
  await expect(cards).toHaveCount(0);
  await expect(dots).toBeFocused();
  await expect(dots).toHaveAccessibleName("Dots and accents: lowered until they bite");
  await page.getByLabel("Word or line").focus();
  await page.keyboard.press("Control+z");
  await expect(dots).toHaveAccessibleName("Dots and accents: as in the font");
  // What is typed in one go is one step.
  await page.keyboard.press("End");
  await page.keyboard.type("tiwake");
  await expect(page.getByLabel("Word or line")).toHaveValue("Kittiwake");
  await page.keyboard.press("Control+z");
  await expect(page.getByLabel("Word or line")).toHaveValue("Kit");
});

test("what cut-out letters enclose is held by bridges, which go where the maker puts them", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page
    .getByRole("button", { name: /Cut-through plate/ })
    .first()
    .click();
  await expect(verdict(page)).toContainText("Everything holds.");
  // Without bridges the insides drop; with them they stay.
  await choose(page, "The word is", /part of the piece/);
  await choose(page, "The word is", /cut out of what lies under it/);
  await page.getByRole("radio", { name: "drops out" }).click();
  await expect(verdict(page)).toContainText("fall");
  await page.getByRole("radio", { name: "is held by bridges" }).click();
  await expect(verdict(page)).toContainText("Everything holds.");

  const o = (await outline(page, "k3").boundingBox())!;
  await page.mouse.click(o.x + o.width * 0.15, o.y + o.height / 2);
  const angle = page.getByLabel("Its bridge stands at");
  const before = await angle.inputValue();
  await page.getByRole("button", { name: "Another place" }).click();
  await expect(angle).not.toHaveValue(before);
  await expect(verdict(page)).toContainText("Everything holds.");
  // By hand, a quarter round, and by the keyboard.
  const handle = page.getByRole("button", { name: "Bridge of O" });
  await handle.focus();
  const now = Number(await angle.inputValue());
  await page.keyboard.press("ArrowLeft");
  await expect(angle).toHaveValue(String(now + 5));
  const { x, y, width, height } = (await handle.boundingBox())!;
  await drag(page, { x: x + width / 2, y: y + height / 2 }, 60, 60);
  await expect(angle).not.toHaveValue(String(now + 5));
  expect(await faults(page)).toEqual([]);
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(angle).toHaveValue(before);
});
