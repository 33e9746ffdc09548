-- What is counted of every row, again and again while a run is worked on: not to be taken out of its facts each time.
alter table run_row
  add column verdict text generated always as (facts ->> 'verdict') stored,
  add column mended boolean not null generated always as (jsonb_array_length(coalesce(facts -> 'mends', '[]'::jsonb)) > 0) stored;
