import { availableParallelism } from "node:os";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

/** Files that take longest begin first: one that is begun last would be waited for by itself. */
const LONG = [
  "core/tests/outside",
  "core/mend/mend.reference",
  "server/runs",
  "server/folder",
  "server/kills",
  "core/mend/starters",
  "core/mend/all",
];
const rank = ({ moduleId }: TestSpecification) => {
  const at = LONG.findIndex((part) => moduleId.includes(part));
  return at === -1 ? LONG.length : at;
};

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
  }
}

/** Guards against what hangs, ms. A test that computes is not stopped by it, and on a machine that is shared it may take ten times as long. */
const PATIENCE = 300_000;
const COMMON = { exclude: ["**/node_modules/**", "**/dist/**"], testTimeout: PATIENCE, hookTimeout: PATIENCE };

export default defineConfig({
  test: {
    globalSetup: "server/tests/template.ts",
    maxWorkers: Math.max(2, availableParallelism()),
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        extends: true,
        test: {
          name: "core",
          include: ["{core,library}/**/*.test.ts"],
          ...COMMON,
          // The core has no state: its modules are loaded once for all files of a worker.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: "server",
          include: ["{server,cli,demo,benchmarks}/**/*.test.ts"],
          ...COMMON,
          // Each file opens a database of its own, and leaves nothing in the modules.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: "web",
          include: ["web/**/*.test.ts"],
          ...COMMON,
          // Its modules keep what is on the screen: tests that begin with an empty one load them anew.
          isolate: false,
        },
      },
    ],
  },
});
