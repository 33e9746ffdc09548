/** Small screens: a tablet does everything, a phone shows the piece, its verdict and mends, and gives the files. */
import { expect, type Page, test } from "@playwright/test";
import { copyOf } from "./pieces";

const SIZES = {
  tablet: { width: 1024, height: 768 },
  phone: { width: 390, height: 844 },
};

async function nothingIsCutOff(page: Page): Promise<void> {
  const [content, window] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth]);
  expect(content).toBeLessThanOrEqual(window!);
  // What is to be pressed lies on the screen, unless it is in something that scrolls sideways.
  const beyond = await page.evaluate(() => {
    const scrolls = (element: Element | null): boolean =>
      element !== null && (element.classList.contains("overflow-x-auto") || scrolls(element.parentElement));
    const pressed = [...document.querySelectorAll("a, button, input, select, [role=button]")];
    return pressed
      .filter((element) => {
        const { left, right, width } = element.getBoundingClientRect();
        return width > 1 && (left < -1 || right > innerWidth + 1) && !scrolls(element.parentElement);
      })
      .map((element) => element.outerHTML.slice(0, 120));
  });
  expect(beyond).toEqual([]);
}

async function isInSight(page: Page, locator: ReturnType<Page["locator"]>): Promise<void> {
  await expect(locator).toBeVisible();
  const box = (await locator.boundingBox())!;
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(page.viewportSize()!.width);
}

for (const [name, size] of Object.entries(SIZES)) {
  test(`on a ${name} a piece is looked at, mended and taken along`, async ({ browser }) => {
    const page = await browser.newPage({ viewport: size, hasTouch: true });
    const own = `Topper on a ${name}`;
    await copyOf(page, "demo-boat-naming", own);
    await page.goto("/");
    await expect(page.getByRole("link", { name: own })).toBeVisible();
    await nothingIsCutOff(page);
    await page.getByRole("link", { name: own }).tap();
    await expect(page.getByTestId("verdict")).toContainText("fall off");
    await nothingIsCutOff(page);
    await isInSight(page, page.getByTestId("stage"));
    await isInSight(page, page.getByTestId("verdict"));
    await page.getByRole("button", { name: "Mend all" }).tap();
    await page.getByRole("button", { name: "Mend so" }).tap();
    await expect(page.getByTestId("verdict")).toContainText("Everything holds.");
    await page.getByRole("button", { name: /^Undo/ }).tap();
    await expect(page.getByTestId("verdict")).toContainText("fall off");
    await page.goto("/bench/demo-ferry-key/cut");
    await expect(page.getByText("Nothing stands in the way")).toBeVisible();
    await nothingIsCutOff(page);
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "SVG true curves" }).tap(),
    ]);
    expect(download.suggestedFilename()).toMatch(/\.svg$/);
    await page.close();
  });
}

for (const [name, size] of Object.entries(SIZES)) {
  test(`on a ${name} a file is checked, a lettering chosen and a letter taken, and nothing is cut off`, async ({ browser }) => {
    const page = await browser.newPage({ viewport: size, hasTouch: true });
    await page.goto("/check");
    await nothingIsCutOff(page);
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20"><path fill="none" stroke="red" d="M2 2H38V18H2Z"/></svg>';
    await page
      .getByLabel("Outline file")
      .setInputFiles({ name: "a-plate-with-quite-a-long-name.svg", mimeType: "image/svg+xml", buffer: Buffer.from(svg) });
    await expect(page.getByTestId("verdict")).toContainText("holds");
    await nothingIsCutOff(page);
    await isInSight(page, page.getByTestId("verdict"));

    await page.goto("/bench/demo-boat-naming");
    await expect(page.getByTestId("verdict")).toContainText("fall off");
    await page.getByRole("button", { name: /Lettering/ }).tap();
    await page.getByRole("button", { name: "Choose from the shelf" }).tap();
    const shelf = page.getByRole("region", { name: "Lettering shelf" });
    await expect(shelf).toBeInViewport();
    const card = shelf.getByRole("listitem").first();
    await expect(card.locator("svg[viewBox]").first()).toBeVisible({ timeout: 20_000 });
    const [own, word] = [(await card.boundingBox())!, (await card.locator("svg[viewBox]").first().boundingBox())!];
    expect(word.x + word.width).toBeLessThanOrEqual(own.x + own.width);
    await nothingIsCutOff(page);
    await shelf.getByRole("button", { name: "Back to the piece" }).tap();
    await expect(page.getByTestId("stage")).toBeInViewport();

    await page.goto("/bench/demo-oyster-bar");
    const letter = page.locator('[data-solid="w1:k5"]').last();
    await letter.tap();
    const hand = page.getByRole("group", { name: "In the hand" });
    await expect(hand).toBeVisible();
    const [a, b] = [(await hand.boundingBox())!, (await letter.boundingBox())!];
    const apart = Math.max(b.x - a.x - a.width, a.x - b.x - b.width, b.y - a.y - a.height, a.y - b.y - b.height);
    expect(apart).toBeGreaterThan(0);
    await isInSight(page, hand);
    await page.close();
  });
}

test("two fingers zoom and move the view, and leave what lies under them where it was", async ({ browser }) => {
  const page = await browser.newPage({ viewport: SIZES.tablet, hasTouch: true });
  await page.goto("/bench/demo-harbour-office");
  await expect(page.getByTestId("verdict")).toContainText("wants");
  const stage = page.getByTestId("stage");
  const letter = page.locator("[data-solid='w1:k1']").first();
  const before = (await letter.boundingBox())!;
  const drawn = await letter.getAttribute("d");
  const { x, y, width, height } = (await stage.boundingBox())!;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const session = await page.context().newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", apart: number) =>
    session.send("Input.dispatchTouchEvent", {
      type,
      touchPoints:
        type === "touchEnd"
          ? []
          : [
              { x: cx - apart, y: cy, id: 1 },
              { x: cx + apart, y: cy, id: 2 },
            ],
    });
  await touch("touchStart", 40);
  for (const apart of [50, 60, 70, 80, 90, 100]) await touch("touchMove", apart);
  await touch("touchEnd", 0);
  await expect.poll(async () => (await letter.boundingBox())!.width / before.width).toBeGreaterThan(1.5);
  expect(await letter.getAttribute("d")).toBe(drawn);
  await page.close();
});

test("a long press takes one letter more; a short one takes it alone", async ({ browser }) => {
  const page = await browser.newPage({ viewport: SIZES.tablet, hasTouch: true });
  await page.goto("/bench/demo-harbour-office");
  await expect(page.getByTestId("verdict")).toContainText("wants");
  const session = await page.context().newCDPSession(page);
  const press = async (letter: string, ms: number) => {
    const { x, y, width, height } = (await page.locator(`[data-solid='${letter}']`).first().boundingBox())!;
    const at = { x: x + width * 0.12, y: y + height * 0.3 };
    await session.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [at] });
    await page.waitForTimeout(ms);
    await session.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  };
  await press("w1:k1", 50);
  await expect(page.getByText("Letter H", { exact: true })).toBeVisible();
  await press("w1:k3", 800);
  await expect(page.getByText("2 letters are in the hand")).toBeVisible();
  await press("w1:k3", 800);
  await expect(page.getByText("Letter H", { exact: true })).toBeVisible();
  await page.close();
});

test("the keys are shown by the question mark; three pointers greet a first visit, once", async ({ page }) => {
  await page.goto("/bench/demo-boat-naming");
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  const pointers = page.getByRole("region", { name: "For your first visit" });
  await expect(pointers.getByRole("listitem")).toHaveCount(3);
  await pointers.getByRole("button", { name: "Put these away" }).click();
  await expect(pointers).toHaveCount(0);
  await page.reload();
  await expect(page.getByTestId("verdict")).toContainText("fall off");
  await expect(pointers).toHaveCount(0);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("Ctrl Shift Z");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});

test("a beginning that is made for capitals is taken as typed when the maker wants it so", async ({ page }) => {
  await page.goto("/new");
  await page.getByRole("textbox").first().fill("Tide");
  await page.getByRole("radio", { name: "as typed" }).click();
  await page
    .getByRole("button", { name: /^Cut-through plate/ })
    .first()
    .click();
  await expect(page.getByLabel("Word or line")).toHaveValue("Tide");
});
