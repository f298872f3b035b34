-- "Taken off" was recorded by mistake: withdrawn with a reason, once. The removal itself stays.
create table lens_removal_withdrawn (
  lens_on_eye_id uuid primary key references lens_removal (lens_on_eye_id),
  practice_id uuid not null,
  withdrawn_at timestamptz not null,
  withdrawn_by uuid not null,
  reason text not null check (length(trim(reason)) > 0),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, withdrawn_by) references membership (practice_id, person_id)
);
grant select, insert on lens_removal_withdrawn to keenfit_app;
