/**
 * One family of errors: those whose message is a sentence for people, which says what, where and what to do.
 */

/** What was refused: a piece, a file of whichever kind, a list, a sheet, or outlines that cannot be computed with. */
export type ErrorCode = "piece" | "font" | "drawing" | "picture" | "file" | "pattern" | "outline" | "list" | "sheet" | "strength";

/** May be shown as it is. Other errors are faults of the program. */
export abstract class ClearError extends Error {
  abstract readonly code: ErrorCode;
}

/** Outlines that no computation can follow. */
export class OutlineError extends ClearError {
  override name = "OutlineError";
  readonly code = "outline";
  constructor(
    message = "The outline is so finely tangled that it could not be measured. Simplify it, or move its parts a little.",
  ) {
    super(message);
  }
}

/** What is tried out may come to outlines that cannot be computed with: `null` then. */
export function unlessTangled<Result>(attempt: () => Result): Result | null {
  try {
    return attempt();
  } catch (error) {
    if (error instanceof OutlineError) return null;
    throw error;
  }
}
