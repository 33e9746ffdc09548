import type { Examination } from "../examine";
import type { Finding, JudgedPart } from "../judge";
import { labelsOf } from "../report";
import { describeFinding } from "../wording";

/** All findings of an examination as they are read, in mm. */
export const sentencesOf = (examination: Pick<Examination, "findings" | "solids" | "ghosts">): string[] =>
  examination.findings.map((finding) => describeFinding(finding, labelsOf(examination), "mm"));

/** One finding about parts, as it is read, in mm. */
export const say = (finding: Finding | undefined, parts: readonly JudgedPart[]): string =>
  finding ? describeFinding(finding, new Map(parts.map(({ id, label }) => [id, label])), "mm") : "";
