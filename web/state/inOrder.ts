/**
 * Changes that are shown at once and kept on the server one after the other, so that the last one is what stays.
 */

/** @param again asks the server for what it has, after a change that it did not take */
export function createQueue(again: () => Promise<void>): (work: () => Promise<unknown>) => Promise<void> {
  let sent: Promise<unknown> = Promise.resolve();
  return (work) => {
    const done = sent.then(work, work).then(
      () => {},
      async (error: Error) => {
        // What is shown is what is kept.
        await again();
        throw error;
      },
    );
    sent = done.catch(() => {});
    return done;
  };
}
