-- Why a prescription runs shorter than the rules of the practice would have it, and how its wearer got a copy: appended, the newest holds.
alter table prescription add column expiry_reason text check (length(trim(expiry_reason)) > 0);
create table prescription_copy (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  prescription_id uuid not null,
  how text not null check (how in ('signed', 'refused', 'digital')),
  given_at timestamptz not null,
  given_by uuid not null,
  foreign key (practice_id, prescription_id) references prescription (practice_id, id),
  foreign key (practice_id, given_by) references membership (practice_id, person_id)
);
create index prescription_copy_newest on prescription_copy (practice_id, prescription_id, sequence desc);
grant select, insert on prescription_copy to keenfit_app;
