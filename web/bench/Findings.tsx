import type { Examination } from "@mend-joint/core";
import { regionBox } from "@mend-joint/core/geometry";
import { acceptFinding, type Finding, isAcceptable, isAcceptedAs, MENDABLE } from "@mend-joint/core/judge";
import type { Piece } from "@mend-joint/core/piece";
import { type FindingGroup, groupFindings, labelsOf } from "@mend-joint/core/report";
import { bearsAll } from "@mend-joint/core/strength";
import { describeFinding, loadSentence, titleOf } from "@mend-joint/core/wording";
import { useState } from "react";
import { pointAt, selectionOf, useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { VerdictMark } from "../ui/VerdictMark";
import { FirstVisit } from "./FirstVisit";
import { LetItBe } from "./LetItBe";
import { MendAll } from "./MendAll";
import { Mends } from "./Mends";

/** Of what is merely worth knowing, so many letters are shown at first. */
const FEW_NOTES = 3;

const keyOf = (finding: Finding) => `${finding.kind} ${finding.parts.join(" ")} ${finding.at.x.toFixed(1)}`;

/** What is wrong, letter by letter, worst first, each with the mends on offer; then what is worth knowing, then what was let be. */
export function Findings({ examination, piece }: { examination: Examination; piece: Piece }) {
  const { findings } = examination;
  const toMend = findings.filter((finding) => finding.means !== "note" && finding.accepted === undefined);
  const notes = findings.filter((finding) => finding.means === "note" && finding.accepted === undefined);
  const accepted = findings.filter((finding) => finding.accepted !== undefined);
  const [chosen, setChosen] = useState("");
  // The worst finding is open unless the maker has opened another that is still there.
  const there = findings.some((finding) => keyOf(finding) === chosen);
  const open = there ? chosen : toMend[0] && keyOf(toMend[0]);
  const [allNotes, setAllNotes] = useState(false);
  const groups = (list: Finding[], most = Infinity) =>
    groupFindings(examination, list)
      .slice(0, most)
      .map((group) => (
        <Group key={group.id} group={group} examination={examination} piece={piece} open={open} onOpen={setChosen} />
      ));
  const noteGroups = groupFindings(examination, notes).length;
  const folded = noteGroups > FEW_NOTES + 1;
  return (
    <section id="findings" tabIndex={-1} aria-label="Findings" className="outline-none flex min-h-0 flex-1 flex-col">
      <h2 className="flex items-baseline justify-between px-5 pt-4 pb-2 font-display text-[17px] font-semibold">
        Findings
        <span className="figure text-[13px] font-normal text-quiet">{toMend.length}</span>
      </h2>
      <div className="min-h-0 flex-1 overflow-y-auto pb-4">
        <FirstVisit pieceId={piece.id} />
        {toMend.length === 0 && (
          <div className="px-5 text-[14px] text-quiet">
            <p>
              Nothing to mend. Every part is joined to what holds it, and no joint on the way is narrower than the sheet wants.
            </p>
            <p className="mt-3">Drag a letter, or change a word: the piece is measured again at once.</p>
          </div>
        )}
        <ol className="px-3">{groups(toMend)}</ol>
        {notes.length > 0 && (
          <>
            <h3 className="px-5 pt-5 pb-1 font-display text-[15px] font-semibold">Worth knowing</h3>
            <ol className="px-3">{groups(notes, allNotes || !folded ? Infinity : FEW_NOTES)}</ol>
            {folded && (
              <Button look="quiet" className="mx-1 h-8 px-2 text-[13px]" onClick={() => setAllNotes(!allNotes)}>
                {allNotes ? "Fewer" : `All ${noteGroups} letters`}
              </Button>
            )}
          </>
        )}
        <InTheHand examination={examination} piece={piece} />
        {accepted.length > 0 && (
          <>
            <h3 className="px-5 pt-5 pb-1 font-display text-[15px] font-semibold">Let be</h3>
            <ol className="px-3">
              {accepted.map((finding) => (
                <li key={keyOf(finding)} className="mb-2">
                  <FindingRow finding={finding} examination={examination} onOpen={() => {}} />
                  <p className="flex items-center justify-between gap-2 pl-10 text-[13px] text-quiet">
                    <span>{finding.accepted ? `“${finding.accepted}”` : "Without a reason"}</span>
                    <Button look="quiet" className="h-8 shrink-0 px-2 text-[13px]" onClick={() => takeUpAgain(finding)}>
                      Take up again
                    </Button>
                  </p>
                </li>
              ))}
            </ol>
          </>
        )}
      </div>
      {toMend.length > 0 && <MendAll piece={piece} count={toMend.length} />}
    </section>
  );
}

/** What the load test says, when the piece has been left alone for a moment. */
function InTheHand({ examination, piece }: { examination: Examination; piece: Piece }) {
  const loads = useBench((state) => state.loads);
  if (!loads?.test || loads.piece.id !== piece.id) return null;
  return (
    <>
      <h3 className="px-5 pt-5 pb-1 font-display text-[15px] font-semibold">In the hand</h3>
      <button
        type="button"
        onClick={() => useBench.setState({ show: "loads", selection: null })}
        className="mx-3 flex items-start gap-2 rounded-lg px-2 py-1.5 text-left text-[14px] leading-snug hover:bg-ink/6"
      >
        <VerdictMark verdict={bearsAll(loads.test) ? "holds" : "weak"} size={18} />
        <span>
          {loadSentence(loads.test, labelsOf(examination))} <span className="underline">Load test</span>
        </span>
      </button>
    </>
  );
}

function takeUpAgain(finding: Finding): void {
  usePiece.getState().change((piece) => ({ ...piece, accepted: piece.accepted.filter((each) => !isAcceptedAs(finding, each)) }));
}

function letBe(finding: Finding, reason: string): void {
  usePiece.getState().change((piece) => ({ ...piece, accepted: [...piece.accepted, acceptFinding(finding, reason)] }));
}

interface GroupProps {
  group: FindingGroup;
  examination: Examination;
  piece: Piece;
  open: string | undefined;
  onOpen(key: string): void;
}

function Group({ group, examination, piece, open, onOpen }: GroupProps) {
  return (
    <li className="border-t border-rule py-1 first:border-t-0">
      <h3 className="px-2 pt-1 font-display text-[14px] font-semibold">{titleOf(group.label)}</h3>
      <ol>
        {group.findings.map((finding) => {
          const key = keyOf(finding);
          return (
            <li key={key} className={open === key ? "rounded-xl bg-film pb-2" : ""}>
              <FindingRow finding={finding} examination={examination} onOpen={() => onOpen(key)} />
              {open === key && (
                <>
                  {MENDABLE.has(finding.kind) && <Mends piece={piece} index={examination.findings.indexOf(finding)} />}
                  {isAcceptable(finding) && <LetItBe onAccept={(reason) => letBe(finding, reason)} />}
                </>
              )}
            </li>
          );
        })}
      </ol>
    </li>
  );
}

function FindingRow({ finding, examination, onOpen }: { finding: Finding; examination: Examination; onOpen(): void }) {
  const units = useBench((state) => state.units);
  const show = () => {
    onOpen();
    const solid = examination.solids.find(({ id }) => id === finding.parts[0]);
    const box = solid && regionBox(solid.region);
    const { at, gap } = finding;
    const middle = gap ? { x: (gap.from.x + gap.to.x) / 2, y: (gap.from.y + gap.to.y) / 2 } : at;
    const around = Math.max(
      36,
      finding.width * 12,
      (gap?.width ?? 0) * 5,
      box ? Math.max(box.maxX - box.minX, box.maxY - box.minY) * 2.6 : 0,
    );
    useBench.setState({ place: { ...middle, around }, selection: solid ? selectionOf(examination, solid.id) : null });
  };
  return (
    <button
      type="button"
      onClick={show}
      onPointerEnter={() => pointAt(finding.parts)}
      onPointerLeave={() => pointAt([])}
      onFocus={() => pointAt(finding.parts)}
      onBlur={() => pointAt([])}
      className="flex w-full gap-3 rounded-xl px-2 py-2 text-left hover:bg-ink/6"
    >
      <span className="pt-0.5">
        <VerdictMark verdict={finding.means} size={20} />
      </span>
      <span className="text-[14px] leading-snug">{describeFinding(finding, labelsOf(examination), units)}</span>
    </button>
  );
}
