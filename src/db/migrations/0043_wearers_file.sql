-- A wearer's file leaves as a whole; whose identity was erased stays known, with until when the facts are kept.
grant select on wearer_merge_row to keenfit_app;

-- Written by the job of whoever owns the database, never by the application.
create table wearer_erasure (
  id uuid primary key,
  practice_id uuid not null,
  erased_wearer_id uuid not null,
  -- What stands in place of the name.
  pseudonym text not null check (length(pseudonym) between 5 and 60),
  reason text not null check (length(trim(reason)) >= 3),
  erased_at timestamptz not null,
  -- Who ran the job, as they named themselves: it runs beside the application and its accounts.
  erased_by text not null check (length(trim(erased_by)) > 0),
  kept_until date not null,
  unique (practice_id, id),
  unique (practice_id, erased_wearer_id),
  foreign key (practice_id, erased_wearer_id) references wearer (practice_id, id)
);
grant select on wearer_erasure to keenfit_app;

-- An engraving on the lens tells more than its wearer, and less than its box.
alter table lens_confirmation drop constraint lens_confirmation_how_check;
alter table lens_confirmation add constraint lens_confirmation_how_check check (how in ('putOnHere', 'wearerSaid', 'engravingSeen', 'boxSeen'));
