/**
 * Saving under delays, losses and strangers: nothing that was typed is lost, and nobody is called a stranger who is none.
 */
import { freshSeed } from "@mend-joint/core/tests/seed";
import { demoPiece } from "@mend-joint/demo";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  beginSave,
  changePiece,
  draftOf,
  isUnsaved,
  maySend,
  openSaving,
  resolveWithMine,
  type Saving,
  type Stored,
  takeAnswer,
  takeFailure,
  takeRefusal,
} from "../state/saveMachine";

const piece = demoPiece("boat-naming");
const named = (name: string) => ({ ...piece, name });

/** The server's rule: a save goes through from the version that is there, or after a save of its own. */
class Server {
  now: Stored = { version: 1, save: null, updatedAt: "", piece };
  /** All that was ever on it. */
  had = [piece.name];

  put({ base, unanswered, sending }: Saving): Stored | null {
    const { save, piece: sent } = sending!;
    if (this.now.save === save) return this.now;
    if (this.now.version !== base && !(this.now.save !== null && unanswered.includes(this.now.save))) return null;
    this.write(save, sent.name);
    return this.now;
  }

  write(save: string, name: string): void {
    this.now = { version: this.now.version + 1, save, updatedAt: "", piece: named(name) };
    this.had.push(name);
  }
}

type Step = "type" | "undo" | "save" | "arrives" | "lost before" | "lost after" | "reload" | "stranger";
const OWN: Step[] = ["type", "type", "undo", "save", "save", "arrives", "lost before", "lost after", "reload"];

function run(steps: readonly Step[]) {
  const server = new Server();
  let state = openSaving(server.now, null);
  let [typed, saves] = [0, 0];
  const send = (fate: "arrives" | "lost before" | "lost after") => {
    if (!state.sending) return;
    const { save } = state.sending;
    const answer = fate === "lost before" ? null : server.put(state);
    if (fate !== "arrives") state = takeFailure(state, save, "no answer", true);
    else state = answer ? takeAnswer(state, save, answer.version) : takeRefusal(state, save, server.now);
  };
  for (const step of steps) {
    if (step === "type") state = changePiece(state, named(`typed ${++typed}`));
    else if (step === "undo") state = changePiece(state, state.known);
    else if (step === "save") state = beginSave(state, `save ${++saves}`);
    else if (step === "reload") state = openSaving(server.now, JSON.parse(JSON.stringify(draftOf(state))));
    else if (step === "stranger") server.write(`stranger ${server.now.version}`, `by a stranger ${server.now.version}`);
    else send(step);
  }
  return {
    server,
    state: () => state,
    /** Saves until nothing is left to be saved, as the page does once the server is well. */
    settle: () => {
      for (let i = 0; i < 10 && isUnsaved(state) && state.status !== "stale"; i++) {
        if (maySend(state)) state = beginSave(state, `save ${++saves}`);
        send("arrives");
      }
    },
    keepMine: () => {
      state = resolveWithMine(state);
    },
  };
}

const options = { seed: freshSeed("saving"), numRuns: 1500 };

describe("saving", () => {
  it("ends with the server having what is here, however answers are lost, and is never stale by itself", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...OWN), { maxLength: 40 }), (steps) => {
        const { server, state, settle } = run(steps);
        const here = state().piece.name;
        expect(state().status).not.toBe("stale");
        settle();
        expect(isUnsaved(state())).toBe(false);
        expect(server.now.piece.name).toBe(here);
        expect(state().piece.name).toBe(here);
        expect(draftOf(state())).toBeNull();
      }),
      options,
    );
  });

  it("what a stranger saved is never written over unasked, and what is here is kept until someone says", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...OWN, "stranger" as const), { maxLength: 40 }), (steps) => {
        const { server, state, settle, keepMine } = run(steps);
        const here = state().piece.name;
        // Where nothing was changed here, the stranger's stays.
        const unsaved = state().piece !== state().known;
        settle();
        expect(state().piece.name).toBe(here);
        if (!unsaved) return;
        // A stranger may have saved once more since.
        for (let times = 0; times < 3 && state().status === "stale"; times++) {
          expect(draftOf(state())!.piece.name).toBe(here);
          keepMine();
          settle();
        }
        expect(server.now.piece.name).toBe(here);
        // All that was ever saved is in the history.
        expect(server.had).toContain(here);
      }),
      options,
    );
  });

  it("answers to other saves change nothing", () => {
    const sent = beginSave(changePiece(openSaving(new Server().now, null), named("a")), "one");
    expect(takeAnswer(sent, "another", 9)).toBe(sent);
    expect(takeFailure(sent, "another", "", true)).toBe(sent);
    expect(beginSave(sent, "two")).toBe(sent);
  });
});
