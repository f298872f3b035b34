-- The lens library as people keep it: versions with a start, endings, the house list, imports; care products;
-- near additions and prism beside a refraction.

alter table refraction
  add column add_d numeric(4, 2) check (add_d between 0.25 and 4 and mod(add_d, 0.25) = 0),
  add column add_source text check (add_source in ('measured', 'age')),
  -- What the glasses carry and no soft lens can: kept as written.
  add column prism_text text check (length(prism_text) between 1 and 60),
  add check ((add_d is null) = (add_source is null));

alter table lens_family_version
  add column starts_on date,
  add column min_age integer check (min_age between 1 and 99),
  -- The family's own figures; the kind of stabilisation's while there are none.
  add column rotation_mean numeric(4, 1) check (rotation_mean between -45 and 45),
  add column rotation_sd numeric(4, 1) check (rotation_sd between 0 and 45),
  add column created_by uuid,
  add check ((rotation_mean is null) = (rotation_sd is null)),
  add check (rebate_minor >= 0),
  add foreign key (practice_id, created_by) references membership (practice_id, person_id);

-- When a family can last be ordered; the newest row of a code holds, a null day takes the ending back.
create table lens_family_ending (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  code text not null,
  last_order_on date,
  replaced_by text,
  reason text not null check (length(trim(reason)) > 0),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  sequence bigint generated always as identity,
  check (replaced_by is null or replaced_by <> code),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index lens_family_ending_code on lens_family_ending (practice_id, code, sequence desc);

-- Up to three families a cell, tried in this order; the newest row of a cell holds.
create table house_list (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  modality text not null check (modality in ('daily', 'twoWeekly', 'monthly')),
  geometry text not null check (geometry in ('sphere', 'toric', 'multifocal', 'toricMultifocal')),
  codes text[] not null check (cardinality(codes) <= 3),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  sequence bigint generated always as identity,
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index house_list_cell on house_list (practice_id, modality, geometry, sequence desc);

-- What reusable lenses are cared for with; the newest version of a product holds.
create table care_product (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  product_id uuid not null,
  version integer not null check (version > 0),
  system text not null check (system in ('multipurpose', 'peroxide')),
  maker text not null check (length(trim(maker)) between 1 and 80),
  name text not null check (length(trim(name)) between 1 and 80),
  contents text not null check (length(trim(contents)) between 1 and 120),
  lasts_days integer not null check (lasts_days between 1 and 365),
  price_minor integer not null check (price_minor >= 0),
  includes_case boolean not null,
  ended boolean not null default false,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  unique (practice_id, product_id, version),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);

-- A catalogue file on its way in: read and checked first, taken in whole or not at all.
create table catalogue_import (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  file_name text not null check (length(file_name) between 1 and 200),
  bytes bytea not null,
  state text not null check (state in ('waiting', 'checking', 'checked', 'broken', 'takeAsked', 'taking', 'taken', 'cancelled')),
  cancel_asked boolean not null default false,
  claimed_at timestamptz,
  rows_total integer not null default 0,
  rows_done integer not null default 0,
  notes jsonb not null default '{}',
  starts_on date,
  created_at timestamptz not null,
  created_by uuid not null,
  settled_at timestamptz,
  unique (practice_id, id),
  foreign key (practice_id, created_by) references membership (practice_id, person_id)
);
create index catalogue_import_work on catalogue_import (created_at) where state in ('waiting', 'checking', 'takeAsked', 'taking');

create table catalogue_import_fault (
  import_id uuid not null references catalogue_import (id),
  sequence bigint generated always as identity primary key,
  line integer not null,
  gravity text not null check (gravity in ('stop', 'watch')),
  code text not null,
  data jsonb not null
);
create index catalogue_import_fault_of on catalogue_import_fault (import_id, line);

create table catalogue_import_family (
  import_id uuid not null references catalogue_import (id),
  code text not null,
  line_count integer not null,
  fault_count integer not null,
  change text not null check (change in ('new', 'changed', 'same')),
  family jsonb not null,
  primary key (import_id, code)
);

grant select, insert on lens_family_ending, house_list, care_product, catalogue_import, catalogue_import_fault, catalogue_import_family to keenfit_app;
grant update (bytes, state, cancel_asked, claimed_at, rows_total, rows_done, notes, starts_on, settled_at) on catalogue_import to keenfit_app;
-- A check that was broken off is begun again.
grant delete on catalogue_import_fault, catalogue_import_family to keenfit_app;
