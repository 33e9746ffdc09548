import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { grainIn } from "@mend-joint/core/runs";
import { expect, it } from "vitest";
import { turnsOf } from "./sheets";

it("where the grain stays, it lies along the sheet, whichever way it runs in the piece", () => {
  const walnut = STOCKS.find(({ id }) => id === "walnut-6")!;
  for (const grain of [undefined, 0, 90, -35]) {
    const piece = parsePiece({ name: "Kit", stock: walnut, parts: [], ...(grain !== undefined && { grain }) });
    const design = { piece, from: null } as unknown as Parameters<typeof grainIn>[0];
    const along = turnsOf("halves", grainIn(design)).map((turn) => (((turn + (grain ?? 0)) % 180) + 180) % 180);
    expect(along).toEqual([0, 0]);
  }
  expect(turnsOf("quarters", 90)).toEqual(turnsOf("quarters", 0));
  expect(turnsOf("none", 90)).toEqual([0]);
});
