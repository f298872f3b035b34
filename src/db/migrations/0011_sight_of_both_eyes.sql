-- What both eyes see together through the two lenses on them; belongs to those two lenses and to no others.
create table acuity_both (
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
  foreign key (practice_id, corrects_id) references acuity_both (practice_id, id),
  right_lens_on_eye_id uuid not null,
  left_lens_on_eye_id uuid not null,
  acuity_log_mar numeric(4, 2) not null check (acuity_log_mar between -0.4 and 3),
  acuity_typed text not null check (length(acuity_typed) between 1 and 20),
  provisional boolean not null,
  check (right_lens_on_eye_id <> left_lens_on_eye_id),
  foreign key (practice_id, right_lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, left_lens_on_eye_id) references lens_on_eye (practice_id, id)
);
create index acuity_both_visit on acuity_both (practice_id, visit_id);

grant select, insert on acuity_both to keenfit_app;
