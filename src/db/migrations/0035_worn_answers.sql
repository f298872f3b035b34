-- What a wearer answers when asked of each eye: is this what you have in now? And the step of a visit that asks it.
create table worn_answer (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references worn_answer (practice_id, id),
  answer text not null check (answer in ('yes', 'oldPair', 'mixed', 'boughtElsewhere', 'someoneElses', 'lost', 'glasses')),
  -- The lens that is on the eye, and where it is kept as on the eye; a lens that nobody can name has the second alone.
  lens_id uuid,
  lens_on_eye_id uuid,
  check (lens_id is null or lens_on_eye_id is not null),
  check (answer not in ('yes', 'oldPair', 'mixed') or lens_id is not null),
  check (answer not in ('lost', 'glasses') or lens_on_eye_id is null),
  check (answer <> 'someoneElses' or lens_id is null),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id)
);
create index worn_answer_visit on worn_answer (practice_id, visit_id);
grant select, insert on worn_answer to keenfit_app;

alter table draft drop constraint draft_step_check;
alter table draft add constraint draft_step_check
  check (step in ('wornNow', 'history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));
