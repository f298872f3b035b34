-- How a family's marks came to sit on this practice's eyes: reckoned each night from the first whole series of each eye.
create table family_turn (
  practice_id uuid not null references practice (id),
  code text not null,
  mean_deg numeric(5, 2) not null,
  sd_deg numeric(5, 2) not null check (sd_deg >= 0),
  eyes integer not null check (eyes > 0),
  reckoned_on date not null,
  primary key (practice_id, code)
);
grant select, insert, update, delete on family_turn to keenfit_app;

-- How fast an eye's lenses are used up beside what the label says: 1.5 is half as long again.
alter table eye_runway
  add column modality text check (modality in ('daily', 'twoWeekly', 'monthly')),
  add column pace numeric(5, 2) check (pace > 0);
