/**
 * Findings that the maker has looked at and lets be, with a reason. They stay in sight and no longer decide the verdict.
 */
import type { Accepted } from "../piece";
import type { Finding } from "./findings";

/** Narrower than it was by more than this (mm), a place is not the one that was accepted. */
const SAME_WIDTH = 0.05;

/** That there is nothing to cut is no matter of opinion. */
export const isAcceptable = (finding: Finding): boolean => finding.kind !== "empty" || finding.why !== "no words";

/** What is remembered of a finding. */
export function acceptedAs(finding: Finding, reason: string): Accepted {
  return { kind: finding.kind, parts: meetingOf(finding), width: Math.round(finding.width * 1000) / 1000, reason: reason.trim() };
}

export function isAcceptedAs(finding: Finding, { kind, parts, width }: Accepted): boolean {
  return (
    isAcceptable(finding) && finding.kind === kind && finding.width >= width - SAME_WIDTH && alike(meetingOf(finding), parts)
  );
}

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
