import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { BROWSER } from "./browser";

/** Another one in every run, the same in all processes of it. */
process.env.MEND_JOINT_E2E_PORT ??= String(20_000 + Math.floor(Math.random() * 25_000));
const PORT = Number(process.env.MEND_JOINT_E2E_PORT);

export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.ts",
  // Guards against what hangs; on a machine that is shared all takes three times as long.
  timeout: 200_000,
  expect: { timeout: 40_000 },
  workers: 2,
  fullyParallel: true,
  outputDir: "../test-results/browser",
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: BROWSER,
    // Recording what happens takes a fifth of the time: `MEND_JOINT_TRACE=yes` for looking into a fault.
    trace: process.env.MEND_JOINT_TRACE === "yes" ? "retain-on-failure" : "off",
  },
  webServer: {
    command: "node dist/server.js",
    cwd: "..",
    url: `http://127.0.0.1:${PORT}/api/health`,
    timeout: 180_000,
    env: {
      MEND_JOINT_DATA: mkdtempSync(join(tmpdir(), "mend-joint-e2e-")),
      MEND_JOINT_PORT: String(PORT),
    },
  },
});
