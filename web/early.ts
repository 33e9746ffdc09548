/**
 * What a bench needs first is asked for while the page itself is still on its way: its piece, and the worker that measures it.
 */

/** So long the piece is waited for, ms. */
const PATIENCE = 20_000;

const answers = new Map<string, Promise<Response>>();
let begun: { worker: Worker; failed: boolean } | undefined;

export const startExaminer = (): Worker =>
  new Worker(new URL("./workers/examiner.worker.ts", import.meta.url), { type: "module" });

/** @param path of the page's address */
export function beginEarly(path: string): void {
  const id = /^\/bench\/([^/]+)\/?$/.exec(path)?.[1];
  if (!id) return;
  const own = { worker: startExaminer(), failed: false };
  own.worker.addEventListener("error", () => {
    own.failed = true;
  });
  begun = own;
  const at = `/pieces/${id}`;
  const answer = fetch(`/api${at}`, { signal: AbortSignal.timeout(PATIENCE) });
  answers.set(at, answer);
  // Its fonts can be on their way too. What fails here is told where the answer is wanted.
  answer
    .then((response) => response.clone().json())
    .then(({ document }) => own.worker.postMessage({ soon: document }))
    .catch(() => {});
}

/** The answer to a question that was asked early, once. */
export function earlyAnswer(path: string): Promise<Response> | undefined {
  const answer = answers.get(path);
  answers.delete(path);
  return answer;
}

/** The worker that was started early, once. */
export function earlyWorker(): Worker | undefined {
  const worker = begun?.failed ? undefined : begun?.worker;
  begun = undefined;
  return worker;
}
