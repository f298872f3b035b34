-- What is prescribed, taught, handed over and ordered.

create table prescription (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  number integer not null,
  visit_id uuid not null,
  visit_version integer not null,
  wearer_id uuid not null,
  examined_on date not null,
  issued_at timestamptz not null,
  issued_on date not null,
  expires_on date not null,
  signed_by uuid not null,
  prescriber jsonb not null,
  wait_note text,
  past_expiry_note text,
  days_per_week integer not null check (days_per_week between 1 and 7),
  supersedes_id uuid unique,
  settings jsonb not null,
  rule_version text not null,
  unique (practice_id, id),
  unique (practice_id, number),
  check (expires_on > issued_on),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, signed_by) references membership (practice_id, person_id),
  foreign key (practice_id, supersedes_id) references prescription (practice_id, id)
);
create index prescription_of_wearer on prescription (practice_id, wearer_id, issued_at desc);

create table prescription_eye (
  prescription_id uuid not null,
  practice_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  lens_id uuid not null,
  tried_lens_on_eye_id uuid,
  base_curve_tried_mm numeric(4, 2),
  base_curve_ordered_mm numeric(4, 2) not null,
  working jsonb not null,
  primary key (prescription_id, eye),
  unique (practice_id, prescription_id, eye),
  foreign key (practice_id, prescription_id) references prescription (practice_id, id),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, tried_lens_on_eye_id) references lens_on_eye (practice_id, id)
);

create table lesson (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  visit_id uuid not null,
  visit_version integer not null,
  wearer_id uuid not null,
  eyes text[] not null check (cardinality(eyes) > 0 and eyes <@ array['right', 'left']),
  on_at_start text[] not null check (on_at_start <@ array['right', 'left']),
  single_use boolean not null,
  handler text,
  started_at timestamptz not null,
  started_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, started_by) references membership (practice_id, person_id)
);
create index lesson_of_wearer on lesson (practice_id, wearer_id, started_at);

create table lesson_attempt (
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
  foreign key (practice_id, corrects_id) references lesson_attempt (practice_id, id),
  lesson_id uuid not null,
  move text not null check (move in ('on', 'off')),
  worked boolean not null,
  unaided boolean not null,
  miss text check (miss in ('blinked', 'lashes', 'lidSlipped', 'folded', 'fell')),
  check (worked or miss is not null),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
create index lesson_attempt_visit on lesson_attempt (practice_id, visit_id);

-- A topic said back: about the wearer, so it names no eye.
create table lesson_topic (
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
  foreign key (practice_id, corrects_id) references lesson_topic (practice_id, id),
  lesson_id uuid not null,
  topic text not null,
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
create index lesson_topic_visit on lesson_topic (practice_id, visit_id);

create table lesson_sign_off (
  id uuid primary key,
  practice_id uuid not null,
  lesson_id uuid not null unique,
  wearer_id uuid not null,
  signed_at timestamptz not null,
  signed_by uuid not null,
  handler text,
  counts jsonb not null,
  unique (practice_id, id),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, signed_by) references membership (practice_id, person_id)
);

create table hand_over (
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
  foreign key (practice_id, corrects_id) references hand_over (practice_id, id),
  wearer_id uuid not null,
  lens_id uuid not null,
  source text not null check (source in ('trial', 'order')),
  lens_on_eye_id uuid,
  order_line_id uuid,
  lot text not null check (length(trim(lot)) > 0),
  expires_on date not null,
  opened_on date,
  lens_count integer not null check (lens_count > 0),
  teaching text not null check (teaching in ('signedOff', 'experienced')),
  sign_off_id uuid,
  experience_note text,
  check (expires_on >= (handed_on)),
  handed_on date not null,
  check (teaching <> 'signedOff' or sign_off_id is not null),
  check (teaching <> 'experienced' or length(trim(experience_note)) > 0),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, sign_off_id) references lesson_sign_off (practice_id, id)
);
create index hand_over_visit on hand_over (practice_id, visit_id);
create index hand_over_of_wearer on hand_over (practice_id, wearer_id, recorded_at desc);
create index hand_over_lot on hand_over (practice_id, lot);

create table lens_order (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  number integer not null,
  request_key uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  wearer_id uuid not null,
  prescription_id uuid not null,
  placed_at timestamptz not null,
  placed_by uuid not null,
  unique (practice_id, id),
  unique (practice_id, number),
  unique (practice_id, request_key),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, prescription_id) references prescription (practice_id, id),
  foreign key (practice_id, placed_by) references membership (practice_id, person_id)
);
create index lens_order_of_wearer on lens_order (practice_id, wearer_id, placed_at desc);

-- The order carries final figures, or raw data for the laboratory to work out: never both, or the turn counts twice.
create table order_line (
  id uuid primary key,
  practice_id uuid not null,
  order_id uuid not null,
  prescription_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  mode text not null check (mode in ('final', 'raw')),
  lens_id uuid,
  raw jsonb,
  packs integer not null check (packs between 1 and 60),
  pack_size integer not null check (pack_size > 0),
  pack_price_minor integer not null check (pack_price_minor >= 0),
  unique (practice_id, id),
  unique (order_id, eye),
  check ((mode = 'final' and lens_id is not null and raw is null) or (mode = 'raw' and raw is not null and lens_id is null)),
  foreign key (practice_id, order_id) references lens_order (practice_id, id),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, prescription_id, eye) references prescription_eye (practice_id, prescription_id, eye)
);
alter table hand_over add foreign key (practice_id, order_line_id) references order_line (practice_id, id);

create table order_event (
  id uuid primary key,
  practice_id uuid not null,
  order_id uuid not null,
  state text not null check (state in ('placed', 'sendFailed', 'acknowledged', 'backordered', 'refused')),
  at timestamptz not null,
  supplier_reference text,
  due_on date,
  detail jsonb not null default '{}',
  foreign key (practice_id, order_id) references lens_order (practice_id, id)
);
create index order_event_of_order on order_event (practice_id, order_id, at);
-- However often the answer comes in, an order is acknowledged once.
create unique index order_event_once on order_event (order_id) where state in ('acknowledged', 'backordered', 'refused');

-- Orders on their way out: worked off by the jobs process, retried until the supplier has answered.
create table order_dispatch (
  order_id uuid primary key,
  practice_id uuid not null,
  due_at timestamptz not null,
  attempts integer not null default 0,
  done_at timestamptz,
  last_problem text,
  foreign key (practice_id, order_id) references lens_order (practice_id, id)
);
create index order_dispatch_due on order_dispatch (due_at) where done_at is null;
