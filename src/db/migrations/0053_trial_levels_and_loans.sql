-- How many of a trial lens the drawer keeps at least: the newest row of a lens holds; 0: none is kept.
create table trial_level (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  lens_id uuid not null,
  least integer not null check (least between 0 and 100),
  set_at timestamptz not null,
  set_by uuid not null,
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, set_by) references membership (practice_id, person_id)
);
create index trial_level_lens on trial_level (practice_id, lens_id, sequence desc);

-- Trial lenses that were asked of a supplier for the drawer; they count as on their way until as many came.
create table trial_restock (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  lens_id uuid not null,
  count integer not null check (count between 1 and 500),
  asked_at timestamptz not null,
  asked_by uuid not null,
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, asked_by) references membership (practice_id, person_id)
);
create index trial_restock_asked on trial_restock (practice_id, asked_at desc);

-- Trial lenses that another practice or a colleague has, until they come back or are written off.
create table trial_loan (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  trial_stock_id uuid not null,
  count integer not null check (count between 1 and 500),
  lent_to text not null check (length(trim(lent_to)) between 2 and 120),
  due_on date,
  lent_at timestamptz not null,
  lent_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, trial_stock_id) references trial_stock (practice_id, id),
  foreign key (practice_id, lent_by) references membership (practice_id, person_id)
);
create table trial_loan_end (
  id uuid primary key,
  practice_id uuid not null,
  loan_id uuid not null unique,
  -- Unopened, and in the drawer again; the others stay where they are.
  returned integer not null check (returned between 0 and 500),
  ended_at timestamptz not null,
  ended_by uuid not null,
  foreign key (practice_id, loan_id) references trial_loan (practice_id, id),
  foreign key (practice_id, ended_by) references membership (practice_id, person_id)
);
grant select, insert on trial_level, trial_restock, trial_loan, trial_loan_end to keenfit_app;

alter table trial_movement drop constraint trial_movement_kind_check;
alter table trial_movement add constraint trial_movement_kind_check
  check (kind in ('opening', 'received', 'putOn', 'putBack', 'counted', 'thrownAway', 'givenHome', 'lent', 'lentBack'));
alter table trial_movement add check (kind <> 'lent' or change < 0), add check (kind <> 'lentBack' or change > 0);
create index trial_movement_recent on trial_movement (practice_id, moved_at);
