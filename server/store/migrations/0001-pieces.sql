-- Pieces and their history. A piece row holds the newest version; every save is kept beside it.
create table piece (
  id text primary key,
  name text not null,
  version integer not null,
  document jsonb not null,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  deleted_at timestamptz
);

create table piece_version (
  piece_id text not null references piece (id) on delete cascade,
  version integer not null,
  document jsonb not null,
  saved_at timestamptz not null default now(),
  primary key (piece_id, version)
);

-- Facts about this data folder itself, such as whether the demo pieces were put in.
create table setting (
  key text primary key,
  value jsonb not null
);
