import { ArrowLeft, Plus } from "lucide-react";
import { useCallback, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { toast } from "sonner";
import { Progress } from "../runs/Progress";
import type { ApiError } from "../state/api";
import { deleteRun, type ListedRun, listRuns, restoreRun } from "../state/runs";
import { Button } from "../ui/Button";
import { VerdictMark } from "../ui/VerdictMark";

/** While something is worked on, the list is asked for so often, ms. */
const EVERY = 1000;

/** The runs, newest first, each with how its names do. */
export function RunsScreen() {
  const [runs, setRuns] = useState<ListedRun[] | null>(null);
  const [fault, setFault] = useState("");
  const navigate = useNavigate();
  const load = useCallback(async () => {
    try {
      setRuns(await listRuns());
      setFault("");
    } catch (error) {
      setFault((error as ApiError).message);
    }
  }, []);
  const working = runs?.some(({ paused, tally }) => !paused && tally.due > 0) ?? false;
  useEffect(() => {
    void load();
    if (!working) return;
    const timer = setInterval(() => void load(), EVERY);
    return () => clearInterval(timer);
  }, [load, working]);
  const remove = async ({ id, name }: ListedRun) => {
    const attempt = async (work: () => Promise<void>) => {
      await work().catch((error: Error) => toast.error(error.message));
      await load();
    };
    await attempt(async () => {
      await deleteRun(id);
      toast(`“${name}” was taken off the list.`, {
        action: { label: "Put back", onClick: () => void attempt(() => restoreRun(id)) },
      });
    });
  };
  return (
    <div className="h-full overflow-y-auto">
      <header className="mx-auto max-w-[1000px] px-5 pt-8 pb-6 sm:px-8">
        <Link
          to="/"
          className="inline-flex items-center gap-1.5 text-[14px] text-quiet underline underline-offset-4 hover:text-ink"
        >
          <ArrowLeft size={15} aria-hidden="true" /> The rack
        </Link>
        <div className="mt-3 flex flex-wrap items-end justify-between gap-4">
          <div>
            <h1 className="font-display text-[34px] leading-none font-semibold">Runs</h1>
            <p className="mt-2 text-quiet">One design, many names: each examined, mended, and laid on sheets.</p>
          </div>
          <Button look="strong" onClick={() => void navigate("/runs/new")}>
            <Plus size={16} aria-hidden="true" /> New run
          </Button>
        </div>
      </header>
      <main className="mx-auto max-w-[1000px] px-5 pb-16 sm:px-8">
        {fault && (
          <p role="alert" className="mb-4 text-falls">
            {fault}{" "}
            <button type="button" className="underline underline-offset-2" onClick={() => void load()}>
              Try again
            </button>
          </p>
        )}
        {runs === null && !fault && <p className="text-quiet">Fetching your runs …</p>}
        {runs?.length === 0 && (
          <p className="max-w-[560px] text-[16px] text-quiet">
            There is no run yet. Paste a list of names, choose a design, and see which of them would fall apart before any is cut.
          </p>
        )}
        <ul>
          {runs?.map((run) => (
            <li key={run.id} className="flex items-center gap-4 border-t border-rule py-4">
              <Link to={`/runs/${run.id}`} className="group min-w-0 flex-1">
                <h2 className="truncate font-display text-[19px] font-semibold underline-offset-4 group-hover:underline">
                  {run.name}
                </h2>
                <p className="text-[13px] text-quiet">
                  {run.tally.rows.toLocaleString("en")} {run.tally.rows === 1 ? "name" : "names"}
                  {run.tally.mended > 0 && `, ${run.tally.mended} mended`}
                </p>
              </Link>
              {run.tally.due > 0 ? (
                <div className="w-48">
                  <Progress tally={run.tally} paused={run.paused} />
                </div>
              ) : (
                <Outcome run={run} />
              )}
              <Button look="quiet" aria-label={`Delete ${run.name}`} onClick={() => void remove(run)}>
                Delete
              </Button>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}

function Outcome({ run: { tally } }: { run: ListedRun }) {
  const kinds = [
    ["falls", tally.falls],
    ["weak", tally.weak],
    ["holds", tally.holds],
  ] as const;
  return (
    <p className="flex gap-4 text-[14px]">
      {kinds.map(
        ([kind, count]) =>
          count > 0 && (
            <span key={kind} className="inline-flex items-center gap-1.5">
              <VerdictMark verdict={kind} size={18} label />
              <span className="figure">{count}</span>
            </span>
          ),
      )}
      {tally.notMade > 0 && <span className="text-falls">{tally.notMade} not made</span>}
    </p>
  );
}
