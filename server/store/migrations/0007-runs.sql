-- A run is one design times a list. Its rows are kept apart, so that ten thousand of them can be worked on in batches.
create table run (
  id text primary key,
  name text not null,
  design jsonb not null,
  choices jsonb not null,
  paused boolean not null default false,
  -- Grows with every change of the design or of what is done to each row: rows that were examined for an older one are due again.
  revision integer not null default 1,
  -- Grows with every change of its rows, so that a page can ask for what is new.
  change bigint not null default 1,
  -- How the pieces lie on their sheets, and how far laying them has come.
  layout jsonb,
  laying jsonb,
  created_at timestamptz not null default now(),
  deleted_at timestamptz
);

create table run_row (
  run_id text not null references run (id) on delete cascade,
  number integer not null,
  line integer not null,
  texts jsonb not null,
  count integer not null,
  note text not null,
  problem text,
  same_as integer,
  left_out boolean not null default false,
  font text,
  -- The piece on the bench that this row was opened as, and its version when the row was examined.
  piece_id text references piece (id),
  piece_version integer,
  -- The revision of the run that the row was examined for; 0 before.
  revision integer not null default 0,
  -- What the piece was made of: one that is the same again is not examined again.
  made_of text,
  document jsonb,
  facts jsonb,
  shape jsonb,
  done boolean not null default false,
  -- How often something was found out about it.
  kept integer not null default 0,
  change bigint not null default 0,
  primary key (run_id, number)
);
create index run_row_change on run_row (run_id, change);
create index run_row_piece on run_row (piece_id) where piece_id is not null;
