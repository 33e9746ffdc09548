import type { Examination } from "@mend-joint/core";
import { fallReport } from "@mend-joint/core/wording";
import { X } from "lucide-react";
import { useEffect } from "react";
import { useBench } from "../state/bench";

/** What the fall test showed; it goes when the piece changes. */
export function FallReport({ examination }: { examination: Examination }) {
  const run = useBench((state) => state.fallTest);
  const examined = useBench((state) => state.examined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a changed piece ends the test of the one before
  useEffect(() => () => useBench.setState({ fallTest: 0 }), [examined]);
  if (run === 0) return null;
  return (
    <div className="absolute bottom-11 left-9 @max-[560px]:bottom-24">
      <p
        className="flex max-w-[270px] items-start gap-2 rounded-2xl border border-rule bg-film/95 py-2 pr-2 pl-4 text-[14px]"
        role="status"
        data-testid="fall-report"
      >
        {fallReport(examination)}
        <button
          type="button"
          aria-label="Close the fall test"
          className="rounded-full p-1 text-quiet hover:text-ink"
          onClick={() => useBench.setState({ fallTest: 0 })}
        >
          <X size={14} />
        </button>
      </p>
    </div>
  );
}
