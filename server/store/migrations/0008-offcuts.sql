-- What the maker keeps of sheets that were cut.
create table offcut (
  id text primary key,
  document jsonb not null,
  updated_at timestamptz not null default now()
);
