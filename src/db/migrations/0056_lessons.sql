-- What happens in a lesson, as facts: how it is taught, the clock, each attempt's technique, what was asked again, acuity at the end.

-- A lesson of topics alone has no eyes: a changed solution, or nights instead of days.
alter table lesson drop constraint lesson_eyes_check;
alter table lesson add constraint lesson_eyes_check check (eyes <@ array['right', 'left']);
-- Topics that a lesson of topics alone asks; null: all of them.
alter table lesson add column only_topics text[] check (cardinality(only_topics) between 1 and 20), add check (only_topics is not null or cardinality(eyes) > 0);

alter table lesson_attempt drop constraint lesson_attempt_miss_check;
alter table lesson_attempt add constraint lesson_attempt_miss_check check (miss in
  ('fingerWet', 'folded', 'tooFarOnPad', 'lidSlipped', 'blinked', 'hardFirstBlink', 'lashes', 'notOnWhite', 'tooDry', 'nails', 'slidAway', 'fell'));
alter table lesson_attempt add column technique text
  check (technique in ('twoHanded', 'oneHanded', 'slideAndPinch', 'lowerThird', 'rollOff', 'outerCorner'));

-- Said back when it was taught, or once more at the end.
alter table lesson_topic add column at_end boolean not null default false;
-- Several are said back by one press.
alter table lesson_topic add column sequence bigint generated always as identity;

-- How this wearer is taught, and what of it was changed on the way.
create table lesson_way (
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
  foreign key (practice_id, corrects_id) references lesson_way (practice_id, id),
  lesson_id uuid not null,
  hand text not null check (hand in ('right', 'left')),
  dexterity text not null check (dexterity in ('good', 'stiff', 'tremor', 'oneHand')),
  -- Of the drawings: the wearer's own skin.
  skin_tone integer not null check (skin_tone between 1 and 7),
  -- Null: as the plan has it.
  on_technique text check (on_technique in ('twoHanded', 'oneHanded')),
  off_technique text check (off_technique in ('slideAndPinch', 'lowerThird', 'rollOff', 'outerCorner')),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
create index lesson_way_visit on lesson_way (practice_id, visit_id);
create index lesson_way_lesson on lesson_way (practice_id, lesson_id);

-- The clock: only time with a lens in the hand or on the eye counts.
create table lesson_turn (
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
  foreign key (practice_id, corrects_id) references lesson_turn (practice_id, id),
  lesson_id uuid not null,
  turn text not null check (turn in ('run', 'pause', 'stop')),
  -- Why it stopped for the day.
  note text check (length(trim(note)) between 1 and 400),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
create index lesson_turn_visit on lesson_turn (practice_id, visit_id);
create index lesson_turn_lesson on lesson_turn (practice_id, lesson_id);

-- Acuity of each eye through lenses that the wearer put on: swapped and inside-out ones show.
create table lesson_sight (
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
  foreign key (practice_id, corrects_id) references lesson_sight (practice_id, id),
  lesson_id uuid not null,
  acuity_log_mar numeric(4, 2) not null check (acuity_log_mar between -0.4 and 3),
  acuity_typed text not null check (length(trim(acuity_typed)) between 1 and 20),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
create index lesson_sight_visit on lesson_sight (practice_id, visit_id);
create index lesson_sight_lesson on lesson_sight (practice_id, lesson_id);
grant select, insert on lesson_way, lesson_turn, lesson_sight to keenfit_app;

-- What a sign-off was for: a change asks for its topics again. Overridden: what a prescriber let pass, and with what sentence.
alter table lesson_sign_off
  add column overnight boolean not null default false,
  add column product_id uuid,
  add column overridden text[] not null default '{}',
  add column override_note text check (length(trim(override_note)) between 1 and 400),
  add check ((cardinality(overridden) > 0) = (override_note is not null));
