-- Practices, the people who work there, their sessions, rooms and devices, settings, audit.
-- Foreign keys are (practice_id, id) pairs, so that a reference into another practice cannot be stored.

create collation if not exists names (provider = icu, locale = 'und-u-ks-level2', deterministic = false);

create table practice (
  id uuid primary key,
  name text not null check (length(trim(name)) > 0),
  town text not null,
  address text not null,
  telephone text not null check (length(trim(telephone)) > 0),
  emergency_telephone text,
  time_zone text not null,
  locale text not null default 'en',
  currency text not null default 'USD' check (currency ~ '^[A-Z]{3}$'),
  created_at timestamptz not null
);

-- One row a change: settings are appended, the newest of a key is in force.
create table practice_setting (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  key text not null,
  value jsonb not null,
  set_at timestamptz not null,
  set_by uuid
);
create index practice_setting_newest on practice_setting (practice_id, key, set_at desc);

create table practice_counter (
  practice_id uuid not null references practice (id),
  kind text not null check (kind in ('wearer', 'prescription', 'order')),
  next_value integer not null default 1,
  primary key (practice_id, kind)
);

create table person (
  id uuid primary key,
  account text not null unique check (account = lower(account) and account ~ '^[a-z0-9._-]{2,40}$'),
  display_name text not null check (length(trim(display_name)) > 0),
  password_hash text not null,
  password_set_at timestamptz not null,
  created_at timestamptz not null
);

create table membership (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  person_id uuid not null references person (id),
  title text not null,
  register_number text,
  roles text[] not null check (
    cardinality(roles) > 0 and roles <@ array['prescriber', 'technician', 'coordinator', 'admin']
  ),
  started_at timestamptz not null,
  ended_at timestamptz,
  version integer not null default 1,
  unique (practice_id, person_id),
  unique (practice_id, id),
  check (not ('prescriber' = any (roles)) or register_number is not null)
);

create table room (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  name text not null,
  sort_order integer not null default 0,
  unique (practice_id, id),
  unique (practice_id, name)
);

-- A tablet or screen: its lights belong to the room it stands in, not to a person.
create table device (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  room_id uuid,
  lights text not null default 'up' check (lights in ('up', 'down')),
  seen_at timestamptz not null,
  unique (practice_id, id),
  foreign key (practice_id, room_id) references room (practice_id, id)
);

create table session (
  token_hash text primary key,
  practice_id uuid not null references practice (id),
  person_id uuid not null references person (id),
  created_at timestamptz not null,
  seen_at timestamptz not null,
  ended_at timestamptz,
  foreign key (practice_id, person_id) references membership (practice_id, person_id)
);
create index session_of_person on session (practice_id, person_id) where ended_at is null;

create table sign_in_attempt (
  id uuid primary key,
  account text not null,
  address text not null,
  at timestamptz not null,
  succeeded boolean not null
);
create index sign_in_attempt_recent on sign_in_attempt (account, at desc);
create index sign_in_attempt_address on sign_in_attempt (address, at desc);

create table audit_log (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  at timestamptz not null,
  person_id uuid references person (id),
  action text not null,
  subject_kind text,
  subject_id uuid,
  detail jsonb not null default '{}'
);
create index audit_log_subject on audit_log (practice_id, subject_id, at desc);

-- The settable clock of demo and test mode; production code refuses to read or write it.
create table app_clock (
  only_row boolean primary key default true check (only_row),
  frozen_at timestamptz,
  offset_seconds bigint not null default 0
);
insert into app_clock (only_row) values (true);
