/** Commands run as tests want them: in this process, with what they wrote. */
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { BUILT } from "../../tools/common.mjs";
import { type Command, runCommand } from "../terminal";

export async function outcomeOf(command: Command, args: readonly string[]) {
  const [written, said]: [Buffer[], string[]] = [[], []];
  const status = await runCommand(
    command,
    [...args],
    { write: (output) => written.push(Buffer.from(output)), say: (line) => said.push(`${line}\n`) },
    "It could not be done",
  );
  return { status, stdout: Buffer.concat(written), stderr: said.join("") };
}

/** The same as a process of its own, as from a terminal. */
export function outcomeOfProcess(command: "check" | "export" | "run" | "trace", args: readonly string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(BUILT, `${command}.js`), ...args], { maxBuffer: 1e8 });
  return { status, stdout, stderr: stderr.toString("utf8") };
}
