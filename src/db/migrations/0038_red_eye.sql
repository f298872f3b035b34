-- A red eye: what is drawn on the cornea, and what is looked for beside the usual signs.
create table corneal_lesion (
  id uuid primary key,
  sequence bigint generated always as identity,
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
  foreign key (practice_id, corrects_id) references corneal_lesion (practice_id, id),
  kind text not null check (kind in ('staining', 'infiltrate', 'ulcer')),
  -- From the cornea's centre to its middle, towards the nose and upwards; its longest measure, and across that.
  nasal_mm numeric(3, 1) not null,
  up_mm numeric(3, 1) not null,
  long_mm numeric(3, 1) not null check (long_mm between 0.1 and 12),
  across_mm numeric(3, 1) not null check (across_mm between 0.1 and 12),
  check (across_mm <= long_mm),
  check (nasal_mm * nasal_mm + up_mm * up_mm <= 49)
);
create index corneal_lesion_visit on corneal_lesion (practice_id, visit_id);
grant select, insert on corneal_lesion to keenfit_app;

alter table eye_finding drop constraint eye_finding_sign;
alter table eye_finding add constraint eye_finding_sign check (case
  when sign in ('lidMargin', 'lashes', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining', 'infiltrates', 'scars', 'oedema', 'endothelium')
    then number_value between 0 and 4 and mod(number_value, 0.5) = 0
  when sign = 'cells' then number_value between 0 and 4 and mod(number_value, 0.5) = 0
  when sign = 'vessels' then number_value between 0 and 6 and mod(number_value, 0.5) = 0
  when sign = 'pain' then number_value between 0 and 10 and mod(number_value, 1) = 0
  when sign in ('kFlatMm', 'kSteepMm') then number_value between 4.5 and 11
  when sign = 'kFlatAxis' then number_value between 1 and 180 and mod(number_value, 1) = 0
  when sign = 'hvid' then number_value between 9 and 14 and mod(number_value, 0.1) = 0
  when sign in ('pupilRoom', 'pupilDim') then number_value between 1 and 10 and mod(number_value, 0.5) = 0
  when sign = 'lidAperture' then number_value between 4 and 16 and mod(number_value, 0.5) = 0
  when sign = 'breakUp' then number_value between 0 and 60 and mod(number_value, 1) = 0
  when sign = 'meniscus' then number_value between 0 and 1 and mod(number_value, 0.05) = 0
  when sign = 'discharge' then word_value in ('none', 'watering', 'sticky')
  when sign = 'light' then word_value in ('fine', 'hurts')
  when sign = 'sightLoss' then word_value in ('none', 'gradual', 'sudden')
  when sign = 'chamber' then word_value in ('quiet', 'cells')
  when sign = 'graftSigns' then word_value in ('none', 'rejection', 'looseSuture')
  when sign = 'suspected' then word_value in ('nothing', 'cornealInfection', 'externalInfection')
  when sign in ('dendrite', 'ring') then word_value in ('none', 'seen')
  when sign = 'painBeyond' then word_value in ('no', 'yes')
  when sign = 'anaesthetic' then word_value in ('no', 'used')
  when sign = 'lensKept' then word_value in ('kept', 'thrownAway', 'noLens')
  when sign = 'lidTension' then word_value in ('loose', 'normal', 'firm')
  when sign = 'stainingPlace' then word_value in ('central', 'upper', 'lower', 'nasal', 'temporal', 'diffuse')
  when sign = 'stainingDepth' then word_value in ('shallow', 'deep')
  when sign = 'stainingArea' then word_value in ('small', 'moderate', 'large')
  when sign = 'infiltratePlace' then word_value in ('central', 'edge')
  else false end);

alter table draft drop constraint draft_step_check;
alter table draft add constraint draft_step_check
  check (step in ('redEye', 'asLastTime', 'wornNow', 'history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));

-- Whoever has, or may have, a red eye is called the day after.
alter table task drop constraint if exists task_because_check;
alter table task add constraint task_because_check check (because in ('missedAppointment', 'trialsCame', 'redEye'));
