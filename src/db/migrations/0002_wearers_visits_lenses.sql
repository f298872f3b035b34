-- Wearers (identity in a table apart, so that erasure never touches facts), diary, visits, lenses.

create table wearer (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  record_number integer not null,
  created_at timestamptz not null,
  version integer not null default 1,
  unique (practice_id, id),
  unique (practice_id, record_number)
);

create table wearer_identity (
  wearer_id uuid primary key,
  practice_id uuid not null,
  name text not null collate names check (length(trim(name)) between 1 and 120),
  birth_date date not null check (birth_date >= date '1900-01-01'),
  telephone text,
  occupation text,
  language text not null default 'en',
  guardian text,
  handler text,
  foreign key (practice_id, wearer_id) references wearer (practice_id, id)
);
create index wearer_identity_name on wearer_identity (practice_id, name);

create table appointment (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  room_id uuid,
  staff_id uuid,
  kind text not null check (kind in ('firstFit', 'refit', 'lesson', 'aftercare', 'collection')),
  starts_at timestamptz not null,
  chair_minutes integer not null check (chair_minutes between 5 and 480),
  staff_minutes integer not null check (staff_minutes between 0 and chair_minutes),
  state text not null default 'booked' check (state in ('booked', 'arrived', 'done', 'missed', 'cancelled')),
  version integer not null default 1,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, room_id) references room (practice_id, id),
  foreign key (practice_id, staff_id) references membership (practice_id, person_id)
);
create index appointment_day on appointment (practice_id, starts_at);

-- The editable parent of clinical facts: locks are taken here, and the version tells two editors apart.
create table visit (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  appointment_id uuid,
  kind text not null check (kind in ('firstFit', 'refit', 'lesson', 'aftercare', 'collection')),
  opened_at timestamptz not null,
  opened_by uuid not null,
  closed_at timestamptz,
  version integer not null default 1,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, appointment_id) references appointment (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id)
);
create index visit_of_wearer on visit (practice_id, wearer_id, opened_at desc);

create table draft (
  practice_id uuid not null,
  visit_id uuid not null,
  step text not null check (step in ('history', 'eyeHealth', 'power', 'lens', 'onEye', 'final', 'teach', 'supply')),
  author_id uuid not null,
  body jsonb not null,
  sequence bigint not null,
  saved_at timestamptz not null,
  primary key (visit_id, step, author_id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, author_id) references membership (practice_id, person_id)
);

-- A version of a lens family never changes once used; a new catalogue makes a new version.
create table lens_family_version (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  code text not null,
  version integer not null,
  listed boolean not null,
  maker text not null,
  name text not null,
  geometry text not null check (geometry in ('sphere', 'toric', 'multifocal', 'toricMultifocal')),
  modality text not null check (modality in ('daily', 'twoWeekly', 'monthly')),
  material text not null,
  water_percent numeric(4, 1),
  dk numeric(5, 1),
  dkt_centre numeric(5, 1),
  dkt_thickest numeric(5, 1),
  modulus_mpa numeric(4, 2),
  ionic_group text,
  overnight_approved boolean not null default false,
  mark_layout text not null check (mark_layout in ('none', 'six', 'threeNine', 'twelve')),
  stabilisation text check (stabilisation in ('prismBallast', 'thinZones', 'fourPoint')),
  settle_minutes integer not null check (settle_minutes between 1 and 60),
  pack_size integer not null check (pack_size > 0),
  pack_price_minor integer not null check (pack_price_minor >= 0),
  rebate_minor integer not null default 0,
  lead_days integer not null check (lead_days between 0 and 120),
  multifocal_design text check (multifocal_design in ('centreNear', 'centreDistance', 'concentric', 'extendedDepth')),
  reusable_trial boolean not null default false,
  created_at timestamptz not null,
  unique (practice_id, id),
  unique (practice_id, code, version)
);

create table lens_block (
  id uuid primary key,
  practice_id uuid not null,
  family_version_id uuid not null,
  sphere_from numeric(5, 2) not null check (sphere_from between -30 and 30),
  sphere_to numeric(5, 2) not null check (sphere_to between -30 and 30),
  sphere_step numeric(4, 2) not null check (sphere_step > 0),
  cylinders numeric(5, 2)[] not null check (cardinality(cylinders) > 0),
  axis_from integer not null check (axis_from between 1 and 180),
  axis_to integer not null check (axis_to between 1 and 180),
  axis_step integer not null check (axis_step >= 1),
  adds text[] not null default '{}',
  curves jsonb not null,
  sort_order integer not null,
  check (sphere_from <= sphere_to and axis_from <= axis_to),
  foreign key (practice_id, family_version_id) references lens_family_version (practice_id, id)
);
create index lens_block_family on lens_block (family_version_id, sort_order);

-- Every lens that was ever tried, dispensed, prescribed, ordered or worn is one row here.
create table lens (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  family_version_id uuid not null,
  sphere_d numeric(5, 2) not null check (sphere_d between -30 and 30 and mod(sphere_d, 0.25) = 0),
  cylinder_d numeric(5, 2) not null check (cylinder_d between -12 and 0 and mod(cylinder_d, 0.25) = 0),
  axis_deg integer not null check (axis_deg between 1 and 180),
  add_band text check (add_band in ('low', 'medium', 'high')),
  base_curve_mm numeric(4, 2) check (base_curve_mm between 7 and 10),
  diameter_mm numeric(4, 2) check (diameter_mm between 12 and 18),
  unique nulls not distinct (family_version_id, sphere_d, cylinder_d, axis_deg, add_band, base_curve_mm, diameter_mm),
  unique (practice_id, id),
  check (cylinder_d <> 0 or axis_deg = 180),
  foreign key (practice_id, family_version_id) references lens_family_version (practice_id, id)
);

create table trial_stock (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  lens_id uuid not null,
  lot text not null,
  expires_on date not null,
  count integer not null check (count >= 0),
  unique (practice_id, id),
  unique (practice_id, lens_id, lot),
  foreign key (practice_id, lens_id) references lens (practice_id, id)
);
