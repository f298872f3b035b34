-- The page that a wearer takes home, as it was given: appended. What is printed later is a page of its own.
create table take_home_sheet (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  wearer_id uuid not null,
  visit_id uuid not null,
  -- Which of the wearer's pages it is, from 1.
  number integer not null check (number > 0),
  language text not null check (language ~ '^[a-z]{2}$'),
  way text not null check (way in ('paper', 'file', 'link')),
  -- Figures and codes of the page, no words.
  page jsonb not null,
  given_at timestamptz not null,
  given_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, given_by) references membership (practice_id, person_id)
);
-- Counted with the wearer's row held; not unique: two records made one bring both their pages.
create index take_home_sheet_of_wearer on take_home_sheet (practice_id, wearer_id, number);
create index take_home_sheet_of_visit on take_home_sheet (practice_id, visit_id, number);
create trigger not_of_merged before insert on take_home_sheet for each row execute function refuse_merged_wearer();
grant select, insert on take_home_sheet to keenfit_app;

-- A speaker of a language looked at its words: of those very words, and no others.
create table language_check (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  language text not null check (language ~ '^[a-z]{2}$'),
  words text not null check (length(words) between 4 and 64),
  speaker text not null check (length(speaker) between 2 and 120),
  checked_on date not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index language_check_of_language on language_check (practice_id, language, sequence);
grant select, insert on language_check to keenfit_app;
