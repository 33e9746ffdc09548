/** Choices as words of a sentence: opened by a press, those that are as usual behind "more". */
import type { Page } from "@playwright/test";

/** @param which of several lines, the last when left out */
export async function openChoice(page: Page, label: string, which?: number): Promise<void> {
  const found = page.getByRole("button", { name: new RegExp(`^${label}: `) });
  if ((await found.count()) === 0)
    await page
      .getByRole("button", { name: /^More about the line/ })
      .last()
      .click();
  const choice = which === undefined ? found.last() : found.nth(which);
  if ((await choice.getAttribute("aria-expanded")) === "false") await choice.click();
}

/** Picks one of the cards that an opened choice shows. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await openChoice(page, label);
  await page.getByRole("radiogroup", { name: label }).getByRole("radio", { name: option }).click();
}
