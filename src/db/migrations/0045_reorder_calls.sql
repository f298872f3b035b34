-- What was said on the telephone when lenses ran low: asked, told, and what came of it.
create table reorder_call (
  id uuid primary key,
  practice_id uuid not null,
  wearer_id uuid not null,
  outcome text not null check (outcome in ('ordered', 'sightChanged', 'examination', 'message', 'later')),
  order_id uuid,
  -- The wearer asks to be called again from this day on.
  later_on date,
  note text check (length(trim(note)) between 1 and 400),
  called_at timestamptz not null,
  called_by uuid not null,
  unique (practice_id, id),
  check ((outcome = 'ordered') = (order_id is not null)),
  check ((outcome = 'later') = (later_on is not null)),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, order_id) references lens_order (practice_id, id),
  foreign key (practice_id, called_by) references membership (practice_id, person_id)
);
create index reorder_call_of_wearer on reorder_call (practice_id, wearer_id, called_at desc);
grant select, insert on reorder_call to keenfit_app;
create trigger not_of_merged before insert on reorder_call for each row execute function refuse_merged_wearer();
