-- What a wearer wore when the practice took over their record: brought along in a list, for whoever has had nothing here yet.
-- Appended; the newest row of an eye holds. It never stands for what was tried, prescribed, ordered or handed over here.
create table brought_along (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  lens_id uuid not null,
  -- The day of which the list speaks.
  as_of date not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index brought_along_newest on brought_along (practice_id, wearer_id, eye, sequence desc);
grant select, insert on brought_along to keenfit_app;
