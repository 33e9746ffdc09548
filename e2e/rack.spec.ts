import { expect, test } from "./test";

test("the demo pieces hang there with their verdicts", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("link", { name: /^Boat-naming topper.* falls$/ })).toBeVisible();
  await expect(page.getByRole("link", { name: /^Sea-kale stake.* weak$/ })).toBeVisible();
  await expect(page.getByRole("link", { name: /^Harbour office nameplate.* holds$/ })).toBeVisible();
});

test("duplicate, rename, delete, and put back", async ({ page }) => {
  await page.goto("/");
  const menu = (name: string) => page.getByRole("button", { name: `What to do with ${name}` });
  await menu("Harbour office nameplate").click();
  await page.getByRole("menuitem", { name: "Duplicate" }).click();
  await menu("Harbour office nameplate (copy)").click();
  await page.getByRole("menuitem", { name: "Rename" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Mussel quay");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(page.getByRole("link", { name: /^Mussel quay/ })).toBeVisible();
  await menu("Mussel quay").click();
  await page.getByRole("menuitem", { name: "Delete" }).click();
  await expect(page.getByRole("link", { name: /^Mussel quay/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Put back" }).click();
  await expect(page.getByRole("link", { name: /^Mussel quay/ })).toBeVisible();
});

test("what was waited for takes nobody away from where they have gone since", async ({ page }) => {
  await page.goto("/");
  let answer = () => {};
  const held = new Promise<void>((resolve) => {
    answer = resolve;
  });
  await page.route("**/api/pieces", async (route) => {
    if (route.request().method() !== "POST") return route.fallback();
    const response = await route.fetch();
    await held;
    await route.fulfill({ response });
  });
  await page.getByRole("button", { name: "New piece", exact: true }).click();
  const made = page.waitForResponse((response) => response.request().method() === "POST");
  await page.getByRole("button", { name: "Start empty" }).click();
  await page.goBack();
  await expect(page.getByRole("link", { name: /^Harbour office nameplate/ })).toBeVisible();
  answer();
  await (await made).finished();
  // A moment for what is not to happen.
  await page.evaluate(() => new Promise((done) => setTimeout(done, 500)));
  expect(new URL(page.url()).pathname).toBe("/");
  // The piece is there all the same.
  await page.reload();
  await expect(page.getByRole("link", { name: /^New piece/ }).first()).toBeVisible();
});

test("addresses that lead nowhere say so", async ({ page }) => {
  await page.goto("/bench/nothing-here");
  await expect(page.getByRole("heading")).toContainText("not on the rack");
  await page.goto("/somewhere/else");
  await expect(page.getByRole("heading")).toContainText("nothing at this address");
  await page.getByRole("link", { name: "Back to the rack" }).click();
  await expect(page.getByRole("heading", { name: "Mend Joint" })).toBeVisible();
});

test("a page from before the app was built anew is loaded again when a screen of it is gone", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Mend Joint" })).toBeVisible();
  await page.evaluate(() => {
    (window as { before?: boolean }).before = true;
  });
  await page.route("**/assets/CheckScreen-*.js", (route) => route.fulfill({ status: 404 }), { times: 1 });
  await page.getByRole("button", { name: "Check a file" }).click();
  await page.waitForFunction(() => !(window as { before?: boolean }).before);
  await expect(page.getByRole("heading", { name: "Check a file" })).toBeVisible();
});
