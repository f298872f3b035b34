-- An addition stands as its maker writes it: a band, dioptres, or dioptres of one of two designs. What additions are for, which
-- pair to begin with, and what is changed first are data of the family.
alter table lens drop constraint lens_add_band_check;
alter table lens add constraint lens_add_band_check
  check (add_band in ('low', 'medium', 'high') or add_band ~ '^(C[DN] )?\+[0-4]\.(00|25|50|75)$');
alter table lens_family_version
  add column add_table jsonb not null default '[]' check (jsonb_typeof(add_table) = 'array'),
  add column start_table jsonb not null default '[]' check (jsonb_typeof(start_table) = 'array'),
  add column change_rule jsonb check (jsonb_typeof(change_rule) = 'object');
