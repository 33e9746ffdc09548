-- Test pieces of sheets, and what was read off them.
create table coupon (
  id text primary key,
  document jsonb not null,
  updated_at timestamptz not null default now()
);
create index coupon_sheet on coupon ((document ->> 'sheet'));
