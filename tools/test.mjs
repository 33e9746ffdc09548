/** npm test: installs what is missing and runs everything. Closes with one line of counts. */
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { installCommands, installPackages, ROOT, requireNode, run } from "./common.mjs";
import { postgresPrograms } from "./postgres.mjs";

const RESULTS = join(ROOT, "test-results");
const UNIT = join(RESULTS, "unit.json");
const BROWSER = join(RESULTS, "browser.json");

requireNode();
// The tests start database servers of their own; Debian's package would begin one too.
if (!postgresPrograms() && process.getuid?.() === 0) {
  mkdirSync("/etc/postgresql-common/createcluster.d", { recursive: true });
  writeFileSync("/etc/postgresql-common/createcluster.d/none.conf", "create_main_cluster = false\n");
}
// Debian's packages come in while Node's do, and while what needs none of them is done.
const commands = installCommands({
  "command -v chromium-headless-shell || command -v chromium": ["chromium-headless-shell", "chromium"],
  "command -v rsvg-convert": "librsvg2-bin",
  "/usr/bin/python3 -c 'import scipy'": "python3-scipy",
  "/usr/bin/python3 -c 'import PIL'": "python3-pil",
  "/usr/bin/python3 -c 'import shapely'": "python3-shapely",
  "/usr/bin/python3 -c 'import ezdxf'": "python3-ezdxf",
  "/usr/bin/python3 -c 'import skimage'": "python3-skimage",
  "command -v pdftoppm": "poppler-utils",
  "ls /usr/lib/postgresql/*/bin/postgres": "postgresql-15",
});
await installPackages();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS);

let passed = 0;
/** What failed, by name: said last, since the end of a long log is what gets read. */
const failures = [];
let failed = 0;
/** How long each step took, as a line. */
const times = [];

async function timed(title, command, args, env) {
  console.log(`\n— ${title}`);
  const start = performance.now();
  const code = await run(command, args, env);
  times.push(`${title} ${Math.round((performance.now() - start) / 1000)} s`);
  return code;
}

/** A step that is one check by itself. @returns whether it passed */
async function check(title, command, args) {
  const good = (await timed(title, command, args)) === 0;
  if (good) passed++;
  else {
    failed++;
    failures.push(title);
  }
  return good;
}

/** A step that runs tests and writes their counts; one that writes none has failed. */
async function tests(title, command, args, env, count) {
  const code = await timed(title, command, args, env);
  const counts = count();
  passed += counts.passed;
  failed += counts.failed + (code !== 0 && counts.failed === 0 ? 1 : 0);
  failures.push(...counts.names);
  if (code !== 0 && counts.failed === 0) failures.push(title);
}

/** The beginning of what a failed test said. */
const firstLines = (messages) => (messages[0] ?? "").split("\n").slice(0, 3).join(" ").slice(0, 300);

function unitCounts() {
  if (!existsSync(UNIT)) return { passed: 0, failed: 1, names: ["Unit tests wrote no results"] };
  const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(UNIT, "utf8"));
  const names = testResults.flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter(({ status }) => status === "failed")
      .map(({ fullName, failureMessages }) => `${relative(ROOT, name)} › ${fullName}: ${firstLines(failureMessages)}`),
  );
  return { passed: numPassedTests, failed: numFailedTests, names };
}

function browserCounts() {
  if (!existsSync(BROWSER)) return { passed: 0, failed: 1, names: ["Browser tests wrote no results"] };
  const { stats, suites } = JSON.parse(readFileSync(BROWSER, "utf8"));
  const specs = (suite) => [...suite.specs, ...(suite.suites ?? []).flatMap(specs)];
  const bad = suites.flatMap(specs).filter(({ ok }) => !ok);
  for (const spec of bad) tellPage(spec);
  const names = bad.map(({ file, title }) => `e2e/${file} › ${title}`);
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected, names };
}

/** Prints what was on the page when a test failed: a log is often all that is left of a run. */
function tellPage({ title, tests }) {
  const attachments = tests.flatMap(({ results }) => results.flatMap((result) => result.attachments));
  const page = attachments.find(({ name }) => name === "page");
  if (!page) return;
  const lines = Buffer.from(page.body, "base64").toString().split("\n");
  console.log(`\nThe page of “${title}”:\n${lines.slice(0, 150).join("\n")}`);
}

async function look() {
  await check("Types", "npm", ["run", "--silent", "typecheck"]);
  await check("Format and lint", "npx", ["biome", "ci", "."]);
  await check("Imports run downwards", "npx", [
    "depcruise",
    "core",
    "library",
    "server",
    "web",
    "cli",
    "demo",
    "benchmarks",
    "--config",
    ".dependency-cruiser.cjs",
  ]);
}
const [built] = await Promise.all([check("Build", "npm", ["run", "--silent", "build"]), look()]);
await commands;
await tests(
  "Unit and reference tests",
  "npx",
  ["vitest", "run", "--reporter=default", "--reporter=json", `--outputFile.json=${UNIT}`],
  built ? { MEND_JOINT_PROGRAMS: "built" } : {},
  unitCounts,
);
await tests(
  "In the browser",
  "npx",
  ["playwright", "test", "--config", "e2e/playwright.config.ts", "--reporter=list,json"],
  { PLAYWRIGHT_JSON_OUTPUT_NAME: BROWSER },
  browserCounts,
);

console.log(`\n${times.join("; ")}`);
for (const name of failures) console.log(`\nFailed: ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
