import { describe, expect, it } from "vitest";
import type { Labels } from "../judge";
import { describeAllDone } from "./mends";

type Done = Parameters<typeof describeAllDone>[0];

describe("what mending did", () => {
  const labels: Labels = new Map([["w:k2.1", { kind: "dot", text: "i", ordinal: "first" }]]);
  const finding = { kind: "loose", parts: ["w:k2.1"] } as unknown as Done[number]["findings"][number];
  const lower = { action: { does: "lower dot", by: 3.1 }, findings: [finding] } as unknown as Done[number];
  const tie = (count: number) =>
    ({ action: { does: "tie together", count, width: 1.7 }, findings: [finding, finding] }) as unknown as Done[number];

  it("is told with what it was done to, and once for each kind", () => {
    expect(describeAllDone([lower], labels, "mm")).toEqual(["The dot of the first i: lower it 3.1 mm."]);
    expect(describeAllDone([tie(2), lower, lower, lower], labels, "mm")).toEqual([
      "Tie it together with 2 ties of 1.7 mm.",
      "The dot of the first i: lower it 3.1 mm, and 2 more like it.",
    ]);
    expect(describeAllDone([], labels, "mm")).toEqual([]);
  });
});
