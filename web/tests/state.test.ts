import { examine } from "@mend-joint/core";
import { boxesMeet, regionBox } from "@mend-joint/core/geometry";
import { type Piece, parsePiece, STOCKS, type Word } from "@mend-joint/core/piece";
import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { stubBrowser } from "./browser";

const { storage } = stubBrowser();
const { fallsOf } = await import("../stage/fallen");
const { lineOf, selectionOf, useBench, withMove, setUnits, clearBench } = await import("../state/bench");
const { asRun, putOnBench, usePiece, UNDO_STEPS } = await import("../state/piece");
const { copyName, keepMine, leaveBench, openPiece, saveNow, takeTheirs, useSaving } = await import("../state/saving");

const library = shippedLibrary();
const topper = demoPiece("boat-naming");
const office = demoPiece("harbour-office");
const rename = (name: string) => usePiece.getState().change((piece) => ({ ...piece, name }));

describe("what falls", () => {
  it("lies below the words, beside the stick, and not on other fallen parts", () => {
    const examination = examine(topper, library);
    const falls = fallsOf(examination);
    const stick = regionBox(examination.solids.find(({ id }) => id === "stick")!.region)!;
    const lying = examination.cutouts.flatMap(({ region }, i) => {
      const fall = falls[i];
      if (!fall) return [];
      const box = regionBox(region)!;
      return [{ minX: box.minX + fall.dx, maxX: box.maxX + fall.dx, minY: box.minY + fall.dy, maxY: box.maxY + fall.dy }];
    });
    expect(lying).toHaveLength(2);
    for (const box of lying) {
      expect(box.maxY).toBeLessThan(0);
      expect(boxesMeet(box, stick)).toBe(false);
    }
    expect(boxesMeet(lying[0]!, lying[1]!)).toBe(false);
  });

  it("nothing falls from what holds", () => {
    expect(fallsOf(examine(demoPiece("harbour-office"), library)).every((fall) => fall === null)).toBe(true);
  });

  it("a whole loose line only sinks a little", () => {
    const piece = parsePiece({
      name: "x",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text: "oooo", font: "pacifico", size: { by: "width", mm: 90 } },
        { kind: "bar", id: "b", overlap: -9, height: 30 },
      ],
    });
    const fall = fallsOf(examine(piece, library)).find((each) => each !== null)!;
    expect(fall.dy).toBeGreaterThanOrEqual(-10);
    expect(fall.dy).toBeLessThan(0);
  });
});

describe("the hand", () => {
  const examination = examine(topper, library);

  it("takes a letter with its dots, a dot alone, a holder", () => {
    expect(selectionOf(examination, "w1:k2")).toMatchObject({
      solids: ["w1:k2", "w1:k2.1"],
      move: { what: "letter", key: "k2" },
    });
    expect(selectionOf(examination, "w1:k2.1")).toMatchObject({ solids: ["w1:k2.1"], move: { what: "dots", key: "k2" } });
    expect(selectionOf(examination, "stick")).toMatchObject({ move: { what: "holder", id: "stick" } });
    expect(selectionOf(examination, "nothing")).toBeNull();
    const line = lineOf(examination, selectionOf(examination, "w1:k2.1")!)!;
    expect(line.move).toEqual({ what: "word", wordId: "w1" });
    expect(line.solids).toEqual(expect.arrayContaining(["w1:k1", "w1:k2", "w1:k2.1"]));
    expect(line.solids).not.toContain("stick");
    expect(lineOf(examination, selectionOf(examination, "stick")!)).toBeNull();
  });

  it("a move under way changes a copy, not the piece", () => {
    const moved = withMove(topper, { what: "dots", wordId: "w1", key: "k2", dx: 0, dy: -3 });
    expect((moved.parts[0] as Word).changes).not.toEqual((topper.parts[0] as Word).changes);
    expect(withMove(topper, { what: "dots", wordId: "w1", key: "k2", dx: 0, dy: 0 })).toBe(topper);
    expect(withMove(topper, null)).toBe(topper);
  });

  it("remembers the units", () => {
    setUnits("in");
    expect(storage.get("mend-joint:units")).toBe("in");
    setUnits("mm");
    clearBench();
    expect(useBench.getState()).toMatchObject({ units: "mm", selection: null, preview: null });
  });
});

describe("a run of changes", () => {
  const typed = (name: string) => asRun("name", () => rename(name));
  const steps = () => usePiece.temporal.getState().pastStates.length;

  beforeEach(() => {
    vi.useFakeTimers();
    putOnBench(topper);
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  it("is one step of undo, until the hand rests or does something else", () => {
    for (const name of ["K", "Ki", "Kit"]) typed(name);
    expect(steps()).toBe(1);
    vi.advanceTimersByTime(2000);
    typed("Kite");
    expect(steps()).toBe(2);
    rename("Kites");
    typed("Kites!");
    expect(steps()).toBe(4);
    usePiece.temporal.getState().undo(3);
    expect(usePiece.getState().piece!.name).toBe("Kit");
    usePiece.temporal.getState().undo();
    expect(usePiece.getState().piece!.name).toBe(topper.name);
  });

  it("ends with an undo: what is typed then is another step", () => {
    typed("K");
    typed("Ki");
    usePiece.temporal.getState().undo();
    typed("Z");
    expect(steps()).toBe(1);
    expect(usePiece.temporal.getState().futureStates).toHaveLength(0);
    usePiece.temporal.getState().undo();
    expect(usePiece.getState().piece!.name).toBe(topper.name);
  });
});

describe("undo", () => {
  it("takes back 200 steps and no more, and does them again", () => {
    putOnBench(topper);
    for (let i = 1; i <= UNDO_STEPS + 30; i++) rename(`Step ${i}`);
    const { undo, redo } = usePiece.temporal.getState();
    undo(UNDO_STEPS + 100);
    expect(usePiece.getState().piece!.name).toBe("Step 30");
    redo(5);
    expect(usePiece.getState().piece!.name).toBe("Step 35");
  });

  it("begins anew with another piece", () => {
    putOnBench(topper);
    rename("Changed");
    putOnBench(demoPiece("harbour-office"));
    usePiece.temporal.getState().undo();
    expect(usePiece.getState().piece!.id).toBe("demo-harbour-office");
  });
});

describe("saving", () => {
  let server: {
    version: number;
    save: string | null;
    document: Piece;
    down: boolean;
    /** Takes what is sent and loses its answer. */
    mute: boolean;
    asked: number;
    /** How long answers take, ms. */
    delay: number;
  };

  beforeEach(() => {
    vi.useFakeTimers();
    storage.clear();
    server = { version: 1, save: null, document: topper, down: false, mute: false, asked: 0, delay: 0 };
    vi.stubGlobal("fetch", async (path: string, init?: RequestInit) => {
      server.asked++;
      if (server.delay > 0) await new Promise((resolve) => setTimeout(resolve, server.delay));
      if (path.includes("harbour-office") && init?.method !== "PUT") {
        return Response.json({ id: office.id, version: 1, save: null, updatedAt: new Date(0).toISOString(), document: office });
      }
      if (server.down) throw new TypeError("no connection");
      const wire = () => ({
        id: topper.id,
        version: server.version,
        save: server.save,
        updatedAt: new Date(0).toISOString(),
        document: server.document,
      });
      if (init?.method === "PUT") {
        const { version, save, after, document } = JSON.parse(String(init.body)) as {
          version: number;
          save: string;
          after: string[];
          document: Piece;
        };
        if (version !== server.version && !after.includes(server.save ?? ""))
          return Response.json({ detail: "stale", current: wire() }, { status: 409 });
        server.version++;
        server.save = save;
        server.document = document;
        if (server.mute) throw new TypeError("the answer was lost");
      }
      if (init?.method === "POST") {
        const { document } = JSON.parse(String(init.body)) as { document: Piece };
        return Response.json({ ...wire(), id: "copy", document: { ...document, id: "copy" } }, { status: 201 });
      }
      expect(path).toContain("/api/pieces/");
      return Response.json(wire());
    });
  });
  afterEach(async () => {
    // What is still on its way arrives: pieces go on being saved after they were left.
    Object.assign(server, { down: false, mute: false, delay: 0 });
    leaveBench();
    await vi.advanceTimersByTimeAsync(30_000);
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  const status = () => useSaving.getState().status;
  const settle = () => vi.advanceTimersByTimeAsync(1000);

  it("saves shortly after a change, many changes in one", async () => {
    await openPiece(topper.id);
    const asked = server.asked;
    for (const name of ["a", "ab", "abc"]) rename(name);
    expect(status()).toBe("waiting");
    await settle();
    expect(status()).toBe("saved");
    expect(server.document.name).toBe("abc");
    expect(server.asked).toBe(asked + 1);
  });

  it("keeps a draft until the server has it, tries again, and takes the draft up after a restart", async () => {
    await openPiece(topper.id);
    server.down = true;
    rename("Not lost");
    await settle();
    expect(status()).toBe("failed");
    expect([...drafts()]).toHaveLength(1);
    putOnBench(null);
    server.down = false;
    await openPiece(topper.id);
    expect(usePiece.getState().piece!.name).toBe("Not lost");
    await settle();
    expect(server.document.name).toBe("Not lost");
    expect([...drafts()]).toHaveLength(0);
  });

  it("tells the stale one, and mine can win", async () => {
    await openPiece(topper.id);
    server.version = 5;
    server.document = { ...topper, name: "Theirs" };
    rename("Mine");
    await settle();
    expect(status()).toBe("stale");
    expect(useSaving.getState().theirs!.piece.name).toBe("Theirs");
    await keepMine();
    expect(server.document.name).toBe("Mine");
    expect(status()).toBe("saved");
  });

  it("or theirs, with mine as a copy", async () => {
    await openPiece(topper.id);
    server.version = 5;
    server.document = { ...topper, name: "Theirs" };
    rename("Mine");
    await settle();
    const copy = await takeTheirs(true);
    expect(copy!.piece.name).toBe("Mine (copy)");
    expect(usePiece.getState().piece!.name).toBe("Theirs");
    expect(status()).toBe("saved");
    await settle();
    expect(server.document.name).toBe("Theirs");
  });

  it("what is typed while a save is on its way is saved too, when the bench is left", async () => {
    await openPiece(topper.id);
    server.delay = 800;
    rename("First");
    await vi.advanceTimersByTimeAsync(600);
    expect(status()).toBe("saving");
    rename("Typed since");
    leaveBench();
    server.delay = 0;
    await vi.advanceTimersByTimeAsync(3000);
    expect(server.document.name).toBe("Typed since");
    expect([...drafts()]).toHaveLength(0);
  });

  it("another piece that is opened meanwhile does not stand in the way, nor does a late answer", async () => {
    await openPiece(topper.id);
    rename("Left behind");
    leaveBench();
    server.delay = 500;
    const late = openPiece(topper.id);
    server.delay = 0;
    await openPiece("demo-harbour-office");
    await vi.advanceTimersByTimeAsync(2000);
    await late;
    expect(usePiece.getState().piece!.id).toBe("demo-harbour-office");
    expect(server.document.name).toBe("Left behind");
  });

  it("a save whose answer was lost is known again, at once and after a reload", async () => {
    await openPiece(topper.id);
    server.mute = true;
    rename("Arrived");
    await settle();
    expect(status()).toBe("failed");
    server.mute = false;
    rename("And more");
    await vi.advanceTimersByTimeAsync(6000);
    expect(status()).toBe("saved");
    expect(server.document.name).toBe("And more");
    server.mute = true;
    rename("Arrived again");
    await settle();
    server.mute = false;
    // The page is loaded anew: nothing is left but the draft.
    const draft = JSON.parse(storage.get(drafts()[0]!)!) as { sent: string[] };
    expect(draft.sent).toContain(server.save);
  });

  it("taken back to what was saved, a lost save is written over", async () => {
    await openPiece(topper.id);
    server.mute = true;
    rename("Not wanted");
    await settle();
    expect(server.document.name).toBe("Not wanted");
    usePiece.temporal.getState().undo();
    server.mute = false;
    await vi.advanceTimersByTimeAsync(6000);
    expect(server.document.name).toBe(topper.name);
    expect(status()).toBe("saved");
  });

  it("undo goes on after the way to the cutter", async () => {
    await openPiece(topper.id);
    rename("One");
    rename("Two");
    await settle();
    leaveBench();
    expect(usePiece.getState().piece).toBeNull();
    await openPiece(topper.id);
    usePiece.temporal.getState().undo();
    expect(usePiece.getState().piece!.name).toBe("One");
    await settle();
    expect(server.document.name).toBe("One");
  });

  it("a full store of the browser is said, and saving goes on", async () => {
    await openPiece(topper.id);
    const full = vi.spyOn(localStorage, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    rename("Too much");
    expect(useSaving.getState().drafts).toBe(false);
    await settle();
    expect(server.document.name).toBe("Too much");
    full.mockRestore();
  });

  it("names are shortened between letters", () => {
    expect(copyName("a".repeat(69) + "👩‍🚀")).toBe(`${"a".repeat(69)} (copy)`);
    expect(copyName("Zoë")).toBe("Zoë (copy)");
  });

  it("saves at once when asked to", async () => {
    await openPiece(topper.id);
    rename("Now");
    await saveNow();
    expect(server.document.name).toBe("Now");
  });

  function drafts(): string[] {
    return [...storage.keys()].filter((key) => key.startsWith("mend-joint:draft:"));
  }
});
