-- Clinical facts. Appended only: a correction is a new row that names the row it corrects (once), a void is a
-- correction with a reason. Five facts are never mixed: tried, dispensed, prescribed, ordered, worn now.
-- root_id is the first row of a chain of corrections; other facts hang on the root.

create table refraction (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references refraction (practice_id, id),
  sphere_d numeric(5, 2) not null check (sphere_d between -30 and 30 and mod(sphere_d, 0.25) = 0),
  cylinder_d numeric(5, 2) not null check (cylinder_d between -12 and 0 and mod(cylinder_d, 0.25) = 0),
  axis_deg integer not null check (axis_deg between 1 and 180),
  vertex_mm numeric(4, 1) not null check (vertex_mm between 5 and 20 and mod(vertex_mm, 0.5) = 0),
  typed_text text not null,
  source text not null default 'typed' check (source in ('typed', 'copied')),
  check (cylinder_d <> 0 or axis_deg = 180)
);
create index refraction_visit on refraction (practice_id, visit_id);

create table lens_on_eye (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references lens_on_eye (practice_id, id),
  lens_id uuid,
  known boolean generated always as (lens_id is not null) stored,
  description text,
  source text not null check (source in ('trial', 'dispensed', 'order', 'broughtIn')),
  trial_number integer,
  trial_stock_id uuid,
  lot text,
  expires_on date,
  put_on_at timestamptz not null,
  unique (practice_id, id, known),
  check (lens_id is not null or length(trim(description)) > 0),
  check (source <> 'trial' or (trial_stock_id is not null and lens_id is not null and lot is not null)),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, trial_stock_id) references trial_stock (practice_id, id)
);
create index lens_on_eye_visit on lens_on_eye (practice_id, visit_id);

-- Somebody vouches for what is on the eye. Over-refractions hang on this row: without it the database refuses them,
-- and a lens nobody can name cannot be confirmed.
create table lens_confirmation (
  lens_on_eye_id uuid primary key,
  practice_id uuid not null,
  known boolean not null default true check (known),
  how text not null check (how in ('putOnHere', 'wearerSaid', 'boxSeen')),
  confirmed_at timestamptz not null,
  confirmed_by uuid not null,
  unique (practice_id, lens_on_eye_id),
  foreign key (practice_id, lens_on_eye_id, known) references lens_on_eye (practice_id, id, known),
  foreign key (practice_id, confirmed_by) references membership (practice_id, person_id)
);

create table lens_removal (
  lens_on_eye_id uuid primary key,
  practice_id uuid not null,
  taken_off_at timestamptz not null,
  taken_off_by uuid not null,
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id),
  foreign key (practice_id, taken_off_by) references membership (practice_id, person_id)
);

create table fit_check (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references fit_check (practice_id, id),
  lens_on_eye_id uuid not null,
  verdict text not null check (verdict in ('loose', 'fits', 'tight')),
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id)
);
create index fit_check_visit on fit_check (practice_id, visit_id);

create table rotation_reading (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references rotation_reading (practice_id, id),
  lens_on_eye_id uuid not null,
  rotation_left_deg integer not null check (rotation_left_deg between -90 and 90),
  how text not null check (how in ('drag', 'keys', 'typed')),
  provisional boolean not null,
  foreign key (practice_id, lens_on_eye_id) references lens_on_eye (practice_id, id)
);
create index rotation_reading_visit on rotation_reading (practice_id, visit_id);

create table over_refraction (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
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
  foreign key (practice_id, corrects_id) references over_refraction (practice_id, id),
  lens_on_eye_id uuid not null,
  sphere_d numeric(5, 2) not null check (sphere_d between -30 and 30 and mod(sphere_d, 0.25) = 0),
  cylinder_d numeric(5, 2) not null check (cylinder_d between -12 and 0 and mod(cylinder_d, 0.25) = 0),
  axis_deg integer not null check (axis_deg between 1 and 180),
  vertex_mm numeric(4, 1) not null check (vertex_mm between 5 and 20 and mod(vertex_mm, 0.5) = 0),
  typed_text text not null,
  acuity_log_mar numeric(4, 2) check (acuity_log_mar between -0.4 and 3),
  acuity_typed text,
  provisional boolean not null,
  check (cylinder_d <> 0 or axis_deg = 180),
  foreign key (practice_id, lens_on_eye_id) references lens_confirmation (practice_id, lens_on_eye_id)
);
create index over_refraction_visit on over_refraction (practice_id, visit_id);

