import type { Verdict } from "@mend-joint/core/judge";

type Mark = Verdict | "note";

const LABEL: Record<Mark, string> = { holds: "holds", weak: "weak", falls: "falls", note: "note" };
const COLOUR: Record<Mark, string> = { holds: "text-holds", weak: "text-weak", falls: "text-falls", note: "text-quiet" };

/** Told apart by shape, not only by colour: a closed joint with a tick, open jaws, a dropped dotted part. */
export function VerdictMark({ verdict, size = 22, label = false }: { verdict: Mark; size?: number; label?: boolean }) {
  return (
    <span className={`inline-flex items-center gap-1.5 ${COLOUR[verdict]}`}>
      <svg width={size} height={size} viewBox="0 0 24 24" fill="none" stroke="currentColor" strokeWidth="2" aria-hidden="true">
        {verdict === "holds" && <path d="M4 13l5 5L20 6" strokeWidth="2.6" strokeLinecap="round" strokeLinejoin="round" />}
        {verdict === "note" && <path d="M4 20V5h16v11l-4 4zM8 10h8M8 14h5" strokeLinejoin="round" strokeLinecap="round" />}
        {verdict === "weak" && <path d="M12 1.5v5M7 7h10M12 22.5v-5M7 17h10M9.5 12h5" strokeLinecap="round" />}
        {verdict === "falls" && (
          <>
            <path d="M4 4h16" strokeDasharray="0.1 4" strokeLinecap="round" strokeWidth="2.4" />
            <path d="M12 8v4m-2.5-2L12 12.5 14.5 10" strokeLinecap="round" strokeLinejoin="round" />
            <rect x="7.5" y="15" width="9" height="6" rx="1" transform="rotate(14 12 18)" />
          </>
        )}
      </svg>
      {label && <span className="text-[13px] font-semibold">{LABEL[verdict]}</span>}
    </span>
  );
}
