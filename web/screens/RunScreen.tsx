import { ArrowLeft, Pause, Play } from "lucide-react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { UnitsSwitch } from "../bench/TopBar";
import { TrialCut } from "../cut/TrialCut";
import { RunNames } from "../runs/RunNames";
import { RunSheets } from "../runs/RunSheets";
import { changeRun, type FollowedRun, useRun } from "../state/runs";
import { Button } from "../ui/Button";
import { ViewTabs } from "../ui/ViewTabs";

const VIEWS = [
  { value: "names", text: "Names" },
  { value: "sheets", text: "Sheets" },
  { value: "trial", text: "Trial cut" },
] as const;
type View = (typeof VIEWS)[number]["value"];

export function RunScreen() {
  const { id = "", view = "names" } = useParams();
  const { followed, fault, lost } = useRun(id);
  if (fault) {
    return (
      <main className="mx-auto flex h-full max-w-md flex-col justify-center gap-3 px-6">
        <h1 className="font-display text-[28px] font-semibold">The run could not be fetched.</h1>
        <p className="text-quiet">{fault.message}</p>
        <Link to="/runs" className="font-medium underline underline-offset-4">
          Back to the runs
        </Link>
      </main>
    );
  }
  if (!followed) return <main className="grid h-full place-items-center text-quiet">Fetching the run …</main>;
  return <Followed id={id} view={view as View} followed={followed} lost={lost} />;
}

function Followed({ id, view, followed, lost }: { id: string; view: View; followed: FollowedRun; lost: boolean }) {
  const navigate = useNavigate();
  const { run, tally } = followed;
  const pause = async () => {
    await changeRun(id, { paused: !run.paused }).catch((error: Error) => toast.error(error.message));
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <header className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule px-4 md:h-[52px] md:grid-cols-[1fr_auto_1fr]">
        <div className="flex min-w-0 items-center gap-2">
          <Link
            to="/runs"
            aria-label="Back to the runs"
            title="Back to the runs"
            className="grid size-9 shrink-0 place-items-center rounded-full hover:bg-ink/8"
          >
            <ArrowLeft size={18} />
          </Link>
          <h1 className="truncate font-display text-[18px] font-semibold">{run.name}</h1>
          {lost && (
            <span role="status" className="text-[13px] whitespace-nowrap text-weak">
              The server does not answer; trying again …
            </span>
          )}
        </div>
        <ViewTabs
          value={view}
          views={VIEWS}
          onChange={(next) => void navigate(`/runs/${id}${next === "names" ? "" : `/${next}`}`, { replace: true })}
        />
        <div className="flex items-center justify-end gap-2">
          {tally.due > 0 && (
            <Button className="h-8 px-3 text-[13px]" onClick={() => void pause()}>
              {run.paused ? <Play size={14} aria-hidden="true" /> : <Pause size={14} aria-hidden="true" />}
              {run.paused ? "Go on" : "Pause"}
            </Button>
          )}
          <UnitsSwitch />
        </div>
      </header>
      {view === "names" && <RunNames followed={followed} onSheets={() => void navigate(`/runs/${id}/sheets`)} />}
      {view === "sheets" && <RunSheets followed={followed} onTrial={() => void navigate(`/runs/${id}/trial`)} />}
      {view === "trial" && <TrialCut name={run.name} />}
    </div>
  );
}
