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

-- Where the centre of a lens lies from the pupil's.
alter table lens_finding drop constraint lens_finding_sign;
alter table lens_finding add constraint lens_finding_sign check (case
  when sign in ('offNose', 'offUp') then number_value between -3 and 3 and mod(number_value, 0.1) = 0
  when sign in ('pupilNose', 'pupilUp') then number_value between -2 and 2 and mod(number_value, 0.1) = 0
  when sign in ('overlapUp', 'overlapDown', 'overlapNose', 'overlapEar') then number_value between -2 and 5 and mod(number_value, 0.1) = 0
  when sign in ('movement', 'movementUp', 'lag') then number_value between 0 and 6 and mod(number_value, 0.05) = 0
  when sign = 'pushUp' then number_value between 0 and 100 and mod(number_value, 5) = 0
  when sign in ('comfort', 'recovery') then number_value between 0 and 10 and mod(number_value, 1) = 0
  when sign = 'recoverySeconds' then number_value between 0 and 300 and mod(number_value, 5) = 0
  when sign in ('acuityLens', 'acuityPinhole') then number_value between -0.4 and 3 and typed_text is not null
  when sign = 'coverage' then word_value in ('full', 'edgeShows')
  when sign = 'edge' then word_value in ('flat', 'lifts', 'indents')
  when sign = 'edgeVessels' then word_value in ('free', 'blanched', 'red')
  when sign = 'afterBlink' then word_value in ('steady', 'clearThenBlurs', 'worseJustAfter')
  when sign in ('lineCentre', 'lineMovement', 'lineLag', 'linePushUp') then word_value in ('less', 'middle', 'more')
  when sign = 'lineRecovery' then word_value in ('slow', 'middle', 'fast')
  when sign = 'debris' then word_value in ('none', 'seen')
  when sign = 'insideOut' then word_value in ('no', 'yes')
  when sign = 'deposits' then word_value in ('none', 'film', 'spots')
  when sign = 'damage' then word_value in ('none', 'nick', 'tear')
  when sign = 'cause' then word_value in ('insideOut', 'surface', 'swapped', 'wrongLens', 'unsteady', 'turnedSteady', 'cylinderLeft', 'nearEye',
    'multifocal', 'lazyEye', 'tears', 'cornea', 'insideEye', 'prescriber')
  when sign = 'sureOfLens' then word_value = 'yes'
  else false end);
