import type { LaunchOptions } from "@playwright/test";

/** Debian's Chromium, kept quiet: nothing is fetched from outside. */
export const BROWSER: LaunchOptions = {
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
