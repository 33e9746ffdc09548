/**
 * Tests share the browser's context, one after the other: what one has loaded and compiled the next need not. What pages keep is cleared
 * between them.
 */
import { type BrowserContext, test as base } from "@playwright/test";

export { expect } from "@playwright/test";

export const test = base.extend<object, { shared: BrowserContext }>({
  shared: [
    async ({ browser }, use, { project }) => {
      const { baseURL = "", viewport = null } = project.use;
      const context = await browser.newContext({ baseURL, viewport });
      await use(context);
      await context.close();
    },
    { scope: "worker" },
  ],
  context: async ({ shared, baseURL }, use) => {
    await use(shared);
    await shared.unrouteAll();
    for (const page of shared.pages()) await page.close();
    const page = await shared.newPage();
    const session = await shared.newCDPSession(page);
    await session.send("Storage.clearDataForOrigin", { origin: baseURL!, storageTypes: "local_storage,indexeddb" });
    await page.close();
  },
});
