/**
 * The whole way in a real browser: from a word to a checked cut file.
 */
import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { Page } from "@playwright/test";
import { faults } from "./axe";
import { copyOf } from "./pieces";
import { openChoice } from "./sentence";
import { expect, test } from "./test";

const ROOT = fileURLToPath(new URL("..", import.meta.url));

async function newPiece(page: Page, word: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.waitForURL(/\/bench\//);
  await page.getByLabel("Word or line").fill(word);
}

const verdict = (page: Page) => page.getByTestId("verdict");
const openStep = (page: Page, name: RegExp) => page.getByRole("button", { name }).first().click();

/** Drags a part by pixels, slowly enough to be measured on the way. */
async function drag(page: Page, solid: string, dx: number, dy: number): Promise<void> {
  const box = (await page.locator(`[data-solid="${solid}"]`).last().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(x + (dx * i) / 8, y + (dy * i) / 8);
  await page.mouse.up();
}

test("type a word with an i, see the dot, drag it down, take the file, check the file", async ({ page }, info) => {
  await newPiece(page, "Kit");
  await expect(verdict(page)).toContainText("The dot of i falls off.");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText("The dot of i is not joined.");
  await expect(page.getByRole("button", { name: /^the i, .*the dot of i falls off/ })).toBeVisible();

  const scale = await page.evaluate(() =>
    Number(
      /scale\(([\d.]+)/.exec(document.querySelector("[data-solid]")!.closest("g[transform]")!.getAttribute("transform")!)![1],
    ),
  );
  const id = (await page.locator('[data-solid$=".1"]').last().getAttribute("data-solid"))!;
  await drag(page, id, 0, 4.4 * scale);
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.getByText("Nothing to mend.")).toBeVisible();

  await page.getByRole("link", { name: "To the cutter" }).click();
  const file = page.getByRole("button", { name: "SVG true curves" });
  const [download] = await Promise.all([page.waitForEvent("download"), file.click()]);
  expect(download.suggestedFilename()).toBe("kit.svg");
  const path = info.outputPath("piece.svg");
  await download.saveAs(path);
  const checked = spawnSync(process.execPath, ["dist/check.js", path, "--json"], { cwd: ROOT, encoding: "utf8" });
  expect(checked.status).toBe(0);
  expect(JSON.parse(checked.stdout)).toMatchObject({ verdict: "holds", solids: 1 });

  await page.getByRole("link", { name: "Back to the bench" }).click();
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await expect(verdict(page)).toContainText("Everything holds.");
  const said = await verdict(page).textContent();
  await page.reload();
  await expect(verdict(page)).toHaveText(said!);
  await expect(page.getByLabel("Word or line")).toHaveValue("Kit");
});

test("while a letter is in the hand the verdict is that of now, notes of the others stay, and the note beside it keeps on the stage", async ({
  page,
}) => {
  await page.goto(`/bench/${await copyOf(page, "demo-boat-naming", "In the hand")}`);
  await expect(verdict(page)).toContainText("Two dots fall off.");
  const findings = page.getByRole("region", { name: "Findings" });
  await expect(findings).toContainText("would break under a careless finger");
  await expect(findings).toContainText("The stick is");
  const letter = page.locator('[data-solid="w1:k7"]').last();
  const box = (await letter.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height * 0.7];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 10; i++) await page.mouse.move(x + 2 * i, y - 7 * i);
  await expect(verdict(page)).not.toContainText("Two dots fall off.");
  await expect(findings).toContainText("The stick is");
  const note = (await page.getByText(/→ [\d.]+ mm/).boundingBox())!;
  const findingsBox = (await findings.boundingBox())!;
  expect(note.x + note.width).toBeLessThanOrEqual(findingsBox.x);
  const inHand = await verdict(page).textContent();
  await page.mouse.up();
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await expect(verdict(page)).toHaveText(inHand!);
});

test("letters on a bar: loose without it, held with it, weak when the overlap is too small", async ({ page }) => {
  await newPiece(page, "HILL");
  await openStep(page, /Lettering/);
  await page.getByRole("button", { name: "Choose from the shelf" }).click();
  await page.getByRole("button", { name: /Archivo Black/ }).click();
  await page.getByRole("button", { name: "Back to the piece" }).click();
  await expect(verdict(page)).toContainText("Three letters fall off.");
  await openStep(page, /Holders/);
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /^Bar/ }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.getByRole("button", { name: /^Height: / }).click();
  await page.getByRole("textbox", { name: "Height" }).fill("1 mm");
  await page.getByRole("textbox", { name: "Height" }).press("Enter");
  await expect(verdict(page)).toContainText("weak place");
  await page.getByRole("textbox", { name: "Height" }).fill("-3");
  await page.getByRole("textbox", { name: "Height" }).press("Enter");
  await expect(page.getByRole("alert")).toContainText("Between 0.5 mm and 500.0 mm");
  await page.getByRole("button", { name: "Remove the bar" }).click();
  await expect(verdict(page)).toContainText("Three letters fall off.");
});

test("undo and redo, by key and by button, back to the start", async ({ page }) => {
  await newPiece(page, "Zo");
  await openChoice(page, "Letters stand");
  await page.getByLabel("Letter spacing").fill("3");
  await page.getByLabel("Letter spacing").press("Enter");
  await expect(verdict(page)).toContainText("falls off");
  await page.getByLabel("Letter spacing").blur();
  await page.keyboard.press("Control+z");
  await expect(page.getByLabel("Letter spacing")).toHaveValue("0");
  await page.getByRole("button", { name: /^Redo/ }).click();
  await expect(page.getByLabel("Letter spacing")).toHaveValue("3");
  // The steps belong to the piece: they are there after a reload.
  await page.reload();
  await openChoice(page, "Letters stand");
  await expect(page.getByLabel("Letter spacing")).toHaveValue("3");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByLabel("Word or line")).toHaveValue("");
  await expect(verdict(page)).toContainText("There is nothing to cut yet");
});

test("without a mouse: along the chain, take a letter, move it, let go", async ({ page }) => {
  await newPiece(page, "Zoë");
  const first = page.getByRole("region", { name: "Letter chain" }).getByRole("button").first();
  await expect(first).toHaveAccessibleName(/^the Z/);
  await first.focus();
  await page.keyboard.press("ArrowRight");
  const second = page.getByRole("button", { name: /^the o/ });
  await expect(second).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(second).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("Shift+ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect(page.getByLabel("Moved up")).toHaveValue("1.1");
  await page.keyboard.press("End");
  await expect(page.getByRole("button", { name: /^the ë/ })).toBeFocused();
  await page.keyboard.press("Shift+Enter");
  await expect(page.getByText("2 letters are in the hand")).toBeVisible();
  await page.keyboard.press("Home");
  await expect(first).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(second).toHaveAttribute("aria-pressed", "false");
});

test("inches and back; fractions are understood", async ({ page }) => {
  await newPiece(page, "Oyster");
  await page.getByRole("button", { name: /change to inches/ }).click();
  await openChoice(page, "Size");
  // A figure that is only passed through stays what it is: 25 mm, although 0.984 in is a little less.
  await page.getByLabel("Capitals", { exact: true }).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Tab");
  await page.getByRole("button", { name: /change to millimetres/ }).click();
  await expect(page.getByLabel("Capitals", { exact: true })).toHaveValue("25");
  await page.getByRole("button", { name: /change to inches/ }).click();
  await page.getByLabel("Capitals", { exact: true }).fill("1 1/4");
  await page.getByLabel("Capitals", { exact: true }).press("Enter");
  await expect(verdict(page)).toContainText(" in");
  await page.getByRole("button", { name: /change to millimetres/ }).click();
  await expect(page.getByLabel("Capitals", { exact: true })).toHaveValue("31.75");
});

test("bad input: too long, missing letters, nothing is lost", async ({ page }) => {
  await newPiece(page, "Bell");
  await page.getByLabel("Word or line").fill("a".repeat(600));
  await expect(page.getByRole("alert")).toContainText("600 letters; a line can have 500");
  await expect(page.getByLabel("Word or line")).toHaveValue("Bell");
  await page.getByLabel("Word or line").fill("Bell 🧭");
  await expect(verdict(page)).toContainText("Pacifico has no 🧭");
  await page.getByLabel("Word or line").fill("שלום");
  await expect(verdict(page)).toContainText("Pacifico has no");
  await openChoice(page, "Size");
  await page.getByLabel("Capitals", { exact: true }).fill("1e9");
  await page.getByLabel("Capitals", { exact: true }).press("Enter");
  await expect(page.getByRole("alert")).toContainText("cannot be read");
});

test("two windows on one piece: the stale one is told, both versions stay", async ({ page, context }) => {
  await newPiece(page, "Heron");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByLabel("Word or line").fill("Herons");
  await expect(other.getByTestId("save-state")).toHaveText("saved");
  // The other window must be out of the way: a draft of one is not the other's.
  await page.getByLabel("Word or line").fill("Heronry");
  await expect(page.getByRole("alertdialog")).toContainText("changed in another window");
  await page.getByRole("button", { name: "Take the other, keep mine as a copy" }).click();
  await expect(page.getByLabel("Word or line")).toHaveValue("Herons");
  await page.goto("/");
  await expect(page.getByRole("link", { name: /Heronry \(copy\)/ }).first()).toBeVisible();
});

test("a server that does not answer: the work is kept and saved later", async ({ page }) => {
  await newPiece(page, "Tide");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.route("**/api/pieces/**", (route) => route.abort());
  await page.getByLabel("Word or line").fill("Tides");
  await expect(page.getByRole("alert")).toContainText("Not saved");
  await page.unroute("**/api/pieces/**");
  await expect(page.getByTestId("save-state")).toHaveText("saved", { timeout: 20_000 });
  await page.reload();
  await expect(page.getByLabel("Word or line")).toHaveValue("Tides");
});

test("a finding leads to its place, and 0 back to the whole", async ({ page }) => {
  await page.goto("/bench/demo-boat-naming");
  const scale = () =>
    page.evaluate(() =>
      Number(
        /scale\(([\d.]+)/.exec(document.querySelector("[data-solid]")!.closest("g[transform]")!.getAttribute("transform")!)![1],
      ),
    );
  await expect(verdict(page)).toContainText("Two dots fall off.");
  const whole = await scale();
  await page.getByRole("button", { name: /The dot of the first i/ }).click();
  await expect.poll(scale).toBeGreaterThan(whole * 1.5);
  await page.keyboard.press("0");
  await expect.poll(scale).toBeCloseTo(whole, 1);
});

test("the load test says what each letter takes, bends the piece, and takes a finger anywhere", async ({ page }) => {
  const piece = await copyOf(page, "demo-boat-naming", "In the hand");
  await page.goto(`/bench/${piece}`);
  // Left alone for a moment, it is said among the findings.
  await page.getByRole("button", { name: /careless finger.* Load test$/ }).click();
  await expect(page.getByTestId("load-verdict")).toContainText("careless finger of 5 N", { timeout: 20_000 });
  const panel = page.getByRole("region", { name: "Load test" });
  await panel.getByRole("button", { name: /^The K / }).click();
  await expect(panel.getByRole("group", { name: "The finger" })).toContainText("Pushed out of the sheet with 5 N");
  await expect(page.getByTestId("bent")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await panel.getByRole("radio", { name: "sideways" }).click();
  await expect(panel.getByRole("group", { name: "The finger" })).toContainText("Pushed sideways with 5 N");
  // Anywhere on the piece: on its stick.
  const stick = (await page.getByTestId("push").boundingBox())!;
  await page.mouse.click(stick.x + stick.width / 2 + 4, stick.y + stick.height * 0.6);
  await expect(panel.getByText("A finger on this place")).toBeVisible();
  await expect(panel.getByText(/^Pushed into the cake with 20 N, a little askew, it holds/)).toBeVisible();
  // A sheet with a grain has its direction, and what letters took before a change stands beside.
  await page.getByRole("button", { name: "Change the sheet" }).click();
  await page.getByRole("menuitem", { name: /^walnut 3 mm/ }).click();
  await panel.getByRole("radio", { name: "upright" }).click();
  await expect(panel.getByText(/, was [\d.]+ N$/).first()).toBeVisible();
  await panel.getByRole("button", { name: "Back to the findings" }).click();
  await expect(page.getByRole("region", { name: "Findings" })).toBeVisible();
});

test("what a piece must bear becomes part of its verdict, is mended, and follows a letter that is dragged", async ({ page }) => {
  const piece = await copyOf(page, "demo-harbour-office", "In many hands");
  await page.goto(`/bench/${piece}`);
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.getByRole("button", { name: "Load test", exact: true }).click();
  const panel = page.getByRole("region", { name: "Load test" });
  await expect(panel.getByText(/It weighs 14 g/)).toBeVisible();
  await panel.getByText("It must bear this").click();
  await expect(verdict(page)).toContainText("The U gives way in the hand, at 3.4 N of 5 N.");
  await panel.getByText("How it is held, and how hard hands are").click();
  await panel.getByLabel("A finger").fill("3");
  await panel.getByLabel("A finger").press("Enter");
  await expect(verdict(page)).toContainText("Everything holds.");
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press("Control+z");
  await expect(verdict(page)).toContainText("gives way in the hand");
  // Dragged: what it takes is said anew all the while.
  const letter = (await page.locator('[data-solid="w1:k6"]').last().boundingBox())!;
  const [x, y] = [letter.x + letter.width / 2, letter.y + letter.height * 0.8];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(x, y + 2 * i);
  await expect(panel.getByText(/, was 3\.4 N$/).first()).toBeVisible();
  await page.mouse.up();
  await page.keyboard.press("Control+z");
  await expect(verdict(page)).toContainText("at 3.4 N of 5 N.");
  await panel.getByRole("button", { name: "Back to the findings" }).click();
  const findings = page.getByRole("region", { name: "Findings" });
  await expect(findings.getByText(/^The U gives way at 3\.4 N, where /)).toBeVisible();
  await findings.getByRole("button", { name: /^Strengthen it with a tie .* takes 3\.4 N/ }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.reload();
  await expect(verdict(page)).toContainText("Everything holds.");
});

test("nothing is fetched from outside", async ({ page }) => {
  const foreign: string[] = [];
  page.on("request", (request) => {
    const url = new URL(request.url());
    if (url.hostname !== "127.0.0.1" && !["data:", "blob:"].includes(url.protocol)) foreign.push(request.url());
  });
  await page.goto("/bench/demo-sea-kale");
  await expect(verdict(page)).toContainText("weak place");
  expect(foreign).toEqual([]);
});

for (const path of ["/", "/bench/demo-boat-naming", "/bench/demo-sea-kale", "/bench/demo-harbour-office"]) {
  test(`axe finds nothing at ${path}`, async ({ page }) => {
    await page.goto(path);
    if (path === "/") await expect(page.getByText("falls", { exact: true }).first()).toBeVisible();
    else await expect(verdict(page)).toContainText("wants");
    expect(await faults(page)).toEqual([]);
  });
}
