/**
 * Changes that are shown at once and kept on the server one after the other, so that the last one is what stays.
 */

/** @param about what the work keeps as a whole: of several that wait, only the last is sent */
export type Queue = (about: string, work: () => Promise<unknown>) => Promise<void>;

interface Change {
  about: string;
  work(): Promise<unknown>;
  sent?: Promise<unknown>;
}

/**
 * When the page ends, what waits is sent at once.
 * @param again asks the server for what it has, after a change that it did not take
 */
export function createQueue(again: () => Promise<void>): Queue {
  const waiting = new Set<Change>();
  let turn: Promise<void> = Promise.resolve();
  window.addEventListener("pagehide", () => {
    const last = new Map([...waiting].map((change) => [change.about, change]));
    for (const change of waiting) {
      change.sent = last.get(change.about) === change ? change.work() : Promise.resolve();
      // Whoever made the change hears of a fault in its turn.
      change.sent.catch(() => {});
    }
    waiting.clear();
  });
  return (about, work) => {
    const change: Change = { about, work };
    waiting.add(change);
    const sent = () => {
      waiting.delete(change);
      const isOutdated = [...waiting].some((later) => later.about === about);
      change.sent ??= isOutdated ? Promise.resolve() : work();
      return change.sent;
    };
    const done = turn.then(sent).then(
      () => {},
      async (error: Error) => {
        // What is shown is what is kept.
        await again();
        throw error;
      },
    );
    turn = done.catch(() => {});
    return done;
  };
}
