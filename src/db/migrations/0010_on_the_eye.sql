-- What is seen of a lens on an eye: findings, readings of the mark in series, acuity; the scales of instruments; which
-- lens is decided on; and how a prescription speaks, in final figures or raw for the laboratory.

alter table refraction
  add column acuity_log_mar numeric(4, 2) check (acuity_log_mar between -0.4 and 3),
  add column acuity_typed text check (length(acuity_typed) between 1 and 20),
  add check ((acuity_log_mar is null) = (acuity_typed is null));
alter table over_refraction
  add check (length(acuity_typed) between 1 and 20),
  add check ((acuity_log_mar is null) = (acuity_typed is null));

-- How the scale of one slit lamp counts. Rows are never changed; one that is no longer used is ended.
create table instrument (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  name text not null check (length(trim(name)) between 1 and 60),
  zero_deg integer not null check (zero_deg between 0 and 179),
  grows text not null check (grows in ('left', 'right')),
  read_straight integer not null check (read_straight between 0 and 180),
  read_turned integer not null check (read_turned between 0 and 180),
  added_at timestamptz not null,
  added_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, added_by) references membership (practice_id, person_id)
);
create table instrument_end (
  instrument_id uuid primary key,
  practice_id uuid not null,
  ended_at timestamptz not null,
  ended_by uuid not null,
  foreign key (practice_id, instrument_id) references instrument (practice_id, id),
  foreign key (practice_id, ended_by) references membership (practice_id, person_id)
);

alter table rotation_reading drop constraint rotation_reading_how_check;
alter table rotation_reading
  add column series_no integer not null default 1 check (series_no between 1 and 99),
  add column scale_reading integer check (scale_reading between 0 and 180),
  add column instrument_id uuid,
  add check (how in ('drag', 'keys', 'typed', 'scale', 'pedal')),
  -- A number off a scale means nothing without the instrument it was read on.
  add check ((how = 'scale') <= (scale_reading is not null)),
  add check ((scale_reading is null) = (instrument_id is null)),
  add foreign key (practice_id, instrument_id) references instrument (practice_id, id);
alter table rotation_reading add column sequence bigint generated always as identity;

alter table fit_check add column provisional boolean not null default false;

create table lens_finding (
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
  foreign key (practice_id, corrects_id) references lens_finding (practice_id, id),
  lens_on_eye_id uuid not null,
  sign text not null,
  number_value numeric(6, 2),
  word_value text,
  typed_text text check (length(typed_text) between 1 and 40),
  provisional boolean not null,
  sequence bigint generated always as identity,
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  check ((number_value is null) <> (word_value is null)),
  check (case
    when sign in ('offNose', 'offUp') then number_value between -3 and 3 and mod(number_value, 0.1) = 0
    when sign in ('overlapUp', 'overlapDown', 'overlapNose', 'overlapEar') then number_value between -2 and 5 and mod(number_value, 0.1) = 0
    when sign in ('movement', 'movementUp', 'lag') then number_value between 0 and 6 and mod(number_value, 0.05) = 0
    when sign = 'pushUp' then number_value between 0 and 100 and mod(number_value, 5) = 0
    when sign in ('comfort', 'recovery') then number_value between 0 and 10 and mod(number_value, 1) = 0
    when sign in ('acuityLens', 'acuityPinhole') then number_value between -0.4 and 3 and typed_text is not null
    when sign = 'coverage' then word_value in ('full', 'edgeShows')
    when sign = 'edge' then word_value in ('flat', 'lifts', 'indents')
    when sign = 'edgeVessels' then word_value in ('free', 'blanched', 'red')
    when sign = 'afterBlink' then word_value in ('steady', 'clearThenBlurs', 'worseJustAfter')
    when sign in ('lineCentre', 'lineMovement', 'lineLag', 'linePushUp') then word_value in ('less', 'middle', 'more')
    when sign = 'debris' then word_value in ('none', 'seen')
    when sign = 'insideOut' then word_value in ('no', 'yes')
    when sign = 'cause' then word_value in ('insideOut', 'surface', 'swapped', 'wrongLens', 'unsteady', 'tears', 'cornea', 'insideEye', 'prescriber')
    when sign = 'sureOfLens' then word_value = 'yes'
    else false end)
);
create index lens_finding_visit on lens_finding (practice_id, visit_id);

-- An earlier lens of the visit is taken up again as the one to decide on; a lens put on later ends it.
create table lens_choice (
  id uuid primary key,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  lens_on_eye_id uuid not null,
  why text not null check (length(trim(why)) between 3 and 400),
  chosen_at timestamptz not null,
  chosen_by uuid not null,
  sequence bigint generated always as identity,
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, chosen_by) references membership (practice_id, person_id)
);
create index lens_choice_visit on lens_choice (practice_id, visit_id);

-- Final figures name a lens; raw data name the lens worn, the over-refraction and the turn, and no lens: never both,
-- or the turn is counted twice.
alter table prescription_eye
  alter column lens_id drop not null,
  add column mode text not null default 'final' check (mode in ('final', 'raw')),
  add column raw jsonb,
  add check ((mode = 'final' and lens_id is not null and raw is null) or (mode = 'raw' and lens_id is null and raw is not null));

grant select, insert on instrument, instrument_end, lens_finding, lens_choice to keenfit_app;
