/**
 * The lettering shelf: the maker's own word in every lettering, measured, filtered, chosen.
 */
import type { Page } from "@playwright/test";
import { faults } from "./axe";
import { choose, openChoice } from "./sentence";
import { expect, test } from "./test";

const shelf = (page: Page) => page.getByRole("region", { name: "Lettering shelf" });

async function openShelf(page: Page, word: string): Promise<void> {
  await openUnmeasured(page, word);
  await expect(shelf(page)).toContainText("What survives best in this sheet comes first.", { timeout: 60_000 });
}

/** The shelf, while its letterings are being measured. */
async function openUnmeasured(page: Page, word: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill(word);
  await page
    .getByRole("button", { name: /Lettering/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
}

test("all letterings are measured and sorted; choosing one sets the word and turns the verdict", async ({ page }) => {
  await openShelf(page, "Kate");
  const cards = shelf(page).getByRole("listitem");
  await expect(cards).toHaveCount(42);
  await expect(cards.first()).toContainText("survives");
  await expect(cards.last()).toContainText("unsuitable");
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
  await shelf(page)
    .getByRole("button", { name: /Archivo Black/ })
    .click();
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  await expect(shelf(page).getByRole("button", { name: /Archivo Black/ })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
  await shelf(page).getByRole("button", { name: "Back to the piece" }).click();
  await expect(page.getByTestId("stage")).toBeVisible();
});

test("no card moves away from under the pointer while the others are measured", async ({ page }) => {
  await openUnmeasured(page, "Hake");
  const cards = shelf(page).getByRole("listitem");
  await cards.nth(1).hover();
  const names = () => cards.locator("span.truncate").allTextContents();
  const before = await names();
  await expect(shelf(page).getByRole("status")).not.toContainText("Measured", { timeout: 60_000 });
  expect(await names()).toEqual(before);
  await shelf(page).getByRole("heading").hover();
  await expect(shelf(page).getByRole("status")).toContainText("What survives best in this sheet comes first.");
  await expect(cards.last()).toContainText("unsuitable");
});

test("filters leave what was asked for, by keyboard as well; axe finds nothing", async ({ page }) => {
  await openShelf(page, "Kate");
  await page.getByRole("button", { name: "stencil", exact: true }).focus();
  await page.keyboard.press("Space");
  await expect(shelf(page).getByRole("listitem")).toHaveCount(2);
  await page.getByRole("button", { name: "stencil", exact: true }).click();
  await page.getByRole("button", { name: "joins itself", exact: true }).click();
  await expect(shelf(page)).toContainText("Pacifico");
  await expect(shelf(page)).not.toContainText("Archivo Black");
  expect(await faults(page)).toEqual([]);
});

test("letters that a lettering lacks are named on its card", async ({ page }) => {
  await openShelf(page, "Ωκεανός");
  await expect(shelf(page).getByRole("button", { name: /Comfortaa Bold/ })).toContainText("strokes from");
  await expect(shelf(page).getByRole("button", { name: /Archivo Black/ })).toContainText("has no κ ε");
});

test("another form of a letter is chosen from its real shapes; spacing by overlap joins what stood apart", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kate");
  await page.getByRole("button", { name: /^the K,/ }).click();
  const outline = () => page.locator('[data-solid$=":k1"]').last().getAttribute("d");
  const usual = await outline();
  await page
    .getByRole("button", { name: /^Form / })
    .first()
    .click();
  await expect.poll(outline).not.toBe(usual);
  await page.getByRole("button", { name: "The usual form" }).click();
  await expect.poll(outline).toBe(usual);

  await page
    .getByRole("button", { name: /Lettering/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
  await page.getByRole("button", { name: /Archivo Black/ }).click();
  await page.getByRole("button", { name: "Back to the piece" }).click();
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  await page.getByRole("button", { name: /^1 Words/ }).click();
  await choose(page, "Letters stand", /overlapped/);
  await page.getByLabel("Overlap", { exact: true }).fill("2.5");
  await page.getByLabel("Overlap", { exact: true }).press("Enter");
  await expect(page.getByTestId("verdict")).not.toContainText("fall");
});

test("dots that join themselves stay joined through a change of the spelling", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kit");
  await expect(page.getByTestId("verdict")).toContainText("The dot of i falls off.");
  await choose(page, "Dots and accents", /lowered/);
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
  await page.getByLabel("Word or line").fill("Kittiwaki");
  await expect(page.getByRole("button", { name: /^the third i,/ })).toBeVisible();
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
});

test("a line is placed by figures, lined up, and taken along whole with Alt", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kate");
  await page.getByRole("button", { name: "Add a line" }).click();
  await page.getByLabel("Word or line").last().fill("Lou");
  await expect(page.getByTestId("verdict")).toContainText("wants");
  await openChoice(page, "Place");
  await page.getByLabel("Line up").last().fill("-18");
  await page.getByLabel("Line up").last().press("Enter");
  const left = () =>
    page
      .locator('[data-solid$=":k1"]')
      .last()
      .evaluate((path) => (path as SVGPathElement).getBBox().x);
  const centred = await left();
  await page.getByRole("radio", { name: "left end" }).last().click();
  await expect.poll(left).toBeGreaterThan(centred + 3);

  const outlines = () => page.locator("[data-solid]").evaluateAll((paths) => paths.map((path) => path.getAttribute("d")));
  const before = await outlines();
  const box = (await page.locator('[data-solid$=":k2"]').last().boundingBox())!;
  await page.keyboard.down("Alt");
  await page.mouse.move(box.x + box.width / 2, box.y + 6);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up("Alt");
  await expect
    .poll(async () => (await outlines()).filter((outline, i) => outline !== before[i]).length)
    .toBeGreaterThanOrEqual(3);
  await expect(page.getByLabel("Line right").last()).not.toHaveValue("0");
});
