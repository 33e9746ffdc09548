import type { Piece } from "@mend-joint/core/piece";
import { describeCheck } from "@mend-joint/core/wording";
import { Link } from "react-router";
import { useBench } from "../state/bench";
import { VerdictMark } from "../ui/VerdictMark";
import type { CutSheet } from "../workers/cutting";

const MARKS = { stop: "falls", weak: "weak", note: "note" } as const;

/** What is to be looked at before it is cut, each with the way back to its place. */
export function Preflight({ piece, sheet, current }: { piece: Piece; sheet: CutSheet; current: boolean }) {
  const { checks, labels } = sheet;
  const units = useBench((state) => state.units);
  const told = checks.map((check) => ({ ...check, message: describeCheck(check, labels, units) }));
  return (
    <section aria-label="Before you cut" className="min-h-0 flex-1 overflow-y-auto px-5 py-4">
      <h2 className="font-display text-[17px] font-semibold">Before you cut</h2>
      {!current ? (
        <p className="mt-2 text-[14px] text-quiet">Drawing up the lines …</p>
      ) : checks.length === 0 ? (
        <p className="mt-2 flex items-start gap-2 text-[14px]">
          <VerdictMark verdict="holds" />
          <span>Nothing stands in the way: everything holds, and it fits on the bed.</span>
        </p>
      ) : (
        <ol className="mt-2 flex flex-col gap-3">
          {told.map(({ means, message, at }) => (
            <li key={`${message} ${at?.x} ${at?.y}`} className="flex items-start gap-2 text-[14px]">
              <span className="shrink-0">
                <VerdictMark verdict={MARKS[means]} />
              </span>
              <span className="min-w-0">
                {message}{" "}
                {at && (
                  <Link
                    to={`/bench/${piece.id}`}
                    state={{ place: { x: at.x, y: at.y, around: 30 } }}
                    className="whitespace-nowrap underline underline-offset-2 hover:text-focus"
                  >
                    Go there
                  </Link>
                )}
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
