-- What a prescriber says of a wearer's lesson: something more to teach, or somebody else who may handle the lenses.
create table lesson_instruction (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text check (eye is null),
  observed_at timestamptz not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  corrects_id uuid unique,
  voided boolean not null default false,
  reason text,
  unique (practice_id, id),
  check (corrects_id is not null or (id = root_id and not voided and reason is null)),
  check (corrects_id is null or (id <> root_id and length(trim(reason)) > 0)),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id),
  foreign key (practice_id, corrects_id) references lesson_instruction (practice_id, id),
  what text not null check (what in ('addition', 'helper')),
  -- What else is taught, in the prescriber's words; or the helper's name.
  text text not null check (length(trim(text)) between 2 and 160),
  -- Why somebody else handles the lenses.
  why text check (why in ('child', 'stiffHands', 'tremor', 'sight', 'other')),
  check ((what = 'helper') = (why is not null))
);
create index lesson_instruction_visit on lesson_instruction (practice_id, visit_id);
grant select, insert on lesson_instruction to keenfit_app;
