/**
 * The maker's own sheets: their figures, lists in and out, and pieces that say when the shelf has others.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { faults } from "./axe";
import { copyOf } from "./pieces";
import { expect, test } from "./test";

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

test("a test piece is made, cut by the trial cutter, read off, and its figures go to the sheet and into a piece", async ({
  page,
}) => {
  const { sheets } = await (await page.request.get("/api/stocks")).json();
  const birch = sheets.find(({ id }: { id: string }) => id === "birch-3");
  const sheet = { ...birch, id: "own-slip", stock: { ...birch.stock, id: "own-slip", name: "Slip ply", leastWidth: 1.1 } };
  await page.request.put("/api/stocks/own-slip", { data: sheet });
  await page.goto("/stock/own-slip");
  await page.getByRole("link", { name: "Measure it with a test piece" }).click();
  await page.getByRole("button", { name: "Make a test piece" }).click();
  await expect(page.getByTestId("least-found")).toHaveText("No neck has been tried yet.");
  expect(await faults(page)).toEqual([]);

  // Cut like any piece; what broke is read off.
  await page.getByRole("link", { name: "To the cutter" }).click();
  await expect(page.getByRole("heading", { name: "Test piece 1, Slip ply" })).toBeVisible();
  await page.getByRole("button", { name: "Send to the trial cutter" }).click();
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  await page.goto("/stock/own-slip/test");
  await page.getByRole("button", { name: "Let the trial cutter try it" }).click();
  await expect(page.getByTestId("least-found")).toContainText("95 of 100 necks hold from");
  await expect(page.getByTestId("survival-chart").locator("svg")).toBeVisible();
  await expect(page.getByText("read on").first()).toContainText("by the trial cutter");

  // Single necks by hand, by mouse and by keyboard; the row follows.
  const neck = page.getByTestId("neck-long-across-10");
  const said = async () => (await neck.getAttribute("aria-label"))!.replace(/^.*: /, "");
  const before = await said();
  await neck.click();
  await neck.press("Enter");
  await neck.press(" ");
  expect(await said()).toBe(before);
  await page.getByLabel("Long arms, upper rows: held from").selectOption({ index: 5 });
  await expect(page.getByTestId("neck-long-across-4")).toHaveAttribute("aria-label", /broke$/);
  await expect(page.getByTestId("neck-long-across-5")).toHaveAttribute("aria-label", /held$/);
  await page.getByLabel("Gap beside the strips").fill("3");
  await page.getByLabel("Gap beside the strips").press("Enter");
  await expect(page.getByRole("alert")).toContainText("measure the whole gap");
  await page.getByLabel("Gap beside the strips").fill("12.6 mm");
  await page.getByLabel("Gap beside the strips").press("Enter");
  await expect(page.getByTestId("kerf-found")).toHaveText("The cut is 0.20 mm wide, from one reading.");
  await page.getByLabel("Arm at the lower edge broke at").fill("1.2 kg");
  await page.getByLabel("Arm at the lower edge broke at").press("Enter");
  await expect(page.getByLabel("Arm at the lower edge broke at")).toHaveValue("11.8 N");

  // On the sheet with where it comes from; all of it is there after a reload.
  await page.getByRole("button", { name: "Put these on the sheet" }).click();
  await expect(page.getByText("The sheet has these figures.")).toBeVisible();
  await page.goto("/stock/own-slip");
  await expect(page.getByText(/^measured by you on .* with a test piece$/).first()).toBeVisible();
  await expect(page.getByLabel("Width of the cut")).toHaveValue("0.2");
  await page.getByRole("link", { name: "Measure it with a test piece" }).click();
  await expect(page.getByTestId("kerf-found")).toContainText("0.20 mm");
  // What was read is not lost to a press.
  await page.getByRole("button", { name: "Let the trial cutter try it" }).click();
  await page.getByRole("button", { name: "Put back" }).click();
  await expect(page.getByTestId("kerf-found")).toHaveText("The cut is 0.20 mm wide, from one reading.");
  await expect(page.getByText("The trial cutter's readings")).toBeHidden({ timeout: 10_000 });

  // The next one's necks lie closer; one that is taken away comes back.
  await page.getByRole("button", { name: "Make the next one" }).click();
  await expect(page.getByRole("button", { name: /^Test piece 2/ })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: "Take test piece 2 away" }).click();
  await expect(page.getByRole("button", { name: /^Test piece 2/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Put back" }).click();
  await expect(page.getByRole("button", { name: /^Test piece 2/ })).toBeVisible();

  // A piece of the demo goes by it.
  const piece = await copyOf(page, "demo-harbour-office", "On slip ply");
  await page.goto(`/bench/${piece}`);
  await page.getByRole("button", { name: "Change the sheet" }).click();
  await page.getByRole("menuitem", { name: /^Slip ply/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("Slip ply wants");
  await expect(page.getByTestId("verdict")).toContainText("the cut takes 0.2 mm");
});
