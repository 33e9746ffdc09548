/**
 * The maker's own sheets: their figures, lists in and out, and pieces that say when the shelf has others.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { faults } from "./axe";
import { copyOf } from "./pieces";

test("a sheet of one's own is made, used by a piece, changed, and taken over by the piece when its maker wants it", async ({
  page,
}) => {
  const piece = await copyOf(page, "demo-harbour-office", "On my own sheet");
  await page.goto("/");
  await page.getByRole("button", { name: "Your sheets" }).click();
  await page.getByRole("button", { name: /^birch 4 mm/ }).click();
  await page.getByRole("button", { name: "A sheet of your own" }).click();
  const form = page.getByRole("form", { name: "birch 4 mm (mine)" });
  await form.getByLabel("Name").fill("Ferry ply");
  await form.getByLabel("Name").press("Tab");
  const ferry = page.getByRole("form", { name: "Ferry ply" });
  await ferry.getByLabel("Least joint width").fill("2.6");
  await ferry.getByLabel("Least joint width").press("Enter");
  await expect(ferry.getByText(/^put in by you on /)).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.goto(`/bench/${piece}`);
  await page.getByRole("button", { name: "Change the sheet" }).click();
  await page.getByRole("menuitem", { name: /^Ferry ply/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("Ferry ply wants 2.6 mm");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.goto("/stock");
  await page.getByRole("button", { name: /^Ferry ply/ }).click();
  await page.getByRole("form", { name: "Ferry ply" }).getByLabel("Least joint width").fill("1.2");
  await page.getByRole("form", { name: "Ferry ply" }).getByLabel("Least joint width").press("Enter");
  await expect(page.getByRole("button", { name: /^Ferry ply.*1\.2 mm/ })).toBeVisible();
  await page.goto(`/bench/${piece}`);
  await expect(page.getByTestId("verdict")).toContainText("wants 2.6 mm");
  await page.getByRole("button", { name: "Take them" }).click();
  await expect(page.getByTestId("verdict")).toContainText("wants 1.2 mm");
  await expect(page.getByRole("button", { name: "Take them" })).toBeHidden();
});

test("lists go out and come in; what cannot be read is told", async ({ page }, info) => {
  await page.goto("/stock");
  const waiting = page.waitForEvent("download");
  await page.getByRole("button", { name: "Take along as CSV" }).click();
  const csv = readFileSync(await (await waiting).path(), "utf8");
  expect(csv.split("\r\n")[0]).toContain("name,material,thickness");
  const path = info.outputPath("sheets.csv");
  writeFileSync(path, "name,material,thickness,strength\nPier oak,oak,5.2,80\n");
  await page.getByTestId("sheets-file").setInputFiles(path);
  await expect(page.getByRole("form", { name: "Pier oak" })).toBeVisible();
  const bad = info.outputPath("bad.csv");
  writeFileSync(bad, "name,material,thickness,strength\nPier stone,granite,5,80\n");
  await page.getByTestId("sheets-file").setInputFiles(bad);
  await expect(page.getByText(/^Sheet 1: /)).toBeVisible();
  await page.getByRole("button", { name: "Off the shelf" }).click();
  await expect(page.getByRole("button", { name: /^Pier oak/ })).toHaveCount(0);
});
