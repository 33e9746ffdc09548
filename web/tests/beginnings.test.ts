import type { Begun } from "@mend-joint/core/mend";
import { beforeEach, describe, expect, it, vi } from "vitest";

const stopMending = vi.fn();
vi.mock("../workers/examiner", () => ({ stopMending }));
const { knownBeginning, makeBeginning, stopOtherBeginnings } = await import("../state/beginnings");

let count = 0;
/** A beginning that is made when the test says so. */
function beginning(id: string) {
  const answers: ((begun: Begun) => void)[] = [];
  const make = vi.fn(() => new Promise<Begun>((resolve) => answers.push(resolve)));
  return {
    id: `${id} ${count}`,
    name: id,
    note: "",
    own: false,
    make,
    finish: () => {
      for (const end of answers) end({} as Begun);
    },
  };
}
const wording = { words: ["Tern", "Kittiwake"], asTyped: false };

beforeEach(() => {
  count++;
  stopMending.mockClear();
});

describe("beginnings", () => {
  it("are made once, whoever asks, and kept for these words alone", async () => {
    const topper = beginning("topper");
    const [one, other] = [makeBeginning(topper, wording, 1), makeBeginning(topper, wording)];
    expect(topper.make).toHaveBeenCalledTimes(1);
    expect(knownBeginning(topper, wording)).toBeUndefined();
    topper.finish();
    expect(await one).toBe(await other);
    expect(await makeBeginning(topper, wording)).toBe(knownBeginning(topper, wording));
    expect(topper.make).toHaveBeenCalledTimes(1);
    expect(knownBeginning(topper, { ...wording, asTyped: true })).toBeUndefined();
  });

  it("that are no longer wanted free the worker that mends", async () => {
    const [topper, stake] = [beginning("topper"), beginning("stake")];
    void makeBeginning(topper, wording, 0);
    void makeBeginning(stake, wording, 1);
    stopOtherBeginnings({ beginning: topper, wording });
    expect(stopMending).toHaveBeenCalledTimes(1);
    // What was broken off is made afresh when it is wanted after all.
    const again = makeBeginning(stake, wording, 1);
    expect(stake.make).toHaveBeenCalledTimes(2);
    stake.finish();
    await again;
    stopOtherBeginnings();
    expect(stopMending).toHaveBeenCalledTimes(1);
    topper.finish();
  });

  it("one that its worker never finished is made afresh when the screen is opened again", async () => {
    const topper = beginning("topper");
    void makeBeginning(topper, wording, 0);
    stopOtherBeginnings();
    const again = makeBeginning(topper, wording, 0);
    expect(topper.make).toHaveBeenCalledTimes(2);
    topper.finish();
    await again;
  });

  it("the one that is chosen is made to its end", async () => {
    const stake = beginning("stake");
    const made = makeBeginning(stake, wording, 1);
    stopOtherBeginnings({ beginning: stake, wording });
    expect(stopMending).not.toHaveBeenCalled();
    stake.finish();
    await made;
  });

  it("one that failed can be made again", async () => {
    const failing = { ...beginning("topper"), make: vi.fn(() => Promise.reject(new Error("lost"))) };
    await expect(makeBeginning(failing, wording)).rejects.toThrow("lost");
    await expect(makeBeginning(failing, wording)).rejects.toThrow("lost");
    expect(failing.make).toHaveBeenCalledTimes(2);
  });
});
