/**
 * Tests share a page of the browser, one after the other, as a maker would go on to the next piece: its workers are warm then, which is
 * most of the time that a test takes. What pages keep is cleared between them. A test that has changed what the app has in its memory for
 * all pieces (how they are cut) closes its page.
 */
import { type BrowserContext, test as base, type Page } from "@playwright/test";

export { expect } from "@playwright/test";

/** No screen of the app: whatever is opened after it is opened anew. */
const NOWHERE = "/between/tests";
/** Kept choices that are read when the app starts, and never again. */
const READ_AT_START = ["mend-joint:units"];

/** The page that tests share. */
interface Kept {
  page: Page | undefined;
}

/** Goes to another address as a link of the app does. */
const followLink = (page: Page, path: string): Promise<void> =>
  page.evaluate((to) => {
    history.pushState({}, "", to);
    dispatchEvent(new PopStateEvent("popstate", { state: {} }));
  }, path);

/** The first address of a test is opened within the app that runs; all else is loaded, as a test says it. */
function openWithin(page: Page): void {
  const load = page.goto.bind(page);
  page.goto = async (address, options) => {
    page.goto = load;
    if (!address.startsWith("/")) return load(address, options);
    await followLink(page, address);
    return null;
  };
}

/** Nothing is left of what pages kept. */
async function clearStorage(page: Page, context: BrowserContext, baseURL: string): Promise<void> {
  const session = await context.newCDPSession(page);
  await session.send("Storage.clearDataForOrigin", {
    origin: new URL(baseURL).origin,
    storageTypes: "local_storage,indexeddb",
  });
  await session.detach();
}

/** Leaves the screen, and nothing of the test in the page. @returns whether the next test can go on with it */
async function leave(page: Page): Promise<boolean> {
  if (!page.url().startsWith("http")) return false;
  await page.mouse.move(0, 0);
  await followLink(page, NOWHERE);
  return page.evaluate((keys) => {
    sessionStorage.clear();
    return keys.every((key) => localStorage.getItem(key) === null);
  }, READ_AT_START);
}

export const test = base.extend<object, { shared: BrowserContext; kept: Kept }>({
  shared: [
    async ({ browser }, use, { project }) => {
      const { baseURL = "", viewport = null } = project.use;
      const context = await browser.newContext({ baseURL, viewport });
      await use(context);
      await context.close();
    },
    { scope: "worker" },
  ],
  // biome-ignore lint/correctness/noEmptyPattern: the form that a fixture has
  kept: [async ({}, use) => use({ page: undefined }), { scope: "worker" }],
  context: async ({ shared, kept }, use) => {
    await use(shared);
    await shared.unrouteAll();
    for (const page of shared.pages()) if (page !== kept.page) await page.close();
  },
  page: async ({ context, kept, baseURL }, use, info) => {
    const page = kept.page ?? (await context.newPage());
    await clearStorage(page, context, baseURL!);
    if (kept.page) openWithin(page);
    await use(page);
    // What is on its page is told, and the next test has a browser of its own.
    if (info.status !== info.expectedStatus) {
      const body = await page.locator("body").ariaSnapshot({ timeout: 5_000 }).catch(String);
      return info.attach("page", { body });
    }
    kept.page = undefined;
    if (page.isClosed()) return;
    await page.unrouteAll();
    page.removeAllListeners();
    if (await leave(page)) kept.page = page;
    else await page.close();
  },
});
