-- The shape of a cornea decides whether a regular lens is looked for or a diagnostic set is opened.
alter table eye_finding drop constraint eye_finding_sign;
alter table eye_finding add constraint eye_finding_sign check (case
  when sign in ('lidMargin', 'lashes', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining', 'infiltrates', 'scars', 'oedema', 'endothelium')
    then number_value between 0 and 4 and mod(number_value, 0.5) = 0
  when sign = 'cells' then number_value between 0 and 4 and mod(number_value, 0.5) = 0
  when sign = 'vessels' then number_value between 0 and 6 and mod(number_value, 0.5) = 0
  when sign = 'pain' then number_value between 0 and 10 and mod(number_value, 1) = 0
  when sign in ('kFlatMm', 'kSteepMm') then number_value between 4.5 and 11
  when sign = 'kFlatAxis' then number_value between 1 and 180 and mod(number_value, 1) = 0
  when sign = 'hvid' then number_value between 9 and 14 and mod(number_value, 0.1) = 0
  when sign in ('pupilRoom', 'pupilDim') then number_value between 1 and 10 and mod(number_value, 0.5) = 0
  when sign = 'lidAperture' then number_value between 4 and 16 and mod(number_value, 0.5) = 0
  when sign = 'breakUp' then number_value between 0 and 60 and mod(number_value, 1) = 0
  when sign = 'meniscus' then number_value between 0 and 1 and mod(number_value, 0.05) = 0
  when sign = 'discharge' then word_value in ('none', 'watering', 'sticky')
  when sign = 'light' then word_value in ('fine', 'hurts')
  when sign = 'sightLoss' then word_value in ('none', 'gradual', 'sudden')
  when sign = 'chamber' then word_value in ('quiet', 'cells')
  when sign = 'graftSigns' then word_value in ('none', 'rejection', 'looseSuture')
  when sign = 'suspected' then word_value in ('nothing', 'cornealInfection', 'externalInfection')
  when sign in ('dendrite', 'ring') then word_value in ('none', 'seen')
  when sign = 'painBeyond' then word_value in ('no', 'yes')
  when sign = 'anaesthetic' then word_value in ('no', 'used')
  when sign = 'lensKept' then word_value in ('kept', 'thrownAway', 'noLens')
  when sign = 'lidTension' then word_value in ('loose', 'normal', 'firm')
  when sign = 'stainingPlace' then word_value in ('central', 'upper', 'lower', 'nasal', 'temporal', 'diffuse')
  when sign = 'stainingDepth' then word_value in ('shallow', 'deep')
  when sign = 'stainingArea' then word_value in ('small', 'moderate', 'large')
  when sign = 'infiltratePlace' then word_value in ('central', 'edge')
  when sign = 'cornea' then word_value in ('regular', 'prolate', 'oblate')
  when sign = 'coneStage' then number_value between 1 and 4 and mod(number_value, 1) = 0
  when sign = 'hydrops' then word_value in ('none', 'seen')
  else false end);
