-- A press is done once; a session can be locked; a device is known by who signed in on it; one visit an appointment; one
-- prescription in force for each purpose; an identity keeps what it was.

alter table session add column locked_at timestamptz;
grant update (locked_at) on session to keenfit_app;

-- A device on which somebody has signed in before: strangers at the same address do not use up its tries.
create table known_device (
  token_hash text not null,
  person_id uuid not null references person (id),
  known_at timestamptz not null,
  primary key (token_hash, person_id)
);
grant select, insert on known_device to keenfit_app;

-- What a press came to, under the press's own key; kept for some days.
create table request_done (
  practice_id uuid not null references practice (id),
  request_key uuid not null,
  person_id uuid not null references person (id),
  action text not null,
  output jsonb not null,
  done_at timestamptz not null,
  primary key (practice_id, request_key)
);
create index request_done_old on request_done (done_at);
grant select, insert, delete on request_done to keenfit_app;

create unique index visit_open_of_appointment on visit (practice_id, appointment_id) where appointment_id is not null and closed_at is null;

-- Pairs for different purposes stand beside each other, each with a chain of its own: exactly one of it has no successor.
alter table prescription
  add column purpose text not null default 'everyday' check (purpose in ('everyday', 'distance', 'near')),
  add constraint prescription_of_purpose unique (practice_id, id, wearer_id, purpose),
  add constraint prescription_supersedes_same foreign key (practice_id, supersedes_id, wearer_id, purpose)
    references prescription (practice_id, id, wearer_id, purpose);
create unique index prescription_first on prescription (practice_id, wearer_id, purpose) where supersedes_id is null;

create table wearer_identity_change (
  id uuid primary key,
  practice_id uuid not null,
  wearer_id uuid not null,
  version integer not null,
  was jsonb not null,
  changed_at timestamptz not null,
  changed_by uuid not null,
  unique (practice_id, wearer_id, version),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, changed_by) references membership (practice_id, person_id)
);
grant select, insert on wearer_identity_change to keenfit_app;
