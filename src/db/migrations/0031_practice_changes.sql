-- What a practice is called and where it is reached can be changed; what it was stays on record.
alter table practice add column version integer not null default 1;
create table practice_change (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  version integer not null,
  was jsonb not null,
  changed_at timestamptz not null,
  changed_by uuid not null,
  unique (practice_id, version),
  foreign key (practice_id, changed_by) references membership (practice_id, person_id)
);
grant select, insert on practice_change to keenfit_app;
