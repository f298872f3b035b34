-- What an over-refraction measured and how it was taken; sight without a lens and without a power; signs of a lens by
-- their own words; what a prescriber overrode when signing.

alter table over_refraction
  add column cylinder_tested boolean not null default false,
  add column plus_half text check (plus_half in ('worse', 'same', 'better')),
  add column control text not null default 'none' check (control in ('none', 'fogging', 'balance', 'cycloplegia'));
-- A cylinder that was found was looked for.
alter table over_refraction add check (cylinder_d = 0 or cylinder_tested) not valid;

create table eye_acuity (
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
  foreign key (practice_id, corrects_id) references eye_acuity (practice_id, id),
  way text not null check (way in ('unaided', 'glasses', 'pinhole')),
  acuity_log_mar numeric(4, 2) not null check (acuity_log_mar between -0.4 and 3),
  acuity_typed text not null check (length(acuity_typed) between 1 and 20)
);
create index eye_acuity_visit on eye_acuity (practice_id, visit_id);
grant select, insert on eye_acuity to keenfit_app;

-- Older words stay legal for the rows that have them: recovery in blinks, push-up of the one line.
do $$
declare old text;
begin
  select conname into strict old from pg_constraint
  where conrelid = 'lens_finding'::regclass and contype = 'c' and pg_get_constraintdef(oid) like '%offNose%';
  execute format('alter table lens_finding drop constraint %I', old);
end $$;
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
  when sign = 'cause' then word_value in ('insideOut', 'surface', 'swapped', 'wrongLens', 'unsteady', 'turnedSteady', 'cylinderLeft', 'nearEye',
    'multifocal', 'lazyEye', 'tears', 'cornea', 'insideEye', 'prescriber')
  when sign = 'sureOfLens' then word_value = 'yes'
  else false end);

-- What was overridden at signing: eye, what it was, what it costs, the prescriber's sentence.
alter table prescription add column overrides jsonb not null default '[]' check (jsonb_typeof(overrides) = 'array');
