-- Near acuity with the distance it was read at, and the distance of an addition: both beside the refraction. What an eye is to see
-- stands on the prescription, as it was decided when it was signed.
alter table refraction
  add column near_cm integer check (near_cm between 20 and 100),
  add column near_acuity_log_mar numeric(4, 2) check (near_acuity_log_mar between -0.4 and 3),
  add column near_acuity_typed text check (length(near_acuity_typed) <= 20),
  add check ((near_acuity_log_mar is null) = (near_acuity_typed is null)),
  add check (near_acuity_log_mar is null or near_cm is not null);

alter table prescription_eye add column aim jsonb check (aim is null or (
  jsonb_typeof(aim) = 'object' and aim ->> 'sees' in ('far', 'near', 'both')
  and case when aim ->> 'sees' = 'far' then aim ->> 'cm' is null else coalesce((aim ->> 'cm')::integer between 20 and 100, false) end));

-- Driving with lenses that serve near: asked before they go home.
alter table near_finding drop constraint near_finding_sign_check;
alter table near_finding add constraint near_finding_sign_check check (sign in ('dominanceBlur', 'dominanceSighting', 'coverTest', 'oldSquint',
  'monovisionBefore', 'driving', 'way', 'stereo', 'road', 'dashboard', 'screen', 'score', 'workbench', 'book', 'phone'));
