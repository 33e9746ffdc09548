import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,library,server,web,cli,demo,bench}/**/*.test.ts"],
    exclude: ["**/node_modules/**", "**/dist/**"],
    globalSetup: "server/tests/template.ts",
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
