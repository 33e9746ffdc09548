/**
 * How far a piece is from bearing what it must.
 */
import type { Examination } from "../examine";

/** What gives way, each by the share of its load that it does not take: letters each by themselves. */
export function shortInHand({ findings }: Examination): number {
  let short = 0;
  for (const finding of findings) {
    if (finding.kind !== "gives-way" || finding.accepted !== undefined) continue;
    short += (1 - finding.takes / finding.force) * Math.max(1, finding.letters.length);
  }
  return short;
}
