/**
 * Errors as `application/problem+json` (RFC 9457): what happened, where, what to do.
 */

import { ClearError } from "@mend-joint/core/errors";
import type { Context } from "hono";
import { HTTPException } from "hono/http-exception";
import type { ContentfulStatusCode } from "hono/utils/http-status";
import { BusyError, RefusedError } from "./machines/machine";
import { DataFolderError } from "./store/database";

const TITLES: Partial<Record<number, string>> = {
  400: "The request cannot be read",
  403: "Not from here",
  404: "There is no such thing",
  409: "That does not go at the moment",
  413: "Too large",
  422: "This cannot be used",
  500: "Something went wrong on the server",
  507: "The data folder cannot be written",
};

/** @param more further members of the problem document */
export function problem(c: Context, status: ContentfulStatusCode, detail: string, more: Record<string, unknown> = {}): Response {
  const body = JSON.stringify({ type: "about:blank", title: TITLES[status] ?? "Error", status, detail, ...more });
  return c.body(body, status, { "content-type": "application/problem+json" });
}

export function handleError(error: Error, c: Context): Response {
  if (error instanceof ClearError) return problem(c, 422, error.message, { code: error.code });
  if (error instanceof RefusedError) return problem(c, 422, error.message, { reasons: error.reasons });
  if (error instanceof BusyError) return problem(c, 409, error.message);
  if (error instanceof HTTPException) return problem(c, error.status as ContentfulStatusCode, error.message);
  if (/invalid byte sequence|unsupported Unicode|\\u0000|lone surrogate/i.test(error.message))
    return problem(
      c,
      422,
      "What was sent has characters that cannot be kept, such as U+0000 or half of a character. Take them out.",
    );
  console.error(error);
  if (error instanceof DataFolderError || /no space left|could not (write|extend)|ENOSPC|EROFS/i.test(error.message)) {
    return problem(
      c,
      507,
      "Nothing was lost here, but it could not be saved: the disk is full or write-protected. Free some space and save again.",
    );
  }
  return problem(c, 500, "The request was not carried out. What was saved before is untouched; try again.");
}
