-- Font files of the maker's own, unpacked, one row per face. The id comes from the bytes.
create table font (
  id text primary key,
  name text not null,
  bytes bytea not null,
  added_at timestamptz not null default now(),
  removed_at timestamptz
);
