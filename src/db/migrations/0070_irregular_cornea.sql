-- The shape of a cornea decides whether a regular lens is looked for or a diagnostic set is opened.
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
  when sign = 'cornea' then word_value in ('regular', 'prolate', 'oblate')
  when sign = 'coneStage' then number_value between 1 and 4 and mod(number_value, 1) = 0
  when sign = 'hydrops' then word_value in ('none', 'seen')
  else false end);

alter table lens_finding drop constraint lens_finding_sign;
alter table lens_finding add constraint lens_finding_sign check (case
  when sign in ('offNose', 'offUp') then number_value between -3 and 3 and mod(number_value, 0.1) = 0
  when sign in ('pupilNose', 'pupilUp') then number_value between -2 and 2 and mod(number_value, 0.1) = 0
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
  when sign = 'markUpGaze' then word_value in ('steady', 'wanders')
  else false end);

-- A cylinder looked for step by step through a lens: where the axis blurred on either side, and what was said of each cylinder.
create table guided_cylinder (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  lens_on_eye_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  start_axis integer check (start_axis between 0 and 180),
  blur_at integer[] not null check (cardinality(blur_at) = 2 and 0 <= all (blur_at) and 180 >= all (blur_at)),
  axis numeric(4, 1) not null check (axis > 0 and axis <= 180),
  tries jsonb not null check (jsonb_typeof(tries) = 'array' and jsonb_array_length(tries) between 1 and 12),
  cylinder_d numeric(4, 2) not null check (cylinder_d between -6 and 0),
  found_at timestamptz not null,
  found_by uuid not null,
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, found_by) references membership (practice_id, person_id)
);
create index guided_cylinder_visit on guided_cylinder (practice_id, visit_id, sequence);
grant select, insert on guided_cylinder to keenfit_app;
