import { describe, expect, it } from "vitest";
import { DrawingError, FileError, PatternError, SvgError } from "../formats";
import { FontError } from "../lettering";
import { PieceError } from "../piece";
import { ClearError, OutlineError, unlessTangled } from ".";

describe("errors that are told", () => {
  it("are one family, each with a code and its own name", () => {
    const errors = [PieceError, FontError, DrawingError, SvgError, FileError, PatternError].map((Kind) => new Kind("Too large."));
    expect(errors.every((error) => error instanceof ClearError)).toBe(true);
    expect(errors.map(({ code }) => code)).toEqual(["piece", "font", "drawing", "drawing", "file", "pattern"]);
    expect(new Set(errors.map(({ name }) => name)).size).toBe(errors.length);
  });
});

describe("what is tried", () => {
  it("comes to nothing where outlines cannot be computed with; other faults are not hidden", () => {
    expect(unlessTangled(() => 7)).toBe(7);
    expect(
      unlessTangled(() => {
        throw new OutlineError();
      }),
    ).toBeNull();
    expect(() =>
      unlessTangled(() => {
        throw new RangeError("a fault");
      }),
    ).toThrow(RangeError);
  });
});
