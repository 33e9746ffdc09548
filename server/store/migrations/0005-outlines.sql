-- Outlines that the maker keeps for other pieces.
create table outline (
  id text primary key,
  document jsonb not null,
  updated_at timestamptz not null default now()
);
