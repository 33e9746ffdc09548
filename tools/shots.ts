/**
 * npm run shots: takes the pictures in docs/screenshots/ anew, from the demo pieces, in a data folder of its own.
 */
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { chromium, type Page } from "@playwright/test";
import { rasterise } from "../cli/exporting";
import { OUTLINES } from "../core/piece";
import { BROWSER } from "../e2e/browser";

const OUT = "docs/screenshots";

const VIEWS: { name: string; path: string; before?: (page: Page) => Promise<void> }[] = [
  {
    name: "rack",
    path: "/",
    // The sixth is the last that is wholly in sight.
    before: (page) =>
      page
        .getByText(/^(holds|weak|falls)$/)
        .nth(5)
        .waitFor(),
  },
  {
    name: "bench-falls",
    path: "/bench/demo-boat-naming",
    before: async (page) => {
      await page.getByRole("button", { name: /^Dots and accents: / }).click();
      await page.getByRole("radio", { name: /beside.*holds/ }).waitFor();
    },
  },
  {
    name: "bench-loads",
    path: "/bench/demo-boat-naming",
    before: async (page) => {
      await page.getByRole("button", { name: "Load test", exact: true }).click();
      await page.getByRole("button", { name: /^The e / }).click();
      await page.getByTestId("bent").waitFor();
      await page.waitForTimeout(1300);
    },
  },
  {
    name: "stock",
    path: "/stock",
    before: async (page) => {
      await page.getByRole("button", { name: /^cherry 3 mm/ }).click();
      await page.getByRole("form", { name: "cherry 3 mm" }).waitFor();
    },
  },
  {
    name: "test-piece",
    path: "/stock/birch-3/test",
    before: async (page) => {
      await page.getByRole("button", { name: "Make a test piece" }).click();
      await page.getByRole("button", { name: "Let the trial cutter try it" }).click();
      await page.getByTestId("survival-chart").locator("svg").waitFor();
      await page.waitForTimeout(500);
    },
  },
  {
    name: "bench-mend",
    path: "/bench/demo-boat-naming",
    before: async (page) => {
      await page.getByRole("button", { name: "Mend all" }).click();
      await page.getByRole("region", { name: "Mends found" }).waitFor();
    },
  },
  {
    name: "bench-widths",
    path: "/bench/demo-sea-kale",
    before: (page) => page.getByRole("button", { name: "Widths" }).click(),
  },
  { name: "new", path: "/new", before: (page) => page.waitForTimeout(12_000) },
  {
    name: "bench-ring",
    path: "/bench/demo-oyster-bar",
    before: async (page) => {
      await page.locator('[data-solid="w1:k5"]').last().click();
    },
  },
  {
    name: "bring-in",
    path: "/bench/demo-boat-naming",
    before: async (page) => {
      await page
        .getByRole("button", { name: /Holders/ })
        .first()
        .click();
      await page.getByRole("button", { name: "Add a holder or shape" }).click();
      await page.getByRole("menuitem", { name: /Drawing or picture/ }).click();
      await page
        .getByLabel("Choose a file")
        .setInputFiles({ name: "bay.png", mimeType: "image/png", buffer: await pictureOfBay() });
      await page.getByText("2 pieces").waitFor();
    },
  },
  { name: "cut-finished", path: "/bench/demo-ferry-key/cut", before: (page) => page.getByTestId("effort").waitFor() },
  { name: "cut-paper", path: "/bench/demo-harbour-office/cut", before: (page) => page.getByText("10 to drill").waitFor() },
  {
    name: "cut-trial",
    path: "/bench/demo-ferry-key/cut",
    before: async (page) => {
      await page.getByRole("button", { name: "Send to the trial cutter" }).click();
      await page.getByRole("button", { name: "Start cutting" }).click();
      await page.waitForTimeout(2600);
    },
  },
  {
    name: "check",
    path: "/check",
    before: async (page) => {
      const body =
        '<path id="plate" d="M5 5H115V65H5Z"/><circle id="hole" cx="20" cy="20" r="9"/><circle id="disc" cx="20" cy="20" r="5"/><path id="slot" d="M40 15H100V17H40Z"/><path id="second-slot" d="M40 17.6H100V20H40Z"/><circle id="eye" cx="20" cy="50" r="6"/><circle id="eye-again" cx="20" cy="50" r="6"/>';
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="70mm" viewBox="0 0 120 70"><g fill="none" stroke="#ff0000" stroke-width="0.1">${body}</g></svg>`;
      await page
        .getByLabel("Outline file")
        .setInputFiles({ name: "gate-plate.svg", mimeType: "image/svg+xml", buffer: Buffer.from(svg) });
      await page.getByText("lies exactly on").waitFor();
    },
  },
  {
    name: "bench-holders",
    path: "/bench/demo-ferry-key",
    before: async (page) => {
      await page
        .getByRole("button", { name: /Holders/ })
        .first()
        .click();
      await page.getByRole("button", { name: /^Size: .*across/ }).click();
    },
  },
  {
    name: "runs-new",
    path: "/runs/new",
    before: async (page) => {
      await page.getByText("Try it with the crew of the regatta").click();
      await page.waitForTimeout(9000);
    },
  },
  { name: "run-names", path: "/runs/new", before: examineCrew },
  {
    name: "run-sheets",
    path: "/runs/new",
    before: async (page) => {
      await examineCrew(page);
      await page.getByRole("button", { name: "To the sheets" }).click();
      await page.getByRole("button", { name: "Lay on sheets" }).click();
      await page.getByRole("button", { name: "Lay them again" }).waitFor({ timeout: 90_000 });
    },
  },
  {
    name: "bench-shelf",
    path: "/bench/demo-boat-naming",
    before: async (page) => {
      await page
        .getByRole("button", { name: /Lettering/ })
        .first()
        .click();
      await page.getByRole("button", { name: "Choose from the shelf" }).click();
      await page.getByText("What survives best").waitFor({ timeout: 60_000 });
    },
  },
];

/** The crew through the topper with the loose dot. */
async function examineCrew(page: Page): Promise<void> {
  await page.getByText("Try it with the crew of the regatta").click();
  await page.getByRole("button", { name: /^Boat-naming topper/ }).click();
  await page.getByLabel("What the run is called").fill("Regatta crew");
  await page.getByRole("button", { name: "Examine 40 names" }).click();
  await page.getByText("All 40 hold.").waitFor({ timeout: 120_000 });
}

/** What a maker might have photographed: the bay and its islet, dark on paper. */
async function pictureOfBay(): Promise<Buffer> {
  const shape = `<path fill="#31505a" transform="translate(100 62)" d="${OUTLINES.bay}M74 40A5 5 0 1 1 64 40A5 5 0 1 1 74 40Z"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="760" viewBox="0 0 200 126"><rect width="200" height="126" fill="#efe8da"/>${shape}</svg>`;
  return Buffer.from(await rasterise(Buffer.from(svg)));
}

const server = spawn(process.execPath, ["dist/server.js"], {
  env: { ...process.env, MEND_JOINT_DATA: ":memory:", MEND_JOINT_PORT: "0" },
  stdio: ["ignore", "pipe", "inherit"],
});
const url = await new Promise<string>((resolve, reject) => {
  server.stdout.on("data", (chunk) => {
    const found = /http:\/\/[\d.]+:\d+/.exec(String(chunk));
    if (found) resolve(found[0]);
  });
  server.on("exit", () => reject(new Error("The server did not start")));
});

mkdirSync(OUT, { recursive: true });
const browser = await chromium.launch(BROWSER);
try {
  // All views, or those that are named.
  const named = process.argv.slice(2);
  for (const { name, path, before } of VIEWS.filter((view) => named.length === 0 || named.includes(view.name))) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
    // The pointers of a first visit would lie on the findings.
    await page.addInitScript(() => localStorage.setItem("mend-joint-first-visit", "yes"));
    await page.goto(url + path);
    await page.waitForTimeout(2500);
    if (before) await before(page);
    await page.waitForTimeout(1200);
    await page.screenshot({ path: `${OUT}/${name}.png` });
    console.log(`${OUT}/${name}.png`);
    await page.close();
  }
} finally {
  await browser.close();
  server.kill();
}
