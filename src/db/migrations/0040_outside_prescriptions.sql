-- A prescription that another system wrote, read from its file: kept as it was understood, with what was left aside. It is no
-- prescription of this practice, and nothing can be ordered under it.
create table outside_prescription (
  id uuid primary key,
  practice_id uuid not null,
  wearer_id uuid not null,
  file_name text not null check (length(file_name) between 1 and 200),
  format text not null check (format in ('fhir', 'csv')),
  document jsonb not null,
  left_aside jsonb not null,
  -- Why it is this wearer's although the file names another.
  despite_reason text check (length(trim(despite_reason)) > 0),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index outside_prescription_newest on outside_prescription (practice_id, wearer_id, recorded_at desc);
grant select, insert on outside_prescription to keenfit_app;
create trigger not_of_merged before insert on outside_prescription for each row execute function refuse_merged_wearer();
