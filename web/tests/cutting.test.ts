import { PROFILES } from "@mend-joint/core/cut";
import { parsePiece, STOCKS, stockByName } from "@mend-joint/core/piece";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { stubBrowser } from "./browser";

stubBrowser();
const { choicesOf, fetchProfiles, profileOf, useCutting } = await import("../state/cutting");
const { sendToCutter, sentWith } = await import("../state/api");
const { duration } = await import("../cut/duration");

const birch = parsePiece({ name: "p", stock: STOCKS[0], parts: [] });
const walnut = parsePiece({ name: "p", stock: stockByName("walnut-6"), parts: [] });
const first = useCutting.getState();
beforeEach(() => useCutting.setState(first, true));
const answer = (body: unknown, status = 200) =>
  vi.fn().mockImplementation(async () => new Response(JSON.stringify(body), { status }));

describe("choices for the cutter", () => {
  it("begin plain: the first machine, no tabs, curves, start holes as the sheet wants them", () => {
    const { profile, tabs, curves, pattern, source } = choicesOf(useCutting.getState(), birch);
    expect([profile.id, tabs, curves, source]).toEqual([PROFILES[0]!.id, undefined, "curves", false]);
    expect(pattern).toMatchObject({ paper: "a4", landscape: false, hatch: true, grain: undefined });
    expect(pattern!.drill).toBe(1.6);
    expect(choicesOf(useCutting.getState(), walnut).pattern).toMatchObject({ drill: 1.6, grain: 0 });
  });

  it("carry what was chosen", () => {
    useCutting.setState({ tabs: 3, tabWidth: 0.6, drill: 2.5, without: ["score"], source: true });
    const choices = choicesOf(useCutting.getState(), { ...walnut, grain: 30 });
    expect(choices).toMatchObject({ tabs: { count: 3, width: 0.6 }, without: ["score"], source: true });
    expect(choices.pattern).toMatchObject({ drill: 2.5, grain: 30 });
  });

  it("a machine that is gone gives way to the first one", () => {
    const own = { ...PROFILES[0]!, id: "shed", name: "Shed" };
    useCutting.setState({ own: [own], profileId: "shed" });
    expect(profileOf(useCutting.getState()).name).toBe("Shed");
    useCutting.setState({ own: [] });
    expect(profileOf(useCutting.getState())).toBe(PROFILES[0]);
  });

  it("fetches the machines of the maker's own", async () => {
    vi.stubGlobal("fetch", answer({ profiles: [{ ...PROFILES[1]!, id: "barn" }] }));
    await fetchProfiles();
    expect(useCutting.getState().own.map(({ id }) => id)).toEqual(["barn"]);
  });
});

describe("talking to the cutter", () => {
  it("sends the file as it is, with machine and sheet", async () => {
    const fetch = answer({ id: "j1" }, 201);
    vi.stubGlobal("fetch", fetch);
    const file = { name: "kit.svg", type: "image/svg+xml", bytes: new Uint8Array([1, 2, 3]) };
    expect(await sendToCutter("Kit", file, PROFILES[0]!, birch.stock)).toEqual({ id: "j1" });
    const [path, { method, body }] = fetch.mock.calls[0] as [string, { method: string; body: FormData }];
    expect([path, method, body.get("name")]).toEqual(["/api/machine/jobs", "POST", "Kit"]);
    expect(new Uint8Array(await (body.get("file") as File).arrayBuffer())).toEqual(file.bytes);
    expect(JSON.parse(body.get("profile") as string)).toEqual(PROFILES[0]);
  });

  it("a refusal comes as its sentence", async () => {
    vi.stubGlobal("fetch", answer({ detail: "The drawing is larger than the bed." }, 422));
    const file = { name: "kit.svg", type: "image/svg+xml", bytes: new Uint8Array() };
    await expect(sendToCutter("Kit", file, PROFILES[0]!, birch.stock)).rejects.toThrow("larger than the bed");
    await expect(sentWith("j1")).rejects.toThrow();
  });
});

describe("durations", () => {
  it.each([
    [0.4, "0 s"],
    [59.2, "59 s"],
    [60, "1 min 00 s"],
    [200, "3 min 20 s"],
    [3900, "1 h 05 min"],
  ])("%d s is %s", (seconds, text) => {
    expect(duration(seconds)).toBe(text);
  });
});
