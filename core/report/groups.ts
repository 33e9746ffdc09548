/**
 * Findings letter by letter.
 */
import type { Examination } from "../examine";
import type { Finding, PartLabel } from "../judge";

export interface FindingGroup {
  /** Id of the letter, or of the part that is none. */
  id: string;
  /** How that is called; nothing for what is about the piece as a whole. */
  label: PartLabel | undefined;
  findings: Finding[];
}

/** Groups findings by the letter they are about first; groups and findings keep the order they came in. */
export function groupFindings(
  { solids, ghosts, letters }: Pick<Examination, "solids" | "ghosts" | "letters">,
  findings: readonly Finding[],
): FindingGroup[] {
  const groups = new Map<string, FindingGroup>();
  for (const finding of findings) {
    const own = [...solids, ...ghosts].filter(({ id }) => finding.parts.slice(0, Math.max(1, finding.meeting)).includes(id));
    // Of a joint between a letter and a holder, the letter is what the maker thinks of.
    const about = own.find(({ letterId }) => letterId) ?? own[0];
    const id = about?.letterId ?? about?.partId ?? finding.parts[0] ?? "";
    const letter = letters.find((each) => each.id === id);
    const label = letter?.solids[0] === undefined ? about?.label : solids[letter.solids[0]]!.label;
    const group = groups.get(id) ?? { id, label, findings: [] };
    group.findings.push(finding);
    groups.set(id, group);
  }
  return [...groups.values()];
}
