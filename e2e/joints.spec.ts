/**
 * Looking into the joints: widths, fall test, chart, second ties, and findings that are let be.
 */
import type { Page } from "@playwright/test";
import { copyOf } from "./pieces";
import { expect, test } from "./test";

const findings = (page: Page) => page.getByRole("region", { name: "Findings" });
const open = async (page: Page, id: string) => {
  await page.goto(`/bench/${id}`);
  await expect(page.getByTestId("verdict")).toContainText("wants");
};

test("the widths view draws the line along every stroke, and goes again", async ({ page }) => {
  await open(page, "demo-sea-kale");
  await page.getByRole("button", { name: "Widths" }).click();
  await expect(page.getByTestId("widths").locator("path")).not.toHaveCount(0);
  await expect(page.getByRole("list", { name: "Widths of strokes" })).toContainText("under");
  await page.getByRole("button", { name: "Widths" }).click();
  await expect(page.getByTestId("widths")).toHaveCount(0);
});

test("the fall test says what fell, and ends when the piece changes", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kiki");
  await expect(page.getByTestId("verdict")).toContainText("Two dots fall off.");
  await page.getByRole("button", { name: "Fall test" }).click();
  await expect(page.getByTestId("fall-report")).toContainText("The dot of the first i and the dot of the second i fell.");
  await page.getByLabel("Word or line").fill("Kate");
  await expect(page.getByTestId("fall-report")).toHaveCount(0);
});

test("the chart shows all joints; pressing one goes to its place", async ({ page }) => {
  await open(page, "demo-sea-kale");
  await page
    .getByRole("button", { name: /Joints/ })
    .first()
    .click();
  const chart = page.getByTestId("width-chart");
  await expect(chart.locator("svg")).toBeVisible();
  const transform = () =>
    page
      .locator("[data-solid]")
      .first()
      .evaluate((el) => el.closest("g[transform]")!.getAttribute("transform"));
  const before = await transform();
  const box = (await chart.boundingBox())!;
  await page.mouse.click(box.x + box.width - 12, box.y + box.height - 12);
  await expect.poll(transform).not.toBe(before);
});

test("a finding is let be with a reason, is remembered, and taken up again", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kit");
  await expect(page.getByTestId("verdict")).toContainText("The dot of i falls off.");
  await findings(page).getByRole("button", { name: "Let it be …" }).click();
  await page.getByLabel("Why is it all right?").fill("glued on later");
  await page.getByRole("button", { name: "Let it be", exact: true }).click();
  await expect(page.getByTestId("verdict")).toContainText("One place accepted, the rest holds.");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.reload();
  await expect(findings(page)).toContainText("“glued on later”");
  await findings(page).getByRole("button", { name: "Take up again" }).click();
  await expect(page.getByTestId("verdict")).toContainText("The dot of i falls off.");
});

test("an examination that takes long can be stopped, and the next change is measured again", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("Kai");
  await expect(page.getByTestId("verdict")).toContainText("wants");
  // Lettering that is long in coming holds the examination up, however quick the machine is.
  await page.context().route("**/api/fonts/bungee/file", () => {});
  await page
    .getByRole("button", { name: /Lettering/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
  await page.getByRole("button", { name: /Bungee/ }).click();
  await page.getByRole("button", { name: "Stop", exact: true }).click({ timeout: 15_000 });
  await expect(page.getByTestId("verdict")).toContainText("it was stopped.");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("The dot of i falls off.");
});

test("the sheet's own figures can be changed, and change what is found", async ({ page }) => {
  await open(page, await copyOf(page, "demo-boat-naming", "Softer wood"));
  await expect(findings(page)).toContainText("would break under a careless finger");
  await page
    .getByRole("button", { name: /Joints/ })
    .first()
    .click();
  await page.getByRole("button", { name: "More about this sheet" }).click();
  await page.getByRole("button", { name: /^Bending strength: / }).click();
  await page.getByRole("textbox", { name: "Bending strength" }).fill("400");
  await page.getByRole("textbox", { name: "Bending strength" }).press("Enter");
  await expect(findings(page)).not.toContainText("would break under a careless finger");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(findings(page)).toContainText("would break under a careless finger");
});
