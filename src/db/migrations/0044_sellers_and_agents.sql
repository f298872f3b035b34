-- A request that a seller's own system sent is answered to that system; a copy that somebody acting for a wearer asked for has a clock.

-- What comes from outside makes its task by itself: nobody of the practice did.
alter table task_event alter column by drop not null;

alter table request_answer add constraint request_answer_identity unique (practice_id, id);
create table request_dispatch (
  -- The answer's own identity, under which it is brought however often.
  answer_id uuid primary key,
  practice_id uuid not null,
  due_at timestamptz not null,
  attempts integer not null default 0 check (attempts >= 0),
  last_problem text,
  done_at timestamptz,
  outcome text check (outcome in ('taken', 'refused')),
  check ((done_at is null) = (outcome is null)),
  foreign key (practice_id, answer_id) references request_answer (practice_id, id)
);
create index request_dispatch_due on request_dispatch (due_at) where done_at is null;
grant select, insert on request_dispatch to keenfit_app;
grant update (due_at, attempts, last_problem, done_at, outcome) on request_dispatch to keenfit_app;

create table copy_request (
  id uuid primary key,
  practice_id uuid not null,
  wearer_id uuid not null,
  -- Who acts for the wearer, and where the copy goes.
  agent_name text not null check (length(trim(agent_name)) between 2 and 120),
  agent_contact text not null check (length(trim(agent_contact)) between 2 and 120),
  received_at timestamptz not null,
  profile text not null check (profile in ('generic', 'us')),
  due_at timestamptz,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index copy_request_received on copy_request (practice_id, received_at desc);
create table copy_request_end (
  copy_request_id uuid primary key,
  practice_id uuid not null,
  how text not null check (how in ('sent', 'refused')),
  prescription_id uuid,
  reason text check (length(trim(reason)) > 0),
  ended_at timestamptz not null,
  ended_by uuid not null,
  check (how <> 'sent' or prescription_id is not null),
  check (how <> 'refused' or reason is not null),
  foreign key (practice_id, copy_request_id) references copy_request (practice_id, id),
  foreign key (practice_id, prescription_id) references prescription (practice_id, id),
  foreign key (practice_id, ended_by) references membership (practice_id, person_id)
);
grant select, insert on copy_request, copy_request_end to keenfit_app;
create trigger not_of_merged before insert on copy_request for each row execute function refuse_merged_wearer();
