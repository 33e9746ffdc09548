/**
 * Mending finding after finding until the piece holds.
 */
import { type Examination, examine, type Library } from "../examine";
import { type Finding, openFindings } from "../judge";
import type { Piece, Units } from "../piece";
import { offerMends } from "./offer";

export interface MendedAll {
  piece: Piece;
  /** What was done, in order. */
  done: string[];
  /** Messages of the findings for which nothing was found. */
  left: string[];
}

/** Rounds after which mending stops even if something is left. */
const ROUNDS = 60;

/**
 * Mends finding after finding, worst first, each by what changes the look least, until the piece holds.
 * @param onProgress told before each round; returning false stops, and what is mended so far is kept
 */
export function mendAll(
  start: Piece,
  library: Library,
  units: Units = "mm",
  onProgress: (done: number, open: number) => boolean = () => true,
): MendedAll {
  let piece = start;
  const done: string[] = [];
  const given = new Set<string>();
  let examination: Examination | undefined;
  for (let round = 0; round < ROUNDS; round++) {
    examination = examine(piece, library, { units, base: examination });
    const open = openFindings(examination.findings).filter((finding) => !given.has(keyOf(finding)));
    if (open.length === 0 || !onProgress(done.length, open.length)) break;
    const finding = open[0]!;
    const [mend] = offerMends(piece, examination, finding, library, units);
    if (!mend) given.add(keyOf(finding));
    else {
      piece = mend.piece;
      done.push(`${mend.title}: ${finding.message}`);
    }
  }
  return { piece, done, left: leftIn(examine(piece, library, { units })) };
}

const leftIn = ({ findings }: Examination) => openFindings(findings).map(({ message }) => message);

const keyOf = (finding: Finding) => `${finding.kind} ${finding.parts.join(" ")}`;
