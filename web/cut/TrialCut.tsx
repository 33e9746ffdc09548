/**
 * The trial cutter: its list of jobs, and the job in sight as it is cut.
 */
import { formatLength, type Stock } from "@mend-joint/core/piece";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
import { askCutter, beginJob, type CutJob, cancelJob, failCutter, removeJob, sentWith } from "../state/api";
import { useBench } from "../state/bench";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { ThreeColumns } from "../ui/ThreeColumns";
import type { Trial } from "../workers/cutting";
import { trialOf } from "../workers/examiner";
import { duration } from "./duration";
import { Player } from "./Player";

const SPEEDS = [
  { value: "1", text: "as it is" },
  { value: "10", text: "10 ×" },
  { value: "60", text: "60 ×" },
] as const;

const STATES: Record<CutJob["state"], string> = {
  queued: "waiting",
  cutting: "cutting",
  done: "done",
  failed: "failed",
  cancelled: "cancelled",
};

const FAULTS = [
  { fault: "lid", text: "Open the lid" },
  { fault: "flame", text: "A flame" },
  { fault: "power", text: "Cut the power" },
] as const;

/** How often the cutter is asked, ms. */
const EVERY = { cutting: 400, resting: 3000 };

/** @param name of what would be sent */
export function TrialCut({ name }: { name: string }) {
  const { jobs, fault, ask } = useJobs();
  const [chosen, setChosen] = useState<string | null>(null);
  const [speed, setSpeed] = useState<string>("10");
  const job = jobs?.find(({ id }) => id === chosen) ?? jobs?.[0] ?? null;
  const trial = useTrial(job?.id ?? null);
  const attempt = (work: () => Promise<unknown>) => async () => {
    try {
      await work();
    } catch (error) {
      toast.error((error as Error).message);
    }
    await ask();
  };
  return (
    <ThreeColumns
      left={{
        label: "Jobs",
        className: "px-3 py-4 md:overflow-y-auto",
        children: (
          <>
            <h2 className="px-2 font-display text-[17px] font-semibold">Jobs</h2>
            {fault && (
              <p role="alert" className="px-2 pt-2 text-[13px] text-falls">
                {fault}
              </p>
            )}
            {jobs?.length === 0 && (
              <p className="px-2 pt-2 text-[13px] text-quiet">
                Nothing has been sent yet. Go back one view, and send “{name}” to the trial cutter: it takes the file as a machine
                would.
              </p>
            )}
            <ul className="mt-2">
              {jobs?.map((each) => (
                <li key={each.id}>
                  <button
                    type="button"
                    aria-pressed={each.id === job?.id}
                    onClick={() => setChosen(each.id)}
                    className="w-full rounded-lg px-2 py-2 text-left hover:bg-ink/5 aria-pressed:bg-film"
                  >
                    <span className="flex justify-between gap-2 text-[14px]">
                      <span className="truncate font-medium">{each.name}</span>
                      <span className={each.state === "failed" ? "text-falls" : "text-quiet"}>{STATES[each.state]}</span>
                    </span>
                    <span className="figure block text-[12px] text-quiet">
                      {duration(each.doneSeconds)} of {duration(each.totalSeconds)}
                    </span>
                    {each.state === "cutting" && (
                      <span className="mt-1 block h-1 rounded-full bg-ink/12">
                        <span
                          className="block h-1 rounded-full bg-ink"
                          style={{ width: `${(100 * each.doneSeconds) / (each.totalSeconds || 1)}%` }}
                        />
                      </span>
                    )}
                  </button>
                </li>
              ))}
            </ul>
          </>
        ),
      }}
      middle={{
        className: "relative bg-film",
        children: (
          <>
            {job && trial && !("refused" in trial.trial) && <Player job={job} trial={trial.trial} sheet={trial.stock} />}
            {job && !trial && <p className="grid h-full place-items-center text-quiet">Reading the file …</p>}
            {!job && (
              <p className="grid h-full place-items-center font-display text-[22px] text-quiet">
                The bed of the trial cutter is empty.
              </p>
            )}
          </>
        ),
      }}
      right={{
        label: "The job in sight",
        className: "flex flex-col gap-5 px-5 py-4 md:overflow-y-auto",
        children: (
          <>
            {job && (
              <>
                <div>
                  <h2 className="truncate font-display text-[17px] font-semibold">{job.name}</h2>
                  <p className="figure truncate text-[12px] text-quiet">{job.fileName}</p>
                </div>
                {job.fault && (
                  <p role="alert" className="text-[14px] text-falls">
                    {job.fault}
                  </p>
                )}
                {job.state === "cutting" ? (
                  <Button onClick={attempt(() => cancelJob(job.id))}>Cancel</Button>
                ) : (
                  <>
                    <Choice label="How fast it plays" value={speed} options={SPEEDS} onChange={setSpeed} />
                    <div className="flex gap-2">
                      <Button look="strong" onClick={attempt(() => beginJob(job.id, Number(speed)))}>
                        {job.state === "queued" ? "Start cutting" : "Cut it again"}
                      </Button>
                      <Button look="quiet" onClick={attempt(() => removeJob(job.id))}>
                        Off the list
                      </Button>
                    </div>
                  </>
                )}
                <Report job={job} />
                {job.state === "cutting" && (
                  <div>
                    <h3 className="text-[13px] text-quiet">What could happen</h3>
                    <div className="mt-1 flex flex-wrap gap-1">
                      {FAULTS.map(({ fault: kind, text }) => (
                        <Button key={kind} className="h-8 px-3 text-[13px]" onClick={attempt(() => failCutter(kind))}>
                          {text}
                        </Button>
                      ))}
                    </div>
                  </div>
                )}
              </>
            )}
          </>
        ),
      }}
    />
  );
}

function Report({ job }: { job: CutJob }) {
  const units = useBench((state) => state.units);
  const { lengths, pieces, warnings } = job.report;
  const rows = [
    ["Time", duration(job.totalSeconds)],
    ["Cut", formatLength(lengths.cut, units, 0)],
    ...(lengths.score > 0 ? [["Scored", formatLength(lengths.score, units, 0)]] : []),
    ...(lengths.engrave > 0 ? [["Engraved", formatLength(lengths.engrave, units, 0)]] : []),
    ["Between lines", formatLength(lengths.travel, units, 0)],
    ["Pieces", String(pieces.length)],
  ];
  return (
    <section aria-label="Report">
      <dl className="grid grid-cols-[1fr_auto] gap-y-1 text-[14px]">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-quiet">{name}</dt>
            <dd className="figure text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <ul className="figure mt-2 text-[12px] text-quiet">
        {pieces.slice(0, 8).map(({ width, height }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name but their place in the order
          <li key={i}>
            piece {i + 1}: {formatLength(width, units)} × {formatLength(height, units)}
          </li>
        ))}
        {pieces.length > 8 && <li>and {pieces.length - 8} more</li>}
      </ul>
      {warnings.map((warning) => (
        <p key={warning} className="mt-2 text-[13px] text-weak">
          {warning}
        </p>
      ))}
    </section>
  );
}

/** The cutter's list, asked for again and again; more often while it cuts. */
function useJobs() {
  const [jobs, setJobs] = useState<CutJob[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const ask = useCallback(async () => {
    try {
      setJobs((await askCutter()).jobs);
      setFault(null);
    } catch (error) {
      setFault((error as Error).message);
    }
  }, []);
  const cutting = jobs?.some(({ state }) => state === "cutting") ?? false;
  useEffect(() => {
    void ask();
    const timer = setInterval(() => void ask(), cutting ? EVERY.cutting : EVERY.resting);
    return () => clearInterval(timer);
  }, [ask, cutting]);
  return { jobs, fault, ask };
}

/** What the cutter makes of the file that a job was sent with. */
function useTrial(id: string | null): { trial: Trial; stock: Stock } | null {
  const [trial, setTrial] = useState<{ id: string; trial: Trial; stock: Stock } | null>(null);
  useEffect(() => {
    if (id === null) return;
    let gone = false;
    sentWith(id)
      .then(async ({ file, profile, stock }) => ({ id, stock, trial: await trialOf(file, profile, stock) }))
      .then(
        (made) => !gone && setTrial(made),
        (error: Error) => !gone && toast.error(error.message),
      );
    return () => {
      gone = true;
    };
  }, [id]);
  return trial && trial.id === id ? trial : null;
}
