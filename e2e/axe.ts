/** What axe finds on a page, whatever its weight. */
import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/** @returns one line for each rule that is broken; none where all is well */
export async function faults(page: Page): Promise<string[]> {
  const axe = new AxeBuilder({ page }).options({ rules: { "label-content-name-mismatch": { enabled: true } } });
  const { violations } = await axe.analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`);
}
