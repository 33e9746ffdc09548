/**
 * Part of a test: examines pieces before and after a mend, from the documents alone, and says what is still wrong.
 */
import { readFileSync } from "node:fs";
import { shippedLibrary } from "@mend-joint/library";
import { type Examination, examine } from "../examine";
import type { Finding } from "../judge";
import { type Piece, parsePiece } from "../piece";

export interface MendedCase {
  before: Piece;
  after: Piece;
  finding: Finding;
  kind: string;
  title: string;
}

export interface Recheck {
  problems: string[];
}

/** Shares and mm by which two measurements of the same place may differ. */
const [SHARE, GRACE] = [0.97, 0.006];

const library = shippedLibrary();
const holdOf = ({ solids, holds }: Examination, id: string) => holds[solids.findIndex((solid) => solid.id === id)];

const measuredPieces = new Map<string, Examination>();

/** Many mends are of the same piece: it is examined once. */
function measuredBefore(piece: Piece): Examination {
  const key = JSON.stringify(piece);
  const known = measuredPieces.get(key) ?? examine(parsePiece(piece), library);
  measuredPieces.set(key, known);
  return known;
}

function problemsOf({ before, after, finding, kind }: MendedCase): string[] {
  const [was, is] = [measuredBefore(before), examine(parsePiece(after), library)];
  const problems: string[] = [];
  const gone = was.solids.filter(({ id }) => !is.solids.some((solid) => solid.id === id));
  if (kind !== "leave-out" && gone.length > 0) problems.push(`${gone.map(({ id }) => id).join()} vanished`);
  const measured = ({ anchor }: { anchor: boolean }, holder: boolean) => !anchor || holder;
  for (const { id, holder } of was.solids) {
    const [old, now] = [holdOf(was, id)!, holdOf(is, id)];
    if (!now || !measured(now, holder)) continue;
    if (now.falls && !old.falls) problems.push(`${id} falls now`);
    const held = !old.falls && old.width >= was.leastWidth - GRACE && measured(old, holder);
    if (held && now.width < is.leastWidth - GRACE) problems.push(`${id} is weak now: ${now.width}`);
  }
  if (finding.means === "note") {
    const count = (of: Examination) => of.findings.filter((each) => each.kind === finding.kind).length;
    if (count(is) >= count(was)) problems.push(`still ${count(is)} of ${finding.kind}`);
    return problems;
  }
  const hanging = finding.parts.filter(
    (id) => finding.kind === "loose" || Math.abs((holdOf(was, id)?.width ?? Infinity) - finding.width) < 1e-6,
  );
  const holds = hanging.flatMap((id) => holdOf(is, id) ?? []);
  if (holds.some(({ falls }) => falls)) problems.push("something of it still falls");
  // What was loose and now hangs on a weak letter holds as well as that letter does.
  const others = was.holds.filter((hold, i) => !hold.falls && measured(hold, was.solids[i]!.holder));
  const weakest = Math.min(...others.map(({ width }) => width), was.leastWidth);
  const wanted = (finding.kind === "loose" ? Math.min(was.leastWidth, weakest) : was.leastWidth) * SHARE;
  const reached = Math.max(...holds.map(({ width, anchor }) => (anchor ? Infinity : width)));
  if (holds.length > 0 && reached < wanted) problems.push(`reaches ${reached}, wants ${wanted}`);
  return problems;
}

if (process.argv[1] === import.meta.filename) {
  const cases = JSON.parse(readFileSync(process.argv[2]!, "utf8")) as MendedCase[];
  process.stdout.write(JSON.stringify(cases.map((each): Recheck => ({ problems: problemsOf(each) }))));
}
