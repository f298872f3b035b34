-- Aftercare: what is asked of a wearer, how it ends, what went wrong with an eye, and when it may wear lenses again.
create table aftercare_answer (
  id uuid primary key,
  sequence bigint generated always as identity,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  -- Null where the wearer is asked, and not of an eye.
  eye text check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references aftercare_answer (practice_id, id),
  question text not null check (question in ('trouble', 'solutionUsed', 'glasses', 'saidBack', 'firstNight')),
  said text[] not null check (cardinality(said) <= 12),
  check ((question = 'trouble') = (eye is not null))
);
create index aftercare_answer_visit on aftercare_answer (practice_id, visit_id);

create table aftercare_end (
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
  foreign key (practice_id, corrects_id) references aftercare_end (practice_id, id),
  outcome text not null check (outcome in ('keep', 'change', 'stop')),
  note text,
  -- Rules that held, with their eyes, when it was decided.
  pointed_to text[] not null,
  rule_version text not null,
  appointment_id uuid,
  unbooked_reason text,
  foreign key (practice_id, appointment_id) references appointment (practice_id, id),
  -- Whoever goes on with lenses is booked again, or it is said why not.
  check (outcome = 'stop' or appointment_id is not null or length(trim(coalesce(unbooked_reason, ''))) > 0)
);
create index aftercare_end_visit on aftercare_end (practice_id, visit_id);

create table adverse_event (
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
  foreign key (practice_id, corrects_id) references adverse_event (practice_id, id),
  event text not null check (event in ('microbialKeratitis', 'infiltrativeKeratitis', 'peripheralUlcer', 'redEyeOvernight', 'abrasion',
    'papillaryConjunctivitis', 'solutionReaction', 'tightLens', 'tornLens', 'other')),
  -- The lens that was worn when it happened; null where nobody can name it.
  lens_id uuid,
  lot text,
  began_on date not null,
  lenses_off boolean not null,
  note text,
  foreign key (practice_id, lens_id) references lens (practice_id, id)
);
create index adverse_event_visit on adverse_event (practice_id, visit_id);

create table return_to_wear (
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
  foreign key (practice_id, corrects_id) references return_to_wear (practice_id, id),
  adverse_event_id uuid not null,
  -- Never with the lens, the case or the drops of the event.
  new_lens boolean not null check (new_lens),
  new_case boolean not null check (new_case),
  drops_off boolean not null check (drops_off),
  aftercare_on date not null,
  foreign key (practice_id, adverse_event_id) references adverse_event (practice_id, id)
);
create index return_to_wear_visit on return_to_wear (practice_id, visit_id);
grant select, insert on aftercare_answer, aftercare_end, adverse_event, return_to_wear to keenfit_app;

alter table lens_finding drop constraint lens_finding_sign;
alter table lens_finding add constraint lens_finding_sign check (case
  when sign in ('offNose', 'offUp') then number_value between -3 and 3 and mod(number_value, 0.1) = 0
  when sign in ('overlapUp', 'overlapDown', 'overlapNose', 'overlapEar') then number_value between -2 and 5 and mod(number_value, 0.1) = 0
  when sign in ('movement', 'movementUp', 'lag') then number_value between 0 and 6 and mod(number_value, 0.05) = 0
  when sign = 'pushUp' then number_value between 0 and 100 and mod(number_value, 5) = 0
  when sign in ('comfort', 'recovery') then number_value between 0 and 10 and mod(number_value, 1) = 0
  when sign = 'recoverySeconds' then number_value between 0 and 300 and mod(number_value, 5) = 0
  when sign in ('acuityLens', 'acuityPinhole') then number_value between -0.4 and 3 and typed_text is not null
  when sign = 'coverage' then word_value in ('full', 'edgeShows')
  when sign = 'edge' then word_value in ('flat', 'lifts', 'indents')
  when sign = 'edgeVessels' then word_value in ('free', 'blanched', 'red')
  when sign = 'afterBlink' then word_value in ('steady', 'clearThenBlurs', 'worseJustAfter')
  when sign in ('lineCentre', 'lineMovement', 'lineLag', 'linePushUp') then word_value in ('less', 'middle', 'more')
  when sign = 'lineRecovery' then word_value in ('slow', 'middle', 'fast')
  when sign = 'debris' then word_value in ('none', 'seen')
  when sign = 'insideOut' then word_value in ('no', 'yes')
  when sign = 'deposits' then word_value in ('none', 'film', 'spots')
  when sign = 'damage' then word_value in ('none', 'nick', 'tear')
  when sign = 'cause' then word_value in ('insideOut', 'surface', 'swapped', 'wrongLens', 'unsteady', 'turnedSteady', 'cylinderLeft', 'nearEye',
    'multifocal', 'lazyEye', 'tears', 'cornea', 'insideEye', 'prescriber')
  when sign = 'sureOfLens' then word_value = 'yes'
  else false end);

alter table draft drop constraint draft_step_check;
alter table draft add constraint draft_step_check
  check (step in ('redEye', 'asLastTime', 'wornNow', 'aftercare', 'history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));
