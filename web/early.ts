/**
 * What a page needs first is asked for while the page itself is still on its way: the workers that measure, and the piece of a bench.
 */
import clipper from "clipper2-wasm/dist/es/clipper2z.wasm?url";
import harfbuzz from "harfbuzzjs/dist/harfbuzz.wasm?url";

/** So long the piece is waited for, ms. */
const PATIENCE = 20_000;

const answers = new Map<string, Promise<Response>>();
/** What the answers say that have arrived as a whole, where that is wanted at once. */
const arrived = new Map<string, string>();
/** Workers that nobody has asked anything yet. */
const begun: { worker: Worker; failed: boolean }[] = [];

export const startExaminer = (): Worker =>
  new Worker(new URL("./workers/examiner.worker.ts", import.meta.url), { type: "module" });

/** Their modules ask for it one after the other, late; then the browser has it at hand. (Pages themselves may compile nothing.) */
function fetchEngine(): void {
  // What fails here is told where it is wanted.
  for (const url of [clipper, harfbuzz]) {
    fetch(url)
      .then((response) => response.arrayBuffer())
      .catch(() => {});
  }
}

function begin(): Worker {
  const own = { worker: startExaminer(), failed: false };
  own.worker.addEventListener("error", () => {
    own.failed = true;
  });
  begun.push(own);
  return own.worker;
}

function askEarly(at: string): Promise<Response> {
  const answer = fetch(`/api${at}`, { signal: AbortSignal.timeout(PATIENCE) });
  answers.set(at, answer);
  return answer;
}

async function keepWhole(at: string): Promise<void> {
  const response = await askEarly(at);
  const text = response.ok ? await response.clone().text() : undefined;
  if (text !== undefined && answers.has(at)) arrived.set(at, text);
}

/** @param path of the page's address */
export function beginEarly(path: string): void {
  const [, id, screen] = /^\/bench\/([^/]+)\/?(.*)$/.exec(path) ?? [];
  if (id || path === "/new") fetchEngine();
  if (path === "/new") {
    // Beginnings are made by two.
    begin();
    begin();
  }
  if (!id) return;
  const worker = begin();
  const answer = askEarly(`/pieces/${id}`);
  // On the way to the cutter the verdict alone is of no use.
  if (screen === "") keepWhole(`/pieces/${id}/examination`).catch(() => {});
  // Its fonts can be on their way too. What fails here is told where the answer is wanted.
  answer
    .then((response) => response.clone().json())
    .then(({ document }) => worker.postMessage({ soon: document }))
    .catch(() => {});
}

/** The answer to a question that was asked early, once. */
export function earlyAnswer(path: string): Promise<Response> | undefined {
  const answer = answers.get(path);
  answers.delete(path);
  return answer;
}

/** The same, where it has arrived already. */
export function arrivedAnswer(path: string): string | undefined {
  const answer = arrived.get(path);
  if (answer !== undefined) answers.delete(path);
  arrived.delete(path);
  return answer;
}

/** A worker that was started early, each once. */
export function earlyWorker(): Worker | undefined {
  const next = begun.shift();
  return next?.failed ? undefined : next?.worker;
}
