-- Machine profiles of the maker's own.
create table machine_profile (
  id text primary key,
  document jsonb not null,
  updated_at timestamptz not null default now()
);

-- Files that were sent to the cutter, and how far it has come with each. Times are seconds of the machine's own.
create table cut_job (
  id text primary key,
  name text not null,
  file_name text not null,
  file bytea not null,
  profile jsonb not null,
  stock jsonb not null,
  report jsonb not null,
  state text not null,
  speed double precision not null default 1,
  done_seconds double precision not null default 0,
  total_seconds double precision not null,
  fault text,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);
