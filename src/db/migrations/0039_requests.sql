-- What sellers ask to be confirmed: kept as it came, with the deadlines that held then; whose it is and what was answered are appended.
create table request (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  -- Typed in from paper or the telephone, or sent by a seller's own system, which names it once.
  arrived text not null check (arrived in ('typed', 'sent')),
  outside_ref text check (length(outside_ref) between 1 and 100),
  seller_name text not null check (length(seller_name) <= 120),
  seller_contact text not null check (length(seller_contact) <= 120),
  wearer_name text not null check (length(wearer_name) <= 120),
  wearer_address text not null check (length(wearer_address) <= 200),
  asked_on date,
  received_at timestamptz not null,
  asked jsonb not null,
  profile text not null check (profile in ('generic', 'us')),
  usual_at timestamptz,
  earliest_at timestamptz,
  recorded_at timestamptz not null,
  recorded_by uuid,
  unique (practice_id, id),
  check ((arrived = 'typed') = (recorded_by is not null)),
  check ((arrived = 'sent') = (outside_ref is not null)),
  check (earliest_at is null or earliest_at <= usual_at),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create unique index request_outside on request (practice_id, outside_ref) where outside_ref is not null;
create index request_received on request (practice_id, received_at desc);

create table request_wearer (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  request_id uuid not null,
  wearer_id uuid not null,
  matched_at timestamptz not null,
  matched_by uuid not null,
  foreign key (practice_id, request_id) references request (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, matched_by) references membership (practice_id, person_id)
);
create index request_wearer_newest on request_wearer (practice_id, request_id, sequence desc);
create trigger not_of_merged before insert on request_wearer for each row execute function refuse_merged_wearer();

create table request_answer (
  id uuid primary key,
  practice_id uuid not null,
  request_id uuid not null,
  -- Answers of a request in their order: two people never give the same one.
  place integer not null check (place >= 1),
  answer text not null check (answer in ('correct', 'corrected', 'expired', 'invalid')),
  proposed text not null check (proposed in ('correct', 'corrected', 'expired', 'invalid')),
  prescription_id uuid,
  differences jsonb not null,
  reason text check (length(trim(reason)) > 0),
  answered_at timestamptz not null,
  answered_by uuid not null,
  unique (practice_id, request_id, place),
  check (answer not in ('corrected', 'correct') or prescription_id is not null),
  check (answer <> 'invalid' or reason is not null),
  foreign key (practice_id, request_id) references request (practice_id, id),
  foreign key (practice_id, prescription_id) references prescription (practice_id, id),
  foreign key (practice_id, answered_by) references membership (practice_id, person_id)
);
grant select, insert on request, request_wearer, request_answer to keenfit_app;

alter table task drop constraint task_because_check;
alter table task add constraint task_because_check check (because in ('missedAppointment', 'trialsCame', 'redEye', 'request'));
