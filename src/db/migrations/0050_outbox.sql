-- How a wearer wants to be written to, as they last said: nobody is written to who has not agreed.
create table contact_choice (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  wearer_id uuid not null,
  way text not null check (way in ('text', 'mail', 'none')),
  recipient text check (length(trim(recipient)) between 3 and 200),
  chosen_at timestamptz not null,
  recorded_by uuid not null,
  check ((way = 'none') = (recipient is null)),
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index contact_choice_of_wearer on contact_choice (practice_id, wearer_id, sequence desc);
grant select, insert on contact_choice to keenfit_app;
create trigger not_of_merged before insert on contact_choice for each row execute function refuse_merged_wearer();

-- What a message tells of, so that it is written once; and who sent it, or let it be.
alter table message
  add column about text check (length(about) between 1 and 120),
  add column done_by uuid references person (id);
alter table message drop constraint message_outcome_check;
alter table message add constraint message_outcome_check check (outcome in ('sent', 'refused', 'notSent'));
-- Named so that two records that are merged never tell of the same thing.
create unique index message_once on message (practice_id, kind, about) where about is not null;
create index message_waiting on message (practice_id, due_at, id) where done_at is null;
grant update (done_by) on message to keenfit_app;
