/**
 * Work on files that nobody vouches for: in a thread of its own, with bounded memory and time. The thread stays for the next file;
 * one that ends or takes too long is replaced.
 */
import { parentPort, Worker } from "node:worker_threads";

const MEMORY = { maxOldGenerationSizeMb: 300, maxYoungGenerationSizeMb: 64 };
const MOST_MS = 20_000;

/** What a thread answers: its result, or a sentence for people. */
type Answer<T> = { result: T } | { fault: string };

/** @returns asks the thread; one question after the other */
export function standingThread<Q, T>(script: URL): (question: Q, said: Sayings) => Promise<T> {
  let worker: Worker | null = null;
  let last: Promise<unknown> = Promise.resolve();
  const ask = (question: Q, { damaged, faulty }: Sayings) =>
    new Promise<T>((resolve, reject) => {
      worker ??= start(script, () => {
        worker = null;
      });
      const own = worker;
      const timer = setTimeout(() => void own.terminate(), MOST_MS);
      const done = (settle: () => void) => {
        clearTimeout(timer);
        own.removeAllListeners("message").off("exit", ended).unref();
        settle();
      };
      const ended = () => done(() => reject(damaged()));
      own.ref();
      own.on("exit", ended);
      own.on("message", (answer: Answer<T>) =>
        done(() => ("result" in answer ? resolve(answer.result) : reject(faulty(answer.fault)))),
      );
      own.postMessage(question);
    });
  return (question, said) => {
    const answer = last.then(() => ask(question, said));
    last = answer.catch(() => {});
    return answer;
  };
}

/** Errors in the words of whoever asks. */
export interface Sayings {
  /** When the thread ends without an answer, or takes too long. */
  damaged(): Error;
  /** With the thread's own sentence. */
  faulty(message: string): Error;
}

function start(script: URL, onEnd: () => void): Worker {
  const worker = new Worker(script, { resourceLimits: MEMORY });
  worker.on("error", () => {});
  worker.on("exit", onEnd);
  return worker;
}

/** The thread's side: answers every question, with a sentence for people where that fails. */
export function answerInThread<Q, T>(answer: (question: Q) => Promise<T>, sentence: (error: Error, question: Q) => string): void {
  parentPort!.on("message", (question: Q) => {
    answer(question).then(
      (result) => parentPort!.postMessage({ result } satisfies Answer<T>),
      (error: Error) => parentPort!.postMessage({ fault: sentence(error, question) } satisfies Answer<T>),
    );
  });
}
