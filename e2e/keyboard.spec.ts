/** What is done by keys alone: typing on the piece, ends of ties, points of curves, holders. */
import type { Page } from "@playwright/test";
import { choose } from "./sentence";
import { expect, test } from "./test";

const verdict = (page: Page) => page.getByTestId("verdict");
const text = (page: Page) => page.getByLabel("Word or line");

async function newPiece(page: Page, word: string): Promise<void> {
  await page.goto("/new");
  await page.getByRole("button", { name: "Start empty" }).click();
  await text(page).fill(word);
  await expect(verdict(page)).toContainText("wants");
}

test("a letter is pressed, and what is typed comes after it; one step takes it back", async ({ page }) => {
  await newPiece(page, "Kte");
  const letter = (await page.locator("[data-solid='w1:k1']").last().boundingBox())!;
  await page.mouse.click(letter.x + letter.width * 0.28, letter.y + letter.height * 0.5);
  // A straight line has no area that Playwright would call visible.
  await expect(page.getByTestId("caret")).toHaveCount(1);
  await page.keyboard.type("a0");
  await expect(text(page)).toHaveValue("Ka0te");
  await page.keyboard.press("Backspace");
  await expect(text(page)).toHaveValue("Kate");
  await expect(page.getByLabel("Name of the piece")).toHaveValue("Kate");
  await page.keyboard.press("Control+z");
  await expect(text(page)).toHaveValue("Kte");
  // With nothing in the hand a digit means the view again.
  await page.keyboard.press("Escape");
  await page.keyboard.press("0");
  await expect(text(page)).toHaveValue("Kte");
});

test("two Tabs lead to the letters and to what was found; after a mend and a removal the focus stays near", async ({ page }) => {
  await newPiece(page, "Kit");
  // Kept before it is left, and begun anew: the first Tab of a page.
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await page.reload();
  await expect(verdict(page)).toContainText("wants");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the letters" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^the K,/ })).toBeFocused();
  const skip = page.getByRole("link", { name: "To the findings" });
  await skip.focus();
  await page.keyboard.press("Enter");
  await expect(page.locator("#findings :focus")).toHaveCount(1);
  await page
    .locator("#findings")
    .getByRole("button", { name: /Lower it/ })
    .press("Enter");
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.locator("#findings")).toBeFocused();
  await page.getByRole("button", { name: /^3 Holders/ }).click();
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /^Bar/ }).click();
  await page.getByRole("button", { name: "Remove the bar" }).press("Enter");
  await expect(page.getByRole("button", { name: "Add a holder or shape" })).toBeFocused();
});

test("holders are taken, moved and removed; so are points of a curve", async ({ page }) => {
  await newPiece(page, "Kelp");
  await page.getByRole("button", { name: /^3 Holders/ }).click();
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /^Bar/ }).click();
  await page.getByRole("button", { name: "Take the bar in the hand" }).press("Enter");
  await page.keyboard.press("Shift+ArrowUp");
  await expect(page.getByRole("button", { name: "Overlap: 2.0 mm above the baseline" }).first()).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("button", { name: "Take the bar in the hand" })).toHaveCount(0);
  await page.getByRole("button", { name: /^1 Words/ }).click();
  await choose(page, "Letters run", /curve/);
  const point = page.getByRole("button", { name: "Point 2 of the curve" });
  const before = (await point.boundingBox())!;
  await point.press("Shift+ArrowUp");
  await expect.poll(async () => (await point.boundingBox())!.y).toBeLessThan(before.y - 0.5);
  const points = page.getByRole("button", { name: /^Point \d of the curve/ });
  const count = await points.count();
  await point.press("Delete");
  await expect(points).toHaveCount(count - 1);
});
