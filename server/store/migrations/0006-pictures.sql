-- Pictures that drawings were traced from, made smaller, so that they can be traced again.
create table picture (
  id text primary key,
  type text not null,
  bytes bytea not null,
  added_at timestamptz not null default now()
);
