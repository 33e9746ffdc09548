/**
 * What a command writes to, and how it ends.
 */
import { ClearError } from "@mend-joint/core/errors";
import { UsageError } from "./files";

export interface Terminal {
  /** To standard output, as it is. */
  write(output: string | Uint8Array): void;
  /** A line for people, on the error stream. */
  say(line: string): void;
}

export type Command = (argv: string[], terminal: Terminal) => Promise<number>;

/** @param doing said before errors that are no sentence for people @returns the exit code, 2 for unusable input */
export async function runCommand(command: Command, argv: string[], terminal: Terminal, doing: string): Promise<number> {
  try {
    return await command(argv, terminal);
  } catch (error) {
    const line = (error as Error).message.replace(/\s+/g, " ").trim();
    terminal.say(error instanceof ClearError || error instanceof UsageError ? line : `${doing}: ${line}`);
    return 2;
  }
}

/** Runs a command in this process. */
export async function runHere(command: Command, doing: string): Promise<void> {
  // Whoever reads the output may stop early.
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code !== "EPIPE") throw error;
    process.exit();
  });
  const terminal: Terminal = { write: (output) => process.stdout.write(output), say: (line) => console.error(line) };
  process.exitCode = await runCommand(command, process.argv.slice(2), terminal, doing);
}
