-- Parts that several pages and jobs stand on: which solutions do not go with which materials, and messages on their way out.

-- A pair says how a solution goes with a material; the newest row of a pair holds.
create table care_pair (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  product_id uuid not null,
  material text not null check (length(trim(material)) between 1 and 80),
  effect text not null check (effect in ('none', 'irritates', 'avoid')),
  source text not null check (length(trim(source)) between 1 and 200),
  sequence bigint generated always as identity,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index care_pair_newest on care_pair (practice_id, product_id, material, sequence desc);
grant select, insert on care_pair to keenfit_app;
create trigger library_changed after insert on care_pair referencing new table as changed for each statement execute function library_changed();

-- The outbox: written with what it tells of, sent by the jobs, under its own identity however often. Words are made by language
-- when it is sent: what is kept is which message and its data.
create table message (
  id uuid primary key,
  practice_id uuid not null,
  wearer_id uuid not null,
  kind text not null check (length(kind) between 1 and 60),
  data jsonb not null default '{}',
  language text not null,
  way text not null check (way in ('mail', 'text')),
  recipient text not null check (length(trim(recipient)) between 1 and 200),
  written_at timestamptz not null,
  written_by uuid references person (id),
  due_at timestamptz not null,
  attempts integer not null default 0 check (attempts >= 0),
  last_problem text,
  done_at timestamptz,
  outcome text check (outcome in ('sent', 'refused')),
  check ((done_at is null) = (outcome is null)),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id)
);
create index message_due on message (due_at) where done_at is null;
create index message_of_wearer on message (practice_id, wearer_id, written_at);
grant select, insert on message to keenfit_app;
grant update (due_at, attempts, last_problem, done_at, outcome) on message to keenfit_app;
