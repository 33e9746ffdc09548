/** Pieces of a test's own: the demo pieces hang on one rack, and other tests look at them meanwhile. */
import type { Page } from "@playwright/test";

/**
 * A copy of a demo piece, for a test that changes it.
 * @returns the copy's id
 */
export async function copyOf(page: Page, id: string, name: string): Promise<string> {
  const { document } = await (await page.request.get(`/api/pieces/${id}`)).json();
  const made = await page.request.post("/api/pieces", { data: { document: { ...document, name } } });
  return (await made.json()).id;
}
