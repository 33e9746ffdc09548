/**
 * Findings that the maker has looked at and lets be, with a reason. They stay in sight and no longer decide the verdict.
 */
import type { Accepted } from "../piece";
import type { Finding } from "./findings";

/** Narrower than it was by more than this (mm), or wanting so much more, a place is not the one that was accepted. */
const SAME_WIDTH = 0.05;

/** That there is nothing to cut is no matter of opinion. */
export const isAcceptable = (finding: Finding): boolean => finding.kind !== "empty" || finding.why !== "no words";

/** What is remembered of a finding. */
export function acceptFinding(finding: Finding, reason: string): Accepted {
  const wanted = wantedOf(finding);
  return {
    kind: finding.kind,
    parts: meetingOf(finding),
    width: rounded(finding.width),
    ...(wanted > 0 && Number.isFinite(wanted) && { wanted: rounded(wanted) }),
    reason: reason.trim(),
  };
}

/** In another sheet, or for a harder hand, the same place may want more than was looked at: then it is to be looked at again. */
export function isAcceptedAs(finding: Finding, { kind, parts, width, wanted = Infinity }: Accepted): boolean {
  const same = finding.kind === kind && alike(meetingOf(finding), parts);
  return same && isAcceptable(finding) && finding.width >= width - SAME_WIDTH && wantedOf(finding) <= wanted + SAME_WIDTH;
}

/** What a place wants that is too narrow, mm; 0 for others: what hangs on nothing does so whatever is wanted. */
const wantedOf = (finding: Finding): number => (finding.width > 0 && "wanted" in finding ? finding.wanted : 0);

const rounded = (mm: number) => Math.round(mm * 1000) / 1000;

const alike = (one: readonly string[], other: readonly string[]) =>
  one.length === other.length && one.every((id, i) => id === other[i]);

/** Writes the reasons to the findings they belong to. */
export function markAccepted(findings: readonly Finding[], accepted: readonly Accepted[]): Finding[] {
  if (accepted.length === 0) return [...findings];
  return findings.map((finding) => {
    const match = accepted.find((each) => isAcceptedAs(finding, each));
    return match ? { ...finding, accepted: match.reason } : finding;
  });
}

/** Parts that merely hang on the place come and go with other changes. */
const meetingOf = ({ parts, meeting }: Finding) => parts.slice(0, meeting).sort();
