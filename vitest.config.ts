import { availableParallelism } from "node:os";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

/** Files that take longest begin first: one that is begun last would be waited for by itself. */
const LONG = ["core/tests/outside", "core/mend/mend.reference", "server/folder", "core/mend/starters", "core/mend/all"];
const rank = ({ moduleId }: TestSpecification) => {
  const at = LONG.findIndex((part) => moduleId.includes(part));
  return at === -1 ? LONG.length : at;
};

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
  }
}

export default defineConfig({
  test: {
    include: ["{core,library,server,web,cli,demo,benchmarks}/**/*.test.ts"],
    exclude: ["**/node_modules/**", "**/dist/**"],
    globalSetup: "server/tests/template.ts",
    maxWorkers: Math.max(2, availableParallelism()),
    sequence: { sequencer: LongestFirst },
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
