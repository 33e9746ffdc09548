-- How the letterings there are suit the names of a run.
alter table run add column ranking jsonb;
