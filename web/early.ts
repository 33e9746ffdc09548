/**
 * What a page needs first is asked for while the page itself is still on its way: the workers that measure, and the piece of a bench.
 */
import clipper from "clipper2-wasm/dist/es/clipper2z.wasm?url";
import harfbuzz from "harfbuzzjs/dist/harfbuzz.wasm?url";

/** So long the piece is waited for, ms. */
const PATIENCE = 20_000;

const answers = new Map<string, Promise<Response>>();
/** Workers that nobody has asked anything yet. */
const begun: { worker: Worker; failed: boolean }[] = [];

export const startExaminer = (): Worker =>
  new Worker(new URL("./workers/examiner.worker.ts", import.meta.url), { type: "module" });

/** What the workers will compile; the browser compiles what it has compiled already only once. */
const compiled: WebAssembly.Module[] = [];

/** Their modules find it at hand, which would fetch and compile it one after the other. */
function compileEarly(): void {
  for (const url of [clipper, harfbuzz]) {
    // What fails here is told where it is wanted.
    WebAssembly.compileStreaming(fetch(url)).then(
      (module) => compiled.push(module),
      () => {},
    );
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

/** @param path of the page's address */
export function beginEarly(path: string): void {
  const id = /^\/bench\/([^/]+)\/?$/.exec(path)?.[1];
  if (id || path === "/new") compileEarly();
  if (path === "/new") {
    // For what is chosen there, or for beginnings that the server does not make.
    begin();
  }
  if (!id) return;
  const worker = begin();
  const answer = askEarly(`/pieces/${id}`);
  askEarly(`/pieces/${id}/examination`).catch(() => {});
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

/** A worker that was started early, each once. */
export function earlyWorker(): Worker | undefined {
  const next = begun.shift();
  return next?.failed ? undefined : next?.worker;
}
