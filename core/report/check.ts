/**
 * An examination as one plain document, for the command line and other programs.
 */
import type { Examination } from "../examine";
import type { Point } from "../geometry";
import type { Finding } from "../judge";

export interface CheckReport {
  verdict: Examination["verdict"];
  minWidth: number;
  /** Separate pieces that come off the machine. */
  solids: number;
  parts: { id: string; hold: number; ties: number; tieWidth: number; falls: boolean; holder?: true }[];
  joints: { between: string[]; width: number; from: [number, number]; to: [number, number] }[];
  findings: { kind: string; parts: string[]; at: [number, number]; width: number; message: string; accepted?: string }[];
}

/** @param say a finding as a sentence @param flipY for documents whose y runs downwards: coordinates are given as in the document */
export function reportOf(examination: Examination, say: (finding: Finding) => string, flipY = false): CheckReport {
  const point = ({ x, y }: Point): [number, number] => [round(x), round(flipY ? -y : y)];
  return {
    verdict: examination.verdict,
    minWidth: examination.leastWidth,
    solids: examination.pieces,
    parts: examination.solids.map((solid, i) => {
      const { width, ties, tieWidth, falls } = examination.holds[i]!;
      return {
        id: solid.id,
        hold: round(width),
        ties,
        tieWidth: round(tieWidth),
        falls,
        ...(solid.holder ? { holder: true as const } : {}),
      };
    }),
    joints: examination.joints.map(({ parts, width, from, to }) => ({
      between: parts.map((i) => examination.solids[i]!.id),
      width: round(width),
      from: point(from),
      to: point(to),
    })),
    findings: examination.findings.map((finding) => ({
      kind: finding.kind,
      parts: finding.parts,
      at: point(finding.at),
      width: round(finding.width),
      message: say(finding),
      ...(finding.accepted === undefined ? {} : { accepted: finding.accepted }),
    })),
  };
}

function round(value: number): number {
  return Number(value.toFixed(4));
}
