-- Near acuity with the distance it was read at, and the distance of an addition: both beside the refraction. What an eye is to see
-- stands on the prescription, as it was decided when it was signed.
alter table refraction
  add column near_cm integer check (near_cm between 20 and 100),
  add column near_acuity_log_mar numeric(4, 2) check (near_acuity_log_mar between -0.4 and 3),
  add column near_acuity_typed text check (length(near_acuity_typed) <= 20),
  add check ((near_acuity_log_mar is null) = (near_acuity_typed is null)),
  add check (near_acuity_log_mar is null or near_cm is not null);

alter table prescription_eye add column aim jsonb check (
  jsonb_typeof(aim) = 'object' and aim ->> 'sees' in ('far', 'near', 'both')
  and case when aim ->> 'sees' = 'far' then aim ->> 'cm' is null else (aim ->> 'cm')::integer between 20 and 100 end);
