-- What the code on a box names: learned when a box was first read beside its order, compared from then on. The newest row of a
-- code holds: one that was learned wrong is learned again, with why.
create table package_code (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  gtin text not null check (gtin ~ '^[0-9]{14}$'),
  lens_id uuid not null,
  reason text check (length(trim(reason)) >= 3),
  learned_at timestamptz not null,
  learned_by uuid not null,
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, learned_by) references membership (practice_id, person_id)
);
create index package_code_gtin on package_code (practice_id, gtin, sequence desc);
grant select, insert on package_code to keenfit_app;

-- A box with a number of its own comes once.
create table box_serial (
  practice_id uuid not null,
  gtin text not null check (gtin ~ '^[0-9]{14}$'),
  serial text not null check (length(serial) between 1 and 20),
  order_receipt_id uuid not null,
  primary key (practice_id, gtin, serial),
  foreign key (practice_id, order_receipt_id) references order_receipt (practice_id, id)
);
create index box_serial_receipt on box_serial (practice_id, order_receipt_id);
grant select, insert on box_serial to keenfit_app;
