-- A care system is prescribed like a lens: which product, and why. What the product needs is data of the product.
alter table care_product drop constraint care_product_system_check;
alter table care_product add constraint care_product_system_check check (system in ('multipurpose', 'peroxide', 'rigid', 'saline', 'drops'));
alter table care_product
  add column own_label boolean not null default false,
  -- Least time of disinfection; null: nobody has looked it up.
  add column soak_minutes integer check (soak_minutes between 1 and 1440),
  -- In the closed case at most; then disinfected again.
  add column store_days integer check (store_days between 1 and 365),
  -- The bottle is thrown away so long after it was opened.
  add column discard_days integer check (discard_days between 1 and 730),
  add column catalyst_days integer check (catalyst_days between 1 and 365),
  add constraint care_product_catalyst check (catalyst_days is null or system = 'peroxide'),
  add constraint care_product_disinfects check (soak_minutes is null or (system <> 'rigid' and system <> 'saline' and system <> 'drops')),
  add unique (practice_id, id);

create table care_system (
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
  foreign key (practice_id, corrects_id) references care_system (practice_id, id),
  -- The version of the product that was in force.
  care_product_id uuid not null,
  product_id uuid not null,
  -- As the wearer was told it.
  product_name text not null check (length(trim(product_name)) between 1 and 80),
  chosen_for text not null check (chosen_for in ('first', 'sensitivity', 'allergy', 'deposits', 'keepsOwn', 'other')),
  note text check (length(trim(note)) between 1 and 400),
  -- What spoke against it and was overridden, and with what sentence.
  overridden text[] not null default '{}',
  override_note text check (length(trim(override_note)) between 1 and 400),
  check (chosen_for <> 'other' or note is not null),
  check ((cardinality(overridden) > 0) = (override_note is not null)),
  foreign key (practice_id, care_product_id) references care_product (practice_id, id)
);
create index care_system_visit on care_system (practice_id, visit_id);
grant select, insert on care_system to keenfit_app;
