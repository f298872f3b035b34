-- Kinds of visit as they are told apart: the one aftercare of before was as long as a long follow-up, with the same steps.
alter table appointment drop constraint appointment_kind_check;
alter table visit drop constraint visit_kind_check;
update appointment set kind = 'longFollowUp' where kind = 'aftercare';
update visit set kind = 'longFollowUp' where kind = 'aftercare';
alter table appointment add constraint appointment_kind_check
  check (kind in ('firstFit', 'refit', 'fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp', 'lesson', 'collection', 'reorder', 'redEye'));
alter table visit add constraint visit_kind_check
  check (kind in ('firstFit', 'refit', 'fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp', 'lesson', 'collection', 'reorder', 'redEye'));

-- What a visit is, and what it costs, as somebody decided: appended, the newest holds. What was proposed is kept beside it.
create table visit_decision (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  visit_id uuid not null,
  kind text not null check (kind in ('firstFit', 'refit', 'fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp', 'lesson', 'collection', 'reorder', 'redEye')),
  fee numeric(8, 2) not null check (fee between 0 and 100000),
  proposed_kind text not null check (proposed_kind in ('firstFit', 'refit', 'fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp', 'lesson', 'collection', 'reorder', 'redEye')),
  proposed_fee numeric(8, 2) not null,
  because text not null,
  decided_at timestamptz not null,
  decided_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, decided_by) references membership (practice_id, person_id)
);
create index visit_decision_newest on visit_decision (practice_id, visit_id, sequence desc);
grant select, insert on visit_decision to keenfit_app;

-- A full examination somewhere else, as the wearer or a letter says: a lens-only annual visit rests on it.
create table examined_elsewhere (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  wearer_id uuid not null,
  examined_on date not null,
  by_whom text not null check (length(trim(by_whom)) between 2 and 120),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index examined_elsewhere_newest on examined_elsewhere (practice_id, wearer_id, sequence desc);
grant select, insert on examined_elsewhere to keenfit_app;
create trigger not_of_merged before insert on examined_elsewhere for each row execute function refuse_merged_wearer();
