/**
 * The cutter's list of jobs.
 */
import type { MachineProfile } from "@mend-joint/core/cut";
import type { Stock } from "@mend-joint/core/piece";
import type { CutJob, JobReport, JobState, NewJob } from "../machines/machine";
import type { Queryable } from "./stored";

interface Row {
  id: string;
  name: string;
  file_name: string;
  report: JobReport;
  state: JobState;
  speed: number;
  done_seconds: number;
  total_seconds: number;
  fault: string | null;
  created_at: Date;
}

const COLUMNS = "id, name, file_name, report, state, speed, done_seconds, total_seconds, fault, created_at";

const toJob = (row: Row): CutJob => ({
  id: row.id,
  name: row.name,
  fileName: row.file_name,
  state: row.state,
  speed: row.speed,
  doneSeconds: row.done_seconds,
  totalSeconds: row.total_seconds,
  report: row.report,
  fault: row.fault,
  createdAt: row.created_at.toISOString(),
});

/** Jobs that are shown; older ones stay in the table. */
const SHOWN = 200;

export async function listJobs(db: Queryable): Promise<CutJob[]> {
  const { rows } = await db.query<Row>(`select ${COLUMNS} from cut_job order by created_at desc, id limit ${SHOWN}`);
  return rows.map(toJob);
}

export async function getJob(db: Queryable, id: string): Promise<CutJob | null> {
  const { rows } = await db.query<Row>(`select ${COLUMNS} from cut_job where id = $1`, [id]);
  return rows[0] ? toJob(rows[0]) : null;
}

export async function addJob(db: Queryable, id: string, job: NewJob, report: JobReport, seconds: number): Promise<CutJob> {
  const { rows } = await db.query<Row>(
    `insert into cut_job (id, name, file_name, file, profile, stock, report, state, total_seconds)
     values ($1, $2, $3, $4, $5, $6, $7, 'queued', $8) returning ${COLUMNS}`,
    [
      id,
      job.name,
      job.fileName,
      job.file,
      JSON.stringify(job.profile),
      JSON.stringify(job.stock),
      JSON.stringify(report),
      seconds,
    ],
  );
  return toJob(rows[0]!);
}

export async function sentFile(db: Queryable, id: string): Promise<Pick<NewJob, "file" | "profile" | "stock"> | null> {
  const { rows } = await db.query<{ file: Uint8Array; profile: MachineProfile; stock: Stock }>(
    "select file, profile, stock from cut_job where id = $1",
    [id],
  );
  return rows[0] ?? null;
}

/** What changes while a job is worked on. */
export interface JobChange {
  state: JobState;
  speed: number;
  doneSeconds: number;
  fault: string | null;
}

export async function changeJob(db: Queryable, id: string, change: JobChange): Promise<CutJob | null> {
  const { rows } = await db.query<Row>(
    `update cut_job set state = $2, speed = $3, done_seconds = $4, fault = $5, changed_at = now() where id = $1 returning ${COLUMNS}`,
    [id, change.state, change.speed, change.doneSeconds, change.fault],
  );
  return rows[0] ? toJob(rows[0]) : null;
}

export async function removeJob(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("delete from cut_job where id = $1 returning id", [id]);
  return rows.length > 0;
}
