/**
 * From word to file: the way to the cutter and to the saw, the trial cut, and files from elsewhere.
 */
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { unzipSync } from "fflate";
import { faults } from "./axe";
import { copyOf } from "./pieces";
import { openChoice } from "./sentence";
import { expect, test } from "./test";

async function toCutter(page: Page, id: string): Promise<void> {
  await page.goto(`/bench/${id}`);
  await expect(page.getByTestId("verdict")).toContainText("wants");
  await page.getByRole("link", { name: "To the cutter" }).click();
  await expect(page.getByTestId("effort")).toBeVisible();
}

async function taken(page: Page, name: string): Promise<{ name: string; bytes: Buffer }> {
  const waiting = page.waitForEvent("download");
  await page.getByRole("button", { name, exact: false }).first().click();
  const download = await waiting;
  return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) };
}

test("every file can be taken along, one by one and all in one", async ({ page }) => {
  await toCutter(page, "demo-ferry-key");
  await expect(page.getByText("Nothing stands in the way")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  const svg = await taken(page, "SVG true curves");
  expect(svg.name).toBe("key-ring-for-the-ferry.svg");
  expect(svg.bytes.toString()).toMatch(/<g id="engrave"[\s\S]*<g id="cut" fill="none" stroke="#ff0000"/);
  expect((await taken(page, "DXF layers")).bytes.toString()).toContain("SPLINE");
  expect((await taken(page, "PDF layers")).bytes.subarray(0, 5).toString()).toBe("%PDF-");
  expect((await taken(page, "Paper pattern PDF")).name).toBe("key-ring-for-the-ferry-pattern.pdf");
  const picture = await taken(page, "Picture PNG");
  expect([picture.name, picture.bytes.subarray(1, 4).toString()]).toEqual(["key-ring-for-the-ferry-picture.png", "PNG"]);
  const all = unzipSync(new Uint8Array((await taken(page, "All of them")).bytes));
  expect(Object.keys(all)).toHaveLength(5);
  expect(Buffer.from(all["key-ring-for-the-ferry-picture.png"]!.subarray(1, 4)).toString()).toBe("PNG");
});

test("purposes, tabs and where the cut runs change the lines; the choice is kept", async ({ page }) => {
  await toCutter(page, await copyOf(page, "demo-ferry-key", "With tabs"));
  await page.getByRole("radio", { name: "Lines" }).click();
  const effort = page.getByTestId("effort");
  await expect(effort).toContainText("3 pierces");
  await page.getByRole("switch", { name: "Engraved lines" }).click();
  await expect(page.getByText("left out")).toBeVisible();
  await openChoice(page, "Holding tabs");
  await page.getByRole("textbox", { name: "Holding tabs" }).fill("2");
  await page.getByRole("textbox", { name: "Holding tabs" }).press("Enter");
  await expect(effort).toContainText("6 pierces");
  await expect(page.getByRole("button", { name: "Holding tabs: two tabs of 0.4 mm on each outline" })).toBeVisible();
  await openChoice(page, "Where the cut runs");
  await page.getByRole("radio", { name: "outside it" }).click();
  await expect(page.getByText("Outlines are grown by 0.09 mm")).toBeVisible();
  await page.reload();
  await expect(effort).toContainText("6 pierces");
  await expect(page.getByText("Outlines are grown by 0.09 mm")).toBeVisible();
  // What is engraved can go to the machine by itself; a file with nothing in it cannot.
  await page.getByRole("switch", { name: "Cut lines" }).click();
  await page.getByRole("switch", { name: "Scored lines" }).click();
  await expect(page.getByText("All its lines are left out")).toBeVisible();
  await expect(page.getByRole("button", { name: "SVG true curves" })).toBeDisabled();
  await page.getByRole("switch", { name: "Engraved lines" }).click();
  const engraved = (await taken(page, "SVG true curves")).bytes.toString();
  expect(engraved).toContain('<g id="engrave"');
  expect(engraved).not.toContain('<g id="cut"');
  await page.close();
});

test("a machine of one's own is kept, used, and taken away", async ({ page }) => {
  await toCutter(page, "demo-ferry-key");
  await openChoice(page, "Machine");
  await page.getByRole("button", { name: "Make one of your own from it" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Laser in the shed");
  await dialog.getByLabel("Bed width").fill("20");
  await dialog.getByLabel("Bed width").press("Enter");
  await dialog.getByLabel("Layer of cut lines").fill("through");
  await dialog.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByRole("button", { name: "Machine: “Laser in the shed”" })).toBeVisible();
  await expect(page.getByText("larger than the bed of “Laser in the shed”")).toBeVisible();
  await expect(page.getByRole("button", { name: "SVG true curves" })).toBeDisabled();
  await page.getByRole("button", { name: "Change this machine" }).click();
  await dialog.getByRole("button", { name: "Take it away" }).click();
  await expect(page.getByText("Nothing stands in the way")).toBeVisible();
});

test("what falls stops the way until the maker says so, and leads back to its place", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.getByLabel("Word or line").fill("H i");
  await expect(page.getByTestId("verdict")).toContainText("fall");
  await page.getByRole("link", { name: "To the cutter" }).click();
  const svg = page.getByRole("button", { name: "SVG true curves" });
  await expect(svg).toBeDisabled();
  await page.getByRole("checkbox", { name: /Cut it all the same/ }).click();
  await expect(svg).toBeEnabled();
  await page.getByRole("link", { name: "Go there" }).first().click();
  await expect(page).toHaveURL(/\/bench\/[\w-]+$/);
  await expect(page.getByTestId("verdict")).toContainText("fall");
});

test("the paper pattern shows its pages, start holes and grain", async ({ page }) => {
  await page.goto("/bench/demo-harbour-office/cut");
  await expect(page.getByRole("radio", { name: "Paper pattern" })).toHaveAttribute("aria-checked", "true");
  await expect(page.getByText("10 to drill, one in each void")).toBeVisible();
  await expect(page.getByText("1 page", { exact: true })).toBeVisible();
  await openChoice(page, "Start holes");
  await page.getByRole("textbox", { name: "Start holes" }).fill("9");
  await page.getByRole("textbox", { name: "Start holes" }).press("Enter");
  await expect(page.getByText(/no room for a start hole of 9/).first()).toBeVisible();
  await page.close();
});

test("a trial cut runs to its end; one is stopped by the lid; the list outlives the page", async ({ page }) => {
  await toCutter(page, "demo-heron-earrings");
  const send = page.getByRole("button", { name: "Send to the trial cutter" });
  if (await page.getByRole("checkbox", { name: /Cut it all the same/ }).isVisible()) await page.getByRole("checkbox").click();
  await send.click();
  await expect(page.getByText("On the bed, not begun.")).toBeVisible();
  await page.getByRole("radio", { name: "60 ×" }).click();
  await page.getByRole("button", { name: "Start cutting" }).click();
  // At this speed it lasts less than half a second: the head is looked at when it is cut again.
  await expect(page.getByText(/^In the hand: [1-9]\d* piece/)).toBeVisible();
  await expect(page.locator("[data-dropped]")).not.toHaveCount(0);
  await page.getByRole("radio", { name: "as it is" }).click();
  await page.getByRole("button", { name: "Cut it again" }).click();
  await expect(page.getByTestId("head")).toBeVisible();
  await page.getByRole("button", { name: "Open the lid" }).click();
  await expect(page.getByRole("alert")).toContainText("The lid was opened");
  await page.reload();
  await page.getByRole("radio", { name: "Trial cut" }).click();
  await expect(page.getByRole("alert")).toContainText("% was done");
  expect(await faults(page)).toEqual([]);
  await page.getByRole("button", { name: "Off the list" }).click();
  await expect(page.getByText("Nothing has been sent yet")).toBeVisible();
});

test("a file from elsewhere is checked, repaired, and one of our own is opened as the piece it carries", async ({
  page,
}, info) => {
  mkdirSync(info.outputDir, { recursive: true });
  const bad = info.outputPath("gate.svg");
  writeFileSync(
    bad,
    '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><g fill="none" stroke="#f00" stroke-width="0.1"><rect width="60" height="40"/><circle id="a" cx="20" cy="20" r="8"/><circle id="b" cx="20" cy="20" r="8"/></g></svg>',
  );
  await page.goto("/");
  await page.getByRole("button", { name: "Check a file" }).click();
  await expect(page.getByText("Drop an SVG, DXF or PDF here.")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.getByLabel("Outline file").setInputFiles(bad);
  await expect(page.getByText("b lies exactly on a")).toBeVisible();
  const repaired = await taken(page, "Take the repaired SVG");
  expect(repaired.bytes.toString().match(/<path /g)).toHaveLength(1);
  const noise = info.outputPath("noise.dxf");
  writeFileSync(noise, "hello");
  await page.getByLabel("Outline file").setInputFiles(noise);
  await expect(page.getByRole("alert")).toContainText("neither an SVG");
  await toCutter(page, "demo-ferry-key");
  await page.getByText("More about the files").click();
  await page.getByRole("radio", { name: "the piece too" }).click();
  const own = info.outputPath("own.svg");
  writeFileSync(own, (await taken(page, "SVG true curves")).bytes);
  await page.goto("/check");
  await page.getByLabel("Outline file").setInputFiles(own);
  await page.getByRole("button", { name: "Put it on the rack and open it" }).click();
  await expect(page.getByLabel("Name of the piece")).toHaveValue("Key ring for the ferry");
  await expect(page.getByLabel("Word or line")).toHaveValue("Wilhelmina");
});
