import { expect, test } from "./test";

test("a mend is offered with its widths, shown on the piece, taken, and undone in one step", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kit");
  const mends = page.getByRole("list", { name: "Mends on offer" });
  const lower = mends.getByRole("button", { name: /^Lower it/ });
  await expect(lower).toContainText("0.0");
  await expect(mends.getByRole("button")).toHaveCount(2);
  await lower.hover();
  await expect(page.locator('path[fill="var(--color-holds)"]').first()).toBeVisible();
  await lower.click();
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("The dot of i falls off.");
});

test("mend all makes the piece hold; one undo takes all of it back", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Jiří");
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  await page.getByRole("button", { name: "Mend all" }).click();
  const found = page.getByRole("region", { name: "Mends found" });
  await expect(found).toContainText("Everything holds after", { timeout: 60_000 });
  await expect(found).toContainText("of the piece changes");
  // Until it is taken, nothing is done.
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  await found.getByRole("button", { name: "Mend so" }).click();
  await expect(page.getByTestId("verdict")).toContainText("Everything holds.", { timeout: 30_000 });
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("fall off");
});
