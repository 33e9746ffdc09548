import { demoPiece } from "@mend-joint/demo";
import { beforeEach, expect, it, vi } from "vitest";
import { keepSteps, takeSteps } from "../state/steps";

const storage = new Map<string, string>();
beforeEach(() => {
  storage.clear();
  vi.stubGlobal("sessionStorage", {
    getItem: (key: string) => storage.get(key) ?? null,
    setItem: (key: string, value: string) => storage.set(key, value),
    removeItem: (key: string) => storage.delete(key),
  });
});

const piece = demoPiece("boat-naming");
const named = (name: string) => ({ ...piece, name });

it("steps of undo come back once, in their order", () => {
  keepSteps({ piece, past: [{ piece: named("One") }, { piece: named("Two") }], future: [{ piece: named("Later") }] });
  const steps = takeSteps(piece.id)!;
  expect(steps.piece).toEqual(piece);
  expect(steps.past.map((step) => step.piece!.name)).toEqual(["One", "Two"]);
  expect(steps.future.map((step) => step.piece!.name)).toEqual(["Later"]);
  expect(takeSteps(piece.id)).toBeNull();
});

it("of more than there is room for, the newest are kept", () => {
  const past = Array.from({ length: 3000 }, (_, i) => ({ piece: named(`Step ${i}`) }));
  keepSteps({ piece, past, future: [] });
  const kept = takeSteps(piece.id)!.past;
  expect(kept.length).toBeGreaterThan(50);
  expect(kept.length).toBeLessThan(3000);
  expect(kept.at(-1)!.piece!.name).toBe("Step 2999");
});

it("a store that takes nothing, or has nonsense in it, is no steps", () => {
  storage.set(`mend-joint:steps:${piece.id}`, '{"piece":7}');
  expect(takeSteps(piece.id)).toBeNull();
  vi.stubGlobal("sessionStorage", {
    ...sessionStorage,
    setItem: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
  });
  keepSteps({ piece, past: [{ piece: named("One") }], future: [] });
  expect(takeSteps(piece.id)).toBeNull();
});
