-- Sheets of the maker's own, and those that ship with the app where the maker has changed them.
create table stock (
  id text primary key,
  document jsonb not null,
  updated_at timestamptz not null default now()
);
