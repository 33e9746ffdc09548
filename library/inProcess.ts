/**
 * Work on files that nobody vouches for: in a process of its own, with bounded memory and time. The process stays for the next file; one
 * that ends, takes too long, or takes too much is replaced. A thread would not do: what takes all memory takes the server with it.
 */
import { type ChildProcess, fork } from "node:child_process";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

/** What the process may take, MB: of JavaScript's own memory, and in all. */
const HEAP_MB = 400;
const ALL_MB = 1500;
/** From the moment it begins to read, ms. */
const MOST_MS = 20_000;
/** Until it is ready to read, ms. */
const STARTING_MS = 60_000;
const WATCH_MS = 100;

/** What a process answers: its result, or a sentence for people. */
type Answer<T> = { ready: true } | { result: T } | { fault: string };

/** Errors in the words of whoever asks. */
export interface Sayings {
  /** When the process ends without an answer, or takes too long. */
  damaged(): Error;
  /** With the process's own sentence. */
  faulty(message: string): Error;
}

/** @returns asks the process; one question after the other */
export function standingProcess<Q, T>(script: URL): (question: Q, said: Sayings) => Promise<T> {
  let reader: Promise<ChildProcess> | null = null;
  let last: Promise<unknown> = Promise.resolve();
  const ask = async (question: Q, { damaged, faulty }: Sayings): Promise<T> => {
    reader ??= start(script);
    let own: ChildProcess;
    try {
      own = await reader;
    } catch {
      reader = null;
      throw damaged();
    }
    if (own.exitCode !== null || own.signalCode !== null) {
      reader = null;
      return ask(question, { damaged, faulty });
    }
    return new Promise<T>((resolve, reject) => {
      const stop = () => void own.kill("SIGKILL");
      const timer = setTimeout(stop, MOST_MS);
      const watch = setInterval(() => memoryOf(own) > ALL_MB && stop(), WATCH_MS);
      const done = (settle: () => void) => {
        clearTimeout(timer);
        clearInterval(watch);
        own.off("message", answered).off("exit", ended);
        rest(own);
        settle();
      };
      const ended = () => {
        reader = null;
        done(() => reject(damaged()));
      };
      const answered = (answer: Answer<T>) => {
        if ("result" in answer) done(() => resolve(answer.result));
        else if ("fault" in answer) done(() => reject(faulty(answer.fault)));
      };
      own.on("exit", ended).on("message", answered);
      wake(own);
      own.send(question as object, (error) => error && ended());
    });
  };
  return (question, said) => {
    const answer = last.then(() => ask(question, said));
    last = answer.catch(() => {});
    return answer;
  };
}

/** A process that is waiting does not keep its parent alive. */
function rest(child: ChildProcess): void {
  child.unref();
  child.channel?.unref();
}

function wake(child: ChildProcess): void {
  child.ref();
  child.channel?.ref();
}

function start(script: URL): Promise<ChildProcess> {
  const child = fork(fileURLToPath(script), [], {
    execArgv: [`--max-old-space-size=${HEAP_MB}`],
    serialization: "advanced",
    stdio: ["ignore", "ignore", "ignore", "ipc"],
  });
  process.once("exit", () => child.kill("SIGKILL"));
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => child.kill("SIGKILL"), STARTING_MS);
    child.once("message", () => {
      clearTimeout(timer);
      child.removeListener("exit", failed);
      resolve(child);
    });
    const failed = () => {
      clearTimeout(timer);
      reject(new Error("The reading process did not start"));
    };
    child.once("exit", failed);
    child.on("error", () => {});
  });
}

/** Memory of a process in MB where the system tells (Linux), else 0: then its own bound is the only one. */
function memoryOf({ pid }: ChildProcess): number {
  try {
    return (Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]) * 4096) / 1e6;
  } catch {
    return 0;
  }
}

/** The process's side: answers every question, with a sentence for people where that fails. */
export function answerInProcess<Q, T>(
  answer: (question: Q) => Promise<T>,
  sentence: (error: Error, question: Q) => string,
): void {
  const say = (said: Answer<T>) => process.send?.(said);
  process.on("message", (question: Q) => {
    answer(question).then(
      (result) => say({ result }),
      (error: Error) => say({ fault: sentence(error, question) }),
    );
  });
  process.on("disconnect", () => process.exit());
  say({ ready: true });
}
