/**
 * What the commands do with files.
 */
import { readFileSync, statSync, writeFileSync } from "node:fs";
import { basename } from "node:path";
import type { Library } from "@mend-joint/core";
import { TAB_LIMITS, type Tabs, tabsOf } from "@mend-joint/core/cut";
import { readFontFile, shippedLibrary } from "@mend-joint/library";

/** What was asked for cannot be done; the message is one line. */
export class UsageError extends Error {
  override name = "UsageError";
}

/** What a command was asked, read by a parser of arguments. @throws UsageError in one line, with how the command is used */
export function readArguments<Read>(parse: (argv: string[]) => Read, argv: string[], usage: string): Read {
  try {
    return parse(argv);
  } catch (error) {
    throw new UsageError(`${(error as Error).message.split(". ")[0]}. ${usage}`);
  }
}

/** A figure among the options, `undefined` where it was not given. @throws UsageError */
export function numberIn<Key extends string>(
  values: Partial<Record<Key, string | undefined>>,
  key: Key,
  least: number,
  most: number,
): number | undefined {
  const text = values[key];
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === "" || !(value >= least && value <= most))
    throw new UsageError(`--${key} "${text}" is not a number from ${least} to ${most}`);
  return value;
}

/** So many holding tabs on each outline, `undefined` for none. @throws UsageError */
export function tabsIn(values: { tabs?: string | undefined }): Tabs | undefined {
  return tabsOf(Math.round(numberIn(values, "tabs", TAB_LIMITS.count.least, TAB_LIMITS.count.most) ?? 0));
}

const MAX_BYTES = 50_000_000;

/** @throws UsageError */
export function readBytes(file: string): Buffer {
  try {
    if (statSync(file).size > MAX_BYTES) throw new UsageError(`${file} is larger than ${MAX_BYTES / 1e6} MB`);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof UsageError) throw error;
    const { code } = error as NodeJS.ErrnoException;
    const reason = code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "it is a folder" : (error as Error).message;
    throw new UsageError(`${file} cannot be read: ${reason}`);
  }
}

/** @throws UsageError */
export function writeFile(path: string, bytes: Uint8Array): void {
  try {
    writeFileSync(path, bytes);
  } catch (error) {
    throw new UsageError(`${path} cannot be written: ${(error as Error).message}`);
  }
}

/** The fonts that ship with the app, and font files of the maker's own. */
export async function libraryWith(fontFiles: readonly string[]): Promise<Library> {
  const own = await Promise.all(fontFiles.map((file) => readFontFile(basename(file), readBytes(file))));
  return shippedLibrary(own.flat());
}
