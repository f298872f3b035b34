-- Near sight and seeing with both eyes: dominance, cover test, stereo, the tasks of a wearer with their distances, and how near is
-- to be served.
create table near_finding (
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
  sequence bigint generated always as identity,
  unique (practice_id, id),
  check (corrects_id is not null or (id = root_id and not voided and reason is null)),
  check (corrects_id is null or (id <> root_id and length(trim(reason)) > 0)),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id),
  foreign key (practice_id, corrects_id) references near_finding (practice_id, id),
  sign text not null check (sign in ('dominanceBlur', 'dominanceSighting', 'coverTest', 'oldSquint', 'monovisionBefore', 'way',
    'stereo', 'road', 'dashboard', 'screen', 'score', 'workbench', 'book', 'phone')),
  -- Stereo in seconds of arc, the distance of a task in cm; 0: none of it.
  number_value integer check (number_value between 0 and 1000),
  word_value text,
  -- Why it was decided so.
  note text check (length(note) <= 200),
  check ((number_value is null) <> (word_value is null))
);
create index near_finding_visit on near_finding (practice_id, visit_id);
grant select, insert on near_finding to keenfit_app;
alter table draft drop constraint draft_step_check;
alter table draft add constraint draft_step_check
  check (step in ('redEye', 'asLastTime', 'wornNow', 'aftercare', 'history', 'eyeHealth', 'refraction', 'nearVision', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));
