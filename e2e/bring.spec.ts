/**
 * Drawings and pictures from elsewhere come onto the bench, and go to the cutter with the word.
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import type { Page } from "@playwright/test";
import { faults } from "./axe";
import { copyOf } from "./pieces";
import { choose, openChoice } from "./sentence";
import { expect, test } from "./test";

const ROOT = fileURLToPath(new URL("..", import.meta.url));
const sheet = (page: Page) => page.getByRole("dialog", { name: "Bring in a drawing or a picture" });
const verdict = (page: Page) => page.getByTestId("verdict");

async function openTopper(page: Page, name: string): Promise<void> {
  await page.goto(`/bench/${await copyOf(page, "demo-boat-naming", name)}`);
}

async function openSheet(page: Page): Promise<void> {
  await page
    .getByRole("button", { name: /Holders/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /Drawing or picture/ }).click();
  await expect(sheet(page)).toBeVisible();
}

/** A wheel: teeth, a hole, a loose spot, and an open line. */
const WHEEL = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120">
<path fill-rule="evenodd" d="M10 10H190V110H10ZM160 98A8 8 0 1 0 176 98A8 8 0 1 0 160 98Z"/><circle cx="195" cy="5" r="3"/>
<path fill="none" stroke="black" d="M0 118H30"/></svg>`;

const svgFile = (text: string, name = "slip.svg") => ({ name, mimeType: "image/svg+xml", buffer: Buffer.from(text) });

test("lines that are drawn broad come in as outlines, or as wide as they are drawn", async ({ page }) => {
  await openTopper(page, "Buoy");
  await openSheet(page);
  const buoy =
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><circle cx="30" cy="30" r="20" fill="none" stroke="navy" stroke-width="6"/></svg>';
  await sheet(page).getByLabel("Choose a file").setInputFiles(svgFile(buoy, "buoy.svg"));
  const how = sheet(page).getByRole("radiogroup", { name: "Lines, drawn up to 6.0 mm wide" });
  await expect(how.getByRole("radio", { name: "As outlines" })).toBeChecked();
  await expect(sheet(page).getByText("It has the file’s own size, 40.0 mm wide.")).toBeVisible();
  await how.getByRole("radio", { name: "As wide as drawn" }).click();
  await expect(sheet(page).getByText("Outlines taken: 2 of 2")).toBeVisible();
  await expect(sheet(page).getByText("It has the file’s own size, 46.0 mm wide.")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await sheet(page).getByRole("button", { name: "Cancel" }).click();
});

test("a drawing: outlines are chosen by hand and by keyboard, sized, put behind the word, taken back", async ({ page }) => {
  await openTopper(page, "Slip");
  await expect(verdict(page)).toContainText("fall off");
  await openSheet(page);
  expect(await faults(page)).toEqual([]);
  await sheet(page).getByLabel("Choose a file").setInputFiles(svgFile(WHEEL));
  const outline = (n: number) => sheet(page).getByRole("checkbox", { name: new RegExp(` ${n}$`) });
  await expect(outline(1)).toBeChecked();
  await expect(sheet(page)).toContainText("3 of 3");
  await expect(sheet(page)).toContainText("2 pieces");
  await expect(sheet(page)).toContainText("1 open line was left out");
  expect(await faults(page)).toEqual([]);
  // A band around all of them with Alt leaves them out, without it takes them.
  const drawn = (await sheet(page).getByRole("group", { name: "Outlines of the file" }).boundingBox())!;
  const band = async () => {
    await page.mouse.move(drawn.x + 2, drawn.y + 2);
    await page.mouse.down();
    await page.mouse.move(drawn.x + drawn.width - 2, drawn.y + drawn.height - 2, { steps: 5 });
    await page.mouse.up();
  };
  await page.keyboard.down("Alt");
  await band();
  await page.keyboard.up("Alt");
  await expect(sheet(page)).toContainText("0 of 3");
  await band();
  await expect(sheet(page)).toContainText("3 of 3");
  await outline(3).focus();
  await page.keyboard.press("Space");
  await expect(outline(3)).not.toBeChecked();
  await expect(sheet(page)).toContainText("1 piece.");
  await expect(sheet(page).getByLabel("Width", { exact: true })).toHaveValue("180");
  await sheet(page).getByLabel("Height", { exact: true }).fill("90");
  await page.keyboard.press("Tab");
  await expect(sheet(page).getByLabel("Width", { exact: true })).toHaveValue("162");
  await sheet(page).getByRole("button", { name: "Put it on the piece" }).click();
  await expect(sheet(page)).toBeHidden();
  const group = page.getByRole("group", { name: "slip", exact: true });
  await expect(group).toContainText("90.0 mm high");
  await expect(group).toContainText("the letters, as a bar does");
  // The dot lies on the plate now.
  await expect(verdict(page)).toContainText("Everything holds.");
  // Kept on the shelf it is offered again.
  await group.getByRole("button", { name: "Keep it on your shelf" }).click();
  await expect(page.getByText("is on your shelf")).toBeVisible();
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /Drawing or picture/ }).click();
  expect(await faults(page)).toEqual([]);
  await sheet(page).getByRole("button", { name: "slip", exact: true }).first().click();
  await expect(group).toHaveCount(2);
  await page.keyboard.press("Control+z");
  await expect(group).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(group).toBeHidden();
  await expect(verdict(page)).toContainText("fall off");
  // The finished piece can be kept as an outline too; what is kept is offered beside the ornaments.
  await page.getByRole("button", { name: /^1 Words/ }).click();
  await page.getByRole("button", { name: "Keep its outline on your shelf" }).click();
  // Not the drawing, which is there as “slip”.
  await expect(page.getByText(/^“Slip” is on your shelf/)).toBeVisible();
  await page.getByRole("button", { name: /^3 Holders/ }).click();
  await page.getByRole("button", { name: "Add a holder or shape" }).click();
  await page.getByRole("menuitem", { name: /^Ornament/ }).click();
  await page.getByRole("menuitem", { name: "Slip", exact: true }).click();
  await expect(page.getByRole("group", { name: "Slip", exact: true })).toContainText("15.0 mm high");
});

test("a picture: traced, its threshold by keyboard, cut, and the file holds", async ({ page }, info) => {
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="700" height="400"><rect width="700" height="400" fill="#efe9dd"/>
    <g fill="#28424c"><ellipse cx="350" cy="210" rx="310" ry="150"/><circle cx="660" cy="30" r="1.6"/></g></svg>`;
  const path = info.outputPath("bay.png");
  writeFileSync(path, spawnSync("rsvg-convert", { input: drawn, maxBuffer: 1e8 }).stdout);
  await openTopper(page, "Bay");
  await openSheet(page);
  await sheet(page).getByLabel("Choose a file").setInputFiles(path);
  await expect(sheet(page)).toContainText("1 piece.");
  const slider = sheet(page).getByRole("slider", { name: "Where the shape ends" });
  const before = Number(await slider.getAttribute("aria-valuenow"));
  await slider.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await expect(slider).toHaveAttribute("aria-valuenow", String(before + 5));
  await sheet(page).getByRole("button", { name: "Find it" }).click();
  await expect(slider).toHaveAttribute("aria-valuenow", String(before));
  await sheet(page).getByRole("button", { name: "Show what is background" }).click();
  await page.getByLabel("Outlines of the file").click({ position: { x: 60, y: 120 } });
  await expect(sheet(page).getByRole("button", { name: "Show what is background" })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await sheet(page).getByRole("button", { name: "Put it on the piece" }).click();
  await expect(page.getByRole("group", { name: "bay", exact: true })).toBeVisible();
  await expect(verdict(page)).toContainText("Everything holds.");
  await page.getByRole("link", { name: "To the cutter" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "SVG true curves" }).click(),
  ]);
  const file = info.outputPath("piece.svg");
  await download.saveAs(file);
  const checked = spawnSync(process.execPath, ["dist/check.js", file, "--lines", "--json"], { cwd: ROOT, encoding: "utf8" });
  expect(JSON.parse(checked.stdout)).toMatchObject({ verdict: "holds", solids: 1 });
});

test("a picture that lies askew is straightened, and its tracing is changed later", async ({ page }, info) => {
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="500"><rect width="900" height="500" fill="#efe9dd"/>
    <g fill="#28424c" transform="rotate(6 450 250)"><path fill-rule="evenodd" d="M150 120H750V380H150ZM250 180H650V320H250Z"/></g></svg>`;
  const path = info.outputPath("gate.png");
  writeFileSync(path, spawnSync("rsvg-convert", { input: drawn, maxBuffer: 1e8 }).stdout);
  await openTopper(page, "Gate");
  await openSheet(page);
  await sheet(page).getByLabel("Choose a file").setInputFiles(path);
  await sheet(page).getByRole("button", { name: "Straighten" }).click();
  // It was turned clockwise.
  await expect(sheet(page).getByLabel("Turned")).toHaveValue("6");
  await expect(sheet(page).getByRole("button", { name: "Straighten" })).toBeDisabled();
  await sheet(page).getByLabel("Width").fill("120");
  await sheet(page).getByLabel("Width").press("Enter");
  // Upright it is as high as drawn: 260 of 600.
  await expect(sheet(page).getByLabel("Height")).toHaveValue(/^(52|51\.9|52\.0)\d*$/);
  // Waited for from before the press: it may be kept before the piece is drawn.
  const kept = page.waitForResponse(
    (response) => response.url().includes("/api/pictures/") && response.request().method() === "PUT",
  );
  await sheet(page).getByRole("button", { name: "Put it on the piece" }).click();
  const gate = page.getByRole("group", { name: "gate", exact: true });
  await expect(gate).toBeVisible();
  expect((await kept).status()).toBe(204);
  await page.reload();
  await page
    .getByRole("button", { name: /Holders/ })
    .first()
    .click();
  await gate.getByRole("button", { name: "Trace its picture again" }).click();
  const again = page.getByRole("dialog", { name: "Trace gate again" });
  await expect(again.getByLabel("Turned")).toHaveValue("6");
  await expect(again.getByText("Outlines taken: 2 of 2")).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await again.getByRole("button", { name: "Without holes" }).click();
  await again.getByRole("button", { name: "Take this outline" }).click();
  await expect(page.getByTestId("stage").locator("[data-solid='drawing']").first()).toBeVisible();
  await expect(gate).toContainText("52.0 mm high");
  // One step back is the outline with its hole.
  await page.getByRole("button", { name: /^Undo/ }).click();
  await gate.getByRole("button", { name: "Trace its picture again" }).click();
  await expect(again.getByText("Outlines taken: 2 of 2")).toBeVisible();
});

for (const [beginning, word, drawing] of [
  ["In your own outline", "Isolde", "bay"],
  ["Plate in your own drawing", "Isolde", "oak"],
  ["Words inside a wheel", "Skerrow Slip", "capstan wheel"],
] as const) {
  test(`${beginning}: begun by keyboard, its drawing moved by hand and by keyboard, cut in one piece`, async ({ page }, info) => {
    await page.goto("/new");
    await page.getByRole("textbox").first().fill(word);
    await page
      .getByRole("button", { name: new RegExp(`^${beginning}`) })
      .first()
      .focus();
    await page.keyboard.press("Enter");
    await expect(verdict(page)).toContainText("Everything holds.");
    await page
      .getByRole("button", { name: /Holders/ })
      .first()
      .click();
    const group = page.getByRole("group", { name: drawing, exact: true });
    await group.getByRole("button", { name: `Take the ${drawing} in the hand` }).press("Enter");
    await page.getByRole("button", { name: `Turn the ${drawing}` }).focus();
    await page.keyboard.press("ArrowLeft");
    await expect(group).toContainText("turned by 1°");
    await page.keyboard.press("Control+z");
    await expect(group).not.toContainText("turned by 1°");
    // By hand: pulled far away, it no longer holds; one step back it does.
    const part = page.locator("[data-solid='drawing']").last();
    const box = (await part.boundingBox())!;
    await page.mouse.move(box.x + 2 + box.width / 2, box.y + 3);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + 120, { steps: 5 });
    await page.mouse.up();
    await page.keyboard.press("Control+z");
    await expect(page.locator("[data-testid=verdict][aria-busy=false]")).toContainText("Everything holds.");
    await page.getByRole("link", { name: "To the cutter" }).click();
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "SVG true curves" }).click(),
    ]);
    const file = info.outputPath("piece.svg");
    await download.saveAs(file);
    const checked = spawnSync(process.execPath, ["dist/check.js", file, "--lines", "--json"], { cwd: ROOT, encoding: "utf8" });
    expect(JSON.parse(checked.stdout)).toMatchObject({ verdict: "holds", solids: 1 });
  });
}

test("an outline of one's own stands in a text and between words", async ({ page }) => {
  await openTopper(page, "Own");
  await page.evaluate(async () => {
    const outline = { id: "own-flag", name: "pennant", outline: "M0 0L60 20L0 40L0 90L-12 90L-12 0Z", height: 40 };
    const headers = { "content-type": "application/json" };
    await fetch("/api/outlines/own-flag", { method: "PUT", headers, body: JSON.stringify(outline) });
  });
  const line = page.getByLabel("Word or line").first();
  await line.fill("Kit ");
  await page.getByRole("button", { name: "Put in a symbol …" }).first().click();
  const whale = page.getByRole("menuitem", { name: "whale" });
  await whale.hover();
  await expect(page.getByText(/survives from \d/)).toBeVisible();
  await page.getByRole("menuitem", { name: "pennant" }).click();
  await expect(line).toHaveValue("Kit Ⓐ");
  await expect(page.getByText("pennant", { exact: false }).first()).toBeVisible();
  await openChoice(page, "Between words", 0);
  await page.getByRole("combobox", { name: "Between words" }).selectOption({ label: "pennant, your own" });
  await expect(page.getByRole("button", { name: /^Between words: a pennant/ })).toBeVisible();
});

test("what cannot be used is said, and nothing is lost; an SVG can be pasted", async ({ page }) => {
  await openTopper(page, "Nothing");
  await openSheet(page);
  const file = sheet(page).locator("input[type='file']");
  await file.setInputFiles(svgFile('<svg xmlns="http://www.w3.org/2000/svg"><text>Skerrow</text></svg>', "words.svg"));
  await expect(sheet(page).getByRole("alert")).toContainText("text is not an outline");
  // Open lines alone: the way out is offered beside the refusal.
  const lines = '<svg xmlns="http://www.w3.org/2000/svg"><path fill="none" stroke="black" d="M0 0H200"/></svg>';
  await file.setInputFiles(svgFile(lines, "lines.svg"));
  await expect(sheet(page).getByRole("alert")).toContainText("All lines in the file are open");
  await sheet(page).getByLabel("Open lines get a width of").fill("4");
  await page.keyboard.press("Tab");
  await expect(sheet(page)).toContainText("1 open line was given a width");
  await file.setInputFiles({ name: "seal.png", mimeType: "image/png", buffer: Buffer.from("no picture at all") });
  await expect(sheet(page).getByRole("alert")).toContainText("This picture cannot be read");
  await expect(sheet(page).getByRole("button", { name: "Put it on the piece" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await expect(sheet(page)).toBeHidden();
  await expect(verdict(page)).toContainText("fall off");
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData("text/plain", text);
    window.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, cancelable: true }));
  }, WHEEL);
  await expect(sheet(page)).toContainText("3 of 3");
});

test("a word goes round an outline of a drawing; without the drawing it stands straight and says so", async ({ page }) => {
  await page.goto(`/bench/${await copyOf(page, "demo-capstan", "Rim")}`);
  await expect(verdict(page)).toContainText("Everything holds.");
  await choose(page, "Letters run", "round a drawing’s outline");
  await page.getByRole("combobox", { name: "Which outline" }).selectOption("number 2 by size");
  await page.getByRole("radio", { name: "inside", exact: true }).click();
  const distance = page.getByRole("textbox", { name: "Distance from it" });
  await distance.fill("-2.2");
  await distance.press("Enter");
  await expect(verdict(page)).toContainText("Everything holds.");
  await expect(page.getByRole("button", { name: /^Letters run: round the outline of a drawing/ })).toBeVisible();
  await page.getByRole("button", { name: /^3 Holders/ }).click();
  await page.getByRole("button", { name: "Remove the capstan wheel" }).click();
  await page.getByRole("button", { name: /^1 Words/ }).click();
  await page.getByRole("button", { name: /^Letters run: / }).click();
  await expect(page.getByText("Its drawing is gone, so the letters stand straight.")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(verdict(page)).toContainText("Everything holds.");
});
