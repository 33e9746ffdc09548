import { availableParallelism } from "node:os";
import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,library,server,web,cli,demo,benchmarks}/**/*.test.ts"],
    exclude: ["**/node_modules/**", "**/dist/**"],
    globalSetup: "server/tests/template.ts",
    maxWorkers: Math.max(2, availableParallelism()),
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
