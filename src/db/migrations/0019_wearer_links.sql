-- Who asks is one of the staff, or a wearer who holds a link to one thing.

create table wearer_link (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  purpose text not null check (purpose in ('lesson', 'takeHome')),
  -- The lesson, or the visit of which the paper is.
  subject_id uuid not null,
  token_hash text not null unique,
  opened_at timestamptz not null,
  opened_by uuid not null references person (id),
  expires_at timestamptz not null check (expires_at > opened_at),
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id)
);
create index wearer_link_of_wearer on wearer_link (practice_id, wearer_id);
create table wearer_link_end (
  link_id uuid primary key,
  practice_id uuid not null,
  ended_at timestamptz not null,
  ended_by uuid not null references person (id),
  foreign key (practice_id, link_id) references wearer_link (practice_id, id)
);
grant select, insert on wearer_link, wearer_link_end to keenfit_app;

alter table audit_log add column link_id uuid references wearer_link (id), add check (person_id is null or link_id is null);
alter table request_done alter column person_id drop not null, add column link_id uuid references wearer_link (id),
  add check (num_nonnulls(person_id, link_id) = 1);
