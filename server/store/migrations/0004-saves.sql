-- Every save has an id of its own, so that one whose answer was lost is known again.
alter table piece add column save_id text;
