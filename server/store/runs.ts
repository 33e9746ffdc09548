/**
 * Runs in the database: their designs, rows, and what became of each row.
 *
 * Every change of rows counts the run's `change` up in the same transaction. Since that locks the run, changes are seen in their order.
 */
import type { Piece } from "@mend-joint/core/piece";
import {
  type FontTally,
  type KeptDesign,
  keptSheetChoices,
  type Laying,
  type ListRow,
  MOST_OFFCUTS,
  type Offcut,
  problemOf,
  type Ranking,
  type RowFacts,
  type RowShape,
  type RunChoices,
  type RunRow,
  type SheetChoices,
  type SizeRule,
  type Tally,
} from "@mend-joint/core/runs";
import type { Database, Queryable } from "./stored";

export interface StoredRun {
  id: string;
  name: string;
  design: KeptDesign;
  choices: RunChoices;
  paused: boolean;
  revision: number;
  change: number;
  layout: unknown;
  laying: Laying | null;
  ranking: Ranking | null;
  createdAt: string;
}

interface RunRecord {
  id: string;
  name: string;
  design: KeptDesign;
  choices: RunChoices;
  paused: boolean;
  revision: number;
  change: number | string;
  layout: unknown;
  laying: Laying | null;
  ranking: Ranking | null;
  created_at: Date;
}

const RUN = "id, name, design, choices, paused, revision, change, layout, laying, ranking, created_at";

const toRun = ({ created_at, change, choices, ...run }: RunRecord): StoredRun => ({
  ...run,
  choices: { ...choices, font: choices.font ?? null, sheet: keptSheetChoices.parse(choices.sheet) },
  change: Number(change),
  createdAt: created_at.toISOString(),
});

/** A row is due when it can be made, is wanted, and was not examined for what it now is. */
const DUE = `(row.problem is null and not row.left_out and (
  (row.piece_id is null and row.revision < run.revision)
  or (row.piece_id is not null and exists (
    select 1 from piece where piece.id = row.piece_id and piece.version is distinct from row.piece_version and piece.deleted_at is null))))`;

const TALLY = `
  count(*) filter (where not row.left_out)::int as rows,
  count(*) filter (where ${DUE})::int as due,
  count(*) filter (where not row.left_out and row.verdict = 'holds')::int as holds,
  count(*) filter (where not row.left_out and row.verdict = 'weak')::int as weak,
  count(*) filter (where not row.left_out and row.verdict = 'falls')::int as falls,
  count(*) filter (where not row.left_out and (row.problem is not null or row.verdict = 'not made'))::int as "notMade",
  count(*) filter (where not row.left_out and row.mended)::int as mended`;

export async function listRuns(
  db: Queryable,
): Promise<(Pick<StoredRun, "id" | "name" | "paused" | "createdAt"> & { tally: Tally })[]> {
  const { rows } = await db.query<RunRecord & Tally>(
    `select run.id, run.name, run.paused, run.created_at, ${TALLY}
     from run left join run_row row on row.run_id = run.id
     where run.deleted_at is null group by run.id order by run.created_at desc`,
  );
  return rows.map(({ id, name, paused, created_at, rows, due, holds, weak, falls, notMade, mended }) => ({
    id,
    name,
    paused,
    createdAt: created_at.toISOString(),
    tally: { rows, due, holds, weak, falls, notMade, mended },
  }));
}

export async function getRun(db: Queryable, id: string): Promise<StoredRun | null> {
  const { rows } = await db.query<RunRecord>(`select ${RUN} from run where id = $1 and deleted_at is null`, [id]);
  return rows[0] ? toRun(rows[0]) : null;
}

export interface NewRun {
  id: string;
  name: string;
  design: KeptDesign;
  choices: RunChoices;
  /** With the piece on the rack that a row is, where it is one. */
  rows: readonly (ListRow & { pieceId?: string })[];
}

export async function createRun(db: Database, { id, name, design, choices, rows }: NewRun): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query("insert into run (id, name, design, choices) values ($1, $2, $3, $4)", [
      id,
      name,
      JSON.stringify(design),
      JSON.stringify(choices),
    ]);
    await tx.query(
      `insert into run_row (run_id, number, line, texts, count, note, problem, same_as, piece_id, change)
       select $1, number, line, texts, count, note, problem, same_as, piece_id, 1
       from jsonb_to_recordset($2::jsonb)
         as listed (number int, line int, texts jsonb, count int, note text, problem text, same_as int, piece_id text)`,
      [id, JSON.stringify(rows.map(({ sameAs, pieceId, ...row }) => ({ ...row, same_as: sameAs, piece_id: pieceId })))],
    );
  });
}

interface RowRecord {
  number: number;
  line: number;
  texts: string[];
  count: number;
  note: string;
  problem: string | null;
  same_as: number | null;
  left_out: boolean;
  font: string | null;
  piece_id: string | null;
  due: boolean;
  done: boolean;
  facts: RowFacts | null;
  made_of: string | null;
  change: number | string;
}

/** Rows that have changed since. @param since a run's `change`; 0 for all */
export async function rowsSince(db: Queryable, run: string, since: number): Promise<RunRow[]> {
  const { rows } = await db.query<RowRecord>(
    `select row.number, row.line, row.texts, row.count, row.note, row.problem, row.same_as, row.left_out, row.font, row.piece_id,
       ${DUE} as due, row.done, row.facts, row.made_of, row.change
     from run_row row join run on run.id = row.run_id where row.run_id = $1 and row.change > $2 order by row.number`,
    [run, since],
  );
  return rows.map(({ same_as, left_out, piece_id, made_of, change, ...row }) => ({
    ...row,
    madeOf: made_of,
    sameAs: same_as,
    leftOut: left_out,
    pieceId: piece_id,
    change: Number(change),
  }));
}

export async function tallyOf(db: Queryable, run: string): Promise<Tally> {
  const { rows } = await db.query<Tally>(
    `select ${TALLY} from run_row row join run on run.id = row.run_id where row.run_id = $1`,
    [run],
  );
  return rows[0]!;
}

export async function shapesOf(
  db: Queryable,
  run: string,
  numbers: readonly number[],
): Promise<{ number: number; shape: RowShape }[]> {
  const { rows } = await db.query<{ number: number; shape: RowShape }>(
    "select number, shape from run_row where run_id = $1 and number = any($2::int[]) and shape is not null",
    [run, numbers as number[]],
  );
  return rows;
}

/** Numbers of the rows that are due, in their order. @param edited only those that are pieces on the bench */
export async function dueRows(db: Queryable, run: string, edited = false): Promise<number[]> {
  const { rows } = await db.query<{ number: number }>(
    `select row.number from run_row row join run on run.id = row.run_id
     where row.run_id = $1 and ${DUE} and (not $2::boolean or row.piece_id is not null) order by row.number`,
    [run, edited],
  );
  return rows.map(({ number }) => number);
}

/** What a worker needs of a row. */
export interface RowToMake {
  number: number;
  texts: string[];
  font: string | null;
  madeOf: string | null;
  /** The piece as it is on the bench, where the row was opened there. */
  own: { version: number; document: unknown } | null;
}

/** Rows from one number to another that are due. */
export async function rowsToMake(db: Queryable, run: string, from: number, to: number): Promise<RowToMake[]> {
  const { rows } = await db.query<{
    number: number;
    texts: string[];
    font: string | null;
    made_of: string | null;
    version: number | null;
    own: unknown;
  }>(
    `select row.number, row.texts, row.font, row.made_of, piece.version, piece.document as own
     from run_row row join run on run.id = row.run_id left join piece on piece.id = row.piece_id
     where row.run_id = $1 and row.number between $2 and $3 and ${DUE} order by row.number`,
    [run, from, to],
  );
  return rows.map(({ number, texts, font, made_of, version, own }) => ({
    number,
    texts,
    font,
    madeOf: made_of,
    own: version === null ? null : { version, document: own },
  }));
}

/** What became of a row; nothing but its name where the piece is the same as before. */
export interface RowResult {
  number: number;
  /** What it was made from, to be told from what it is meanwhile. */
  texts: string[];
  font: string | null;
  pieceVersion: number | null;
  madeOf: string;
  made: { document: Piece | null; facts: RowFacts; shape: RowShape | null } | null;
}

/**
 * Keeps what became of rows; of one that was changed, or kept by somebody else, meanwhile nothing.
 *
 * @returns how many were kept
 */
export async function keepResults(db: Database, run: string, revision: number, results: readonly RowResult[]): Promise<number> {
  return db.transaction(async (tx) => {
    const change = await countUp(tx, run);
    const { rows } = await tx.query(
      `update run_row row set
         revision = $2, made_of = result.made_of, piece_version = result.piece_version, change = $4, kept = kept + 1,
         document = case when result.same then row.document else result.document end,
         facts = case when result.same then row.facts else result.facts end,
         shape = case when result.same then row.shape else result.shape end
       from jsonb_to_recordset($3::jsonb) as result
         (number int, texts jsonb, font text, piece_version int, made_of text, same boolean, document jsonb, facts jsonb, shape jsonb),
         run
       where row.run_id = $1 and run.id = row.run_id and row.number = result.number and run.revision = $2 and ${DUE}
         and row.texts = result.texts and row.font is not distinct from result.font
         and (row.piece_id is null) = (result.piece_version is null)
       returning row.number`,
      [
        run,
        revision,
        JSON.stringify(
          results.map(({ number, texts, font, pieceVersion, madeOf, made }) => ({
            number,
            texts,
            font,
            piece_version: pieceVersion,
            made_of: madeOf,
            same: made === null,
            document: made?.document ?? null,
            facts: made?.facts ?? null,
            shape: made?.shape ?? null,
          })),
        ),
        change,
      ],
    );
    return rows.length;
  });
}

async function countUp(tx: Queryable, run: string): Promise<number> {
  const { rows } = await tx.query<{ change: number | string }>(
    "update run set change = change + 1 where id = $1 returning change",
    [run],
  );
  return Number(rows[0]?.change ?? 0);
}

export interface RunChange {
  name?: string | undefined;
  paused?: boolean | undefined;
  mend?: boolean | undefined;
  size?: SizeRule | undefined;
  font?: string | null | undefined;
  /** Of the sheet's choices those that change. */
  sheet?: { [Choice in keyof SheetChoices]?: SheetChoices[Choice] | undefined } | undefined;
  /** One more that is filled first, or as it is by now, in the place of what it was; or one less, by its id. */
  offcut?: { take: Offcut } | { leave: string } | undefined;
  design?: KeptDesign | undefined;
}

/**
 * What is given changes, all else stays as it is by then. Rows are due again where the design or what is done to each has changed.
 *
 * @returns `null` where there is no such run, or where one offcut more would be too many
 */
export async function changeRun(db: Queryable, id: string, change: RunChange): Promise<StoredRun | null> {
  const { name, paused, mend, size, font, sheet, offcut, design } = change;
  const taken = offcut && "take" in offcut ? offcut.take : undefined;
  const touched = taken?.id ?? (offcut && "leave" in offcut ? offcut.leave : undefined);
  const { rows } = await db.query<RunRecord>(
    `update run set name = coalesce($2, name), paused = coalesce($3, paused), design = coalesce($4::jsonb, design),
       choices = choices || $5::jsonb || jsonb_build_object('sheet', choices -> 'sheet' || $6::jsonb
         || case when $7::text is null then '{}'::jsonb else jsonb_build_object('offcuts',
              (select coalesce(jsonb_agg(old.offcut order by old.n), '[]'::jsonb)
                 from jsonb_array_elements(choices -> 'sheet' -> 'offcuts') with ordinality as old (offcut, n)
                where old.offcut ->> 'id' <> $7)
              || case when $8::jsonb is null then '[]'::jsonb else jsonb_build_array($8::jsonb) end) end),
       ranking = case when $4::jsonb is not null or ($5::jsonb ? 'size' and choices -> 'size' <> $5::jsonb -> 'size') then null else ranking end,
       revision = revision + case when $4::jsonb is not null or not choices @> $5::jsonb then 1 else 0 end, change = change + 1
     where id = $1 and deleted_at is null
       and ($8::jsonb is null or $9 > (select count(*) from jsonb_array_elements(choices -> 'sheet' -> 'offcuts') as other (offcut)
         where other.offcut ->> 'id' <> $7))
     returning ${RUN}`,
    [
      id,
      name ?? null,
      paused ?? null,
      design ? JSON.stringify(design) : null,
      JSON.stringify({ mend, size, font }),
      JSON.stringify(sheet ?? {}),
      touched ?? null,
      taken ? JSON.stringify(taken) : null,
      MOST_OFFCUTS,
    ],
  );
  return rows[0] ? toRun(rows[0]) : null;
}

/**
 * What was laid, while it is laid.
 *
 * @param ends whether nothing more is looked for
 * @returns false where another laying has begun meanwhile, or none is wanted: nothing is kept then
 */
export async function keepLayout(db: Queryable, id: string, layout: unknown, laying: string, ends: boolean): Promise<boolean> {
  const { rows } = await db.query(
    `update run set layout = $2::jsonb, laying = case when $4::boolean then null else laying end, change = change + 1
     where id = $1 and laying ->> 'id' = $3 returning id`,
    [id, JSON.stringify(layout), laying, ends],
  );
  return rows.length > 0;
}

/** No better way is looked for; before anything is laid, nothing is. */
export async function endLaying(db: Queryable, id: string): Promise<void> {
  await db.query(
    `update run set change = change + 1,
       laying = case when laying ->> 'state' = 'laying' then jsonb_set(laying, '{state}', '"finishing"') end
     where id = $1 and laying is not null`,
    [id],
  );
}

/** What was moved by hand; nothing is laid any more. @param change of the run that was moved @returns false where it has changed meanwhile */
export async function replaceLayout(db: Queryable, id: string, layout: unknown, change: number): Promise<boolean> {
  const { rows } = await db.query(
    "update run set layout = $2::jsonb, laying = null, change = change + 1 where id = $1 and change = $3 returning id",
    [id, JSON.stringify(layout), change],
  );
  return rows.length > 0;
}

/** @param only nothing is kept where another laying has begun meanwhile */
export async function keepLaying(db: Queryable, id: string, laying: Laying | null, only?: string): Promise<boolean> {
  const { rows } = await db.query(
    `update run set laying = $2::jsonb, change = change + 1
     where id = $1 and ($3::text is null or laying ->> 'id' = $3) returning id`,
    [id, laying && JSON.stringify(laying), only ?? null],
  );
  return rows.length > 0;
}

/** What stands on the rows that can be made, in their order. */
export async function textsOf(db: Queryable, run: string): Promise<{ texts: string[] }[]> {
  const { rows } = await db.query<{ texts: string[] }>(
    "select texts from run_row where run_id = $1 and not left_out and problem is null order by number",
    [run],
  );
  return rows;
}

/** @param ranking `null` ends it, and what was found is gone */
export async function keepRanking(db: Queryable, id: string, ranking: Ranking | null): Promise<void> {
  await db.query("update run set ranking = $2::jsonb, change = change + 1 where id = $1", [
    id,
    ranking && JSON.stringify(ranking),
  ]);
}

/** What became of the names in one lettering. Of a ranking that is not wanted any more nothing is kept. */
export async function keepTried(db: Queryable, id: string, ranking: string, font: string, tally: FontTally): Promise<void> {
  await db.query(
    `update run set ranking = jsonb_set(ranking, array['fonts', $3], $4::jsonb), change = change + 1
     where id = $1 and ranking ->> 'id' = $2`,
    [id, ranking, font, JSON.stringify(tally)],
  );
}

export interface RowChange {
  /** Line by line; `null` for one that stays. */
  texts?: (string | null)[] | undefined;
  count?: number | undefined;
  note?: string | undefined;
  leftOut?: boolean | undefined;
  done?: boolean | undefined;
  /** `null` for the design's own. */
  font?: string | null | undefined;
  /** `null` lets the row follow the list again. */
  pieceId?: string | null | undefined;
}

/** What is given changes, all else stays as it is by then. Another text or lettering makes the row due. */
export async function changeRow(db: Database, run: string, number: number, change: RowChange): Promise<boolean> {
  return db.transaction(async (tx) => {
    const counted = await countUp(tx, run);
    const before = await tx.query<{ texts: string[] }>("select texts from run_row where run_id = $1 and number = $2", [
      run,
      number,
    ]);
    const known = before.rows[0]?.texts;
    if (!known) return false;
    const sets: string[] = [];
    const values: unknown[] = [run, number, counted];
    const set = (column: string, value: unknown, cast = "") => {
      if (value === undefined) return;
      values.push(value);
      sets.push(`${column} = $${values.length}${cast}`);
    };
    const texts = change.texts?.map((text, i) => text ?? known[i] ?? "");
    set("texts", texts && JSON.stringify(texts), "::jsonb");
    set("problem", texts && (problemOf({ texts, count: 1 }, "") ?? null));
    set("count", change.count);
    set("note", change.note);
    set("left_out", change.leftOut);
    set("done", change.done);
    set("font", change.font);
    set("piece_id", change.pieceId);
    if (texts || change.font !== undefined || change.pieceId === null) sets.push("revision = 0", "piece_version = null");
    await tx.query(`update run_row set ${[...sets, "change = $3"].join(", ")} where run_id = $1 and number = $2`, values);
    return true;
  });
}

/** Documents of finished rows, with how many of each are wanted. */
export async function readFinishedRows(db: Queryable, run: string, numbers?: readonly number[]) {
  const { rows } = await db.query<{
    number: number;
    count: number;
    note: string;
    texts: string[];
    document: unknown;
    facts: RowFacts;
    made_of: string;
  }>(
    `select number, count, note, texts, document, facts, made_of from run_row
     where run_id = $1 and document is not null and not left_out and problem is null and ($2::int[] is null or number = any($2::int[]))
     order by number`,
    [run, (numbers as number[] | undefined) ?? null],
  );
  return rows;
}

export async function rowDocument(db: Queryable, run: string, number: number) {
  const { rows } = await db.query<{ document: unknown; piece_id: string | null; deleted: boolean | null }>(
    `select row.document, row.piece_id, piece.deleted_at is not null as deleted
     from run_row row left join piece on piece.id = row.piece_id where row.run_id = $1 and row.number = $2`,
    [run, number],
  );
  return rows[0] ?? null;
}

/** The row that a piece on the bench belongs to. */
export async function rowOfPiece(db: Queryable, piece: string) {
  const { rows } = await db.query<{ run: string; name: string; number: number; texts: string[] }>(
    `select run.id as run, run.name, row.number, row.texts
     from run_row row join run on run.id = row.run_id where row.piece_id = $1 and run.deleted_at is null`,
    [piece],
  );
  return rows[0] ?? null;
}

export async function deleteRun(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("update run set deleted_at = now() where id = $1 and deleted_at is null returning id", [id]);
  return rows.length > 0;
}

export async function restoreRun(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("update run set deleted_at = null where id = $1 returning id", [id]);
  return rows.length > 0;
}

/** Runs in which something is left to do. */
export async function runsAtWork(db: Queryable): Promise<string[]> {
  const { rows } = await db.query<{ id: string }>(
    `select distinct run.id from run join run_row row on row.run_id = run.id
     where run.deleted_at is null and not run.paused and ${DUE}`,
  );
  return rows.map(({ id }) => id);
}
