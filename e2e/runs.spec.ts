/**
 * Many names: a list goes in, every name is examined and mended, checked sheets come out.
 */
import { readFileSync } from "node:fs";
import { REGATTA_CREW } from "@mend-joint/demo/crew";
import type { Locator, Page } from "@playwright/test";
import { unzipSync, zipSync } from "fflate";
import { faults } from "./axe";
import { expect, test } from "./test";

const verdict = (page: Page) => page.getByTestId("run-verdict");
const sheets = (page: Page) => page.getByTestId("sheet-verdict");

async function begin(page: Page, names: string, design: string): Promise<void> {
  await page.goto("/runs/new");
  await page.getByRole("textbox", { name: "The names" }).fill(names);
  await page.getByRole("button", { name: design }).first().click();
  await page.getByRole("button", { name: /^Examine \d/ }).click();
}

test("the regatta's crew goes from paste to sheets in eight actions; what drops is what was foretold", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Many names" }).click(); // 1
  await page.getByRole("button", { name: "New run" }).click(); // 2
  await page.getByRole("textbox", { name: "The names" }).fill(REGATTA_CREW.join("\n")); // 3
  expect(await faults(page)).toEqual([]);
  await page.getByRole("button", { name: /^Boat-naming topper/ }).click(); // 4
  await page.getByRole("button", { name: "Examine 40 names" }).click(); // 5
  await expect(verdict(page)).toContainText("All 40 hold.", { timeout: 120_000 });
  await expect(verdict(page)).toContainText("were mended to hold");
  await page.getByRole("option", { name: /Isolde/ }).click();
  await expect(page.getByRole("complementary", { name: "The name in sight" })).toContainText("It fell apart and was mended");
  expect(await faults(page)).toEqual([]);
  await page.getByRole("button", { name: "To the sheets" }).click(); // 6
  await page.getByRole("button", { name: "Lay on sheets" }).click(); // 7
  await expect(page.getByRole("button", { name: "Lay them again" })).toBeVisible({ timeout: 90_000 });
  await expect(sheets(page)).toContainText("40 pieces on");
  expect(await faults(page)).toEqual([]);
  const first = await page.getByRole("group", { name: "Pieces on sheet 1" }).getByRole("button").count();
  await page.getByRole("button", { name: "Send sheet 1 to the trial cutter" }).click(); // 8
  const report = page.getByRole("region", { name: "Report" });
  await expect(report).toContainText(`Pieces${first}`);
});

test("a workbook and a messy list are understood; what cannot be made is told before and after", async ({ page }) => {
  await page.goto("/runs/new");
  const input = page.getByLabel("File with the list");
  await input.setInputFiles({
    name: "crew.xlsx",
    mimeType: "application/octet-stream",
    buffer: workbook([
      ["Name", "How many"],
      ["Zoë", 2],
      ["Kit", 1],
    ]),
  });
  await expect(page.getByRole("textbox", { name: "The names" })).toHaveValue(/Zoë,2/);
  await expect(page.getByLabel("Column 2 is")).toHaveValue("count");
  await input.setInputFiles({ name: "crew.csv", mimeType: "text/csv", buffer: Buffer.from([0, 1, 2, 3, 0, 0, 9]) });
  await expect(page.getByText("This is not a list but a file of another kind")).toBeVisible();
  await page.getByRole("textbox", { name: "The names" }).fill('Kit,2\n=HYPERLINK("x"),1\nZoë,1\nKit,1\n');
  await expect(page.getByText("is a formula, not a name")).toBeVisible();
  await expect(page.getByText("“Kit” stands twice.")).toBeVisible();
  await page.getByRole("button", { name: /^Plant stake/ }).click();
  await page.getByRole("button", { name: "Examine 3 names" }).click();
  await expect(verdict(page)).toContainText("1 cannot be made", { timeout: 60_000 });
  await page.getByRole("button", { name: /^not made/ }).click();
  await expect(page.getByRole("listbox", { name: "Names" }).getByRole("option")).toHaveCount(1);
  // Retyped, it is a name like the others.
  const name = page.getByRole("textbox", { name: "Name", exact: true });
  await name.fill("Ffion");
  await name.press("Enter");
  await expect(verdict(page)).toContainText("All 4 hold.", { timeout: 60_000 });
});

test("a row goes to the bench and stays as it was made there; sheets are moved by hand and taken along", async ({ page }) => {
  await begin(page, "Kit\nFfion\nDilys\nIvy", "Plant stake");
  await expect(verdict(page)).toContainText("All 4 hold.", { timeout: 60_000 });
  await page.getByRole("option", { name: /Ffion/ }).click();
  await page.getByRole("button", { name: "Open on the bench" }).click();
  await expect(page.getByRole("link", { name: /^Row 2 of/ })).toBeVisible();
  await page.getByLabel("Word or line").fill("Ffionn");
  await expect(page.getByTestId("save-state")).toHaveText("saved");
  await page.getByRole("link", { name: /^Row 2 of/ }).click();
  await page.getByRole("option", { name: /Ffionn/ }).click();
  await expect(page.getByText("On the bench it says “Ffionn”, in the list “Ffion”.")).toBeVisible();
  await page.getByRole("button", { name: "To the sheets" }).click();
  await page.getByRole("button", { name: "Lay on sheets" }).click();
  await expect(page.getByRole("button", { name: "Lay them again" })).toBeVisible({ timeout: 60_000 });
  const piece = page.getByRole("button", { name: /^2: / });
  await piece.focus();
  // Onto its neighbour: red while it is moved, told when it is put down, and no file goes out.
  const middleOf = async (button: Locator) => {
    const { x, y, width, height } = (await button.boundingBox())!;
    return [x + width / 2, y + height / 2] as const;
  };
  const place = () => middleOf(piece);
  const goal = await middleOf(page.getByRole("button", { name: /^1: / }));
  for (let n = 0; n < 6 && !/too near/.test((await piece.getAttribute("aria-label"))!); n++) {
    const before = await place();
    await piece.press(goal[0] < before[0] ? "Shift+ArrowLeft" : "Shift+ArrowRight");
    await piece.press(goal[1] < before[1] ? "Shift+ArrowUp" : "Shift+ArrowDown");
    await expect.poll(place).not.toEqual(before);
  }
  await expect(page.getByRole("button", { name: /^2: .*too near/ })).toBeVisible();
  await piece.press("Enter");
  await expect(page.getByText("Pieces lie too near to each other")).toBeVisible();
  await expect(page.getByRole("button", { name: "Send sheet 1 to the trial cutter" })).toBeDisabled();
  await page.getByRole("button", { name: "Lay them again" }).click();
  await expect(page.getByText("Pieces lie too near to each other")).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole("button", { name: "Lay them again" })).toBeVisible({ timeout: 60_000 });
  // Holding tabs are in what is taken along; numbers are not when their lines are left out.
  await page.getByLabel("Holding tabs").fill("2");
  await page.getByLabel("Holding tabs").press("Enter");
  await expect(page.getByLabel("Tab length")).toHaveValue("0.4");
  await page.getByRole("button", { name: "Scored", exact: true }).click();
  const waiting = page.waitForEvent("download");
  await page.getByRole("button", { name: /^All sheets and the cut list/ }).click();
  const zip = unzipSync(new Uint8Array(readFileSync(await (await waiting).path())));
  expect(Object.keys(zip).map((name) => name.split(".").at(-1))).toEqual(["svg", "csv", "pdf"]);
  const sheet = new TextDecoder().decode(Object.values(zip)[0]);
  expect(sheet).not.toContain('<g id="score"');
  const cut = /<g id="cut"[\s\S]*?<\/g>/.exec(sheet)![0];
  expect(cut.split("M").length).toBeGreaterThan(2 * cut.split("Z").length);
  expect(new TextDecoder().decode(zip["cut-list.csv"])).toContain("Ffionn");
});

test("pieces of the rack are laid on sheets together", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Several on sheets" }).click();
  for (const name of ["Oyster bar ring sign", "Harbour gate sign"])
    await page.getByRole("button", { name: `Pick ${name}` }).click();
  expect(await faults(page)).toEqual([]);
  await page.getByRole("button", { name: "Lay 2 on sheets" }).click();
  await page.getByRole("button", { name: "Lay on sheets" }).click();
  await expect(sheets(page)).toHaveText("2 pieces on 1 sheet", { timeout: 60_000 });
});

test("an offcut is filled first, and what is left of it is kept", async ({ page }) => {
  await begin(page, "Kit\nFfion\nDilys\nIvy", "Plant stake");
  await expect(verdict(page)).toContainText("All 4 hold.", { timeout: 60_000 });
  await page.getByRole("button", { name: "To the sheets" }).click();
  await page.getByRole("button", { name: "Add an offcut" }).click();
  await page.getByLabel("Its width").fill("130");
  await page.getByLabel("Its height").fill("120");
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("button", { name: /^Offcut 1 130 × 120 mm, filled first/ })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  expect(await faults(page)).toEqual([]);
  // One that was drawn: too large it is told, of the right size it is taken; it is not wanted here.
  const drawn = (mm: number) => ({
    name: `slip-${mm}.svg`,
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${mm}mm" height="90mm" viewBox="0 0 ${mm} 90"><path d="M0 0H${mm}V60L20 90H0Z"/></svg>`,
    ),
  });
  await page.getByTestId("offcut-file").setInputFiles(drawn(1500));
  await expect(page.getByText("What is drawn there is 1500 × 90 mm, larger than the sheet.")).toBeVisible();
  await page.getByTestId("offcut-file").setInputFiles(drawn(80));
  const slip = page.getByRole("button", { name: /^slip-80 80 × 90 mm, filled first/ });
  await slip.click();
  await expect(page.getByRole("button", { name: /^slip-80 80 × 90 mm$/ })).toHaveAttribute("aria-pressed", "false");
  await page.getByRole("button", { name: "Lay on sheets" }).click();
  await expect(sheets(page)).toHaveText("4 pieces on 2 sheets", { timeout: 60_000 });
  await expect(page.getByRole("heading", { name: "Sheet 1, Offcut 1" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Lay them again" })).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Keep what is left of sheet 1" }).click();
  await expect(page.getByText("Chosen as it was before.")).toBeVisible();
  // A piece goes to where it has room.
  await page.getByRole("button", { name: /^1: / }).first().focus();
  await page.getByLabel("Move it to another sheet").first().selectOption("sheet 2");
  await expect(
    page.getByRole("button", { name: /^3: .*, pinned$/ }).or(page.getByRole("button", { name: /^4: .*, pinned$/ })),
  ).toBeVisible();
});

/** The least workbook of one sheet (Office Open XML, ECMA-376), with texts in the cells. */
function workbook(rows: readonly (readonly (string | number)[])[]): Buffer {
  const cell = (value: string | number, at: string) =>
    typeof value === "number" ? `<c r="${at}"><v>${value}</v></c>` : `<c r="${at}" t="inlineStr"><is><t>${value}</t></is></c>`;
  const data = rows
    .map((row, r) => `<row r="${r + 1}">${row.map((value, c) => cell(value, `${"AB"[c]}${r + 1}`)).join("")}</row>`)
    .join("");
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const relation = "http://schemas.openxmlformats.org/package/2006/relationships";
  const files = {
    "[Content_Types].xml":
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    "_rels/.rels": `<Relationships xmlns="${relation}"><Relationship Id="r1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Crew" sheetId="1" r:id="r1"/></sheets></workbook>`,
    "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${relation}"><Relationship Id="r1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    "xl/worksheets/sheet1.xml": `<worksheet xmlns="${main}"><sheetData>${data}</sheetData></worksheet>`,
  };
  const bytes = Object.fromEntries(
    Object.entries(files).map(([name, text]) => [
      name,
      new TextEncoder().encode(`<?xml version="1.0" encoding="UTF-8"?>${text}`),
    ]),
  );
  return Buffer.from(zipSync(bytes));
}
