/**
 * What a fall test shows, in words: the piece is lifted by its holder and shaken.
 */
import type { Examination } from "../examine";
import { capital, countWord, listOf, measureState, nameOf } from "../judge";

/** "The dot of i fell. Eleven parts held. Should the weak places break too, the t would go." */
export function fallReport({ solids, holds, leastWidth, standIn }: Examination): string {
  const names = (indices: number[]) => listOf(indices.map((i) => nameOf(solids[i]!.label)));
  const all = [...solids.keys()].filter((i) => solids[i]!.region.length > 0);
  if (all.length === 0) return "There is nothing to test yet.";
  const fell = all.filter((i) => holds[i]!.falls);
  const weak = all.filter((i) => measureState(holds[i]!, leastWidth) === 1);
  const held = all.length - fell.length;
  const sentences = [
    fell.length === 0 ? "Nothing fell." : `${capital(names(fell))} fell.`,
    `${capital(countWord(held))} ${held === 1 ? "part" : "parts"} held${standIn >= 0 ? `, lifted by ${nameOf(solids[standIn]!.label)}` : ""}.`,
    weak.length > 0 ? `Should the weak places break too, ${names(weak)} would go.` : "",
  ];
  return sentences.filter(Boolean).join(" ");
}
