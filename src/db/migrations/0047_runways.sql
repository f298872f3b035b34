-- Lenses of an eye that were lost, torn or thrown away at home: told on the telephone or at a visit. One told in error is withdrawn.
create table lens_loss (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  wearer_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  lenses integer not null check (lenses between 1 and 90),
  why text not null check (why in ('lost', 'torn', 'contaminated', 'uncomfortable')),
  lost_on date not null,
  told_at timestamptz not null,
  told_to uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, told_to) references membership (practice_id, person_id)
);
create index lens_loss_of_wearer on lens_loss (practice_id, wearer_id, lost_on);
grant select, insert on lens_loss to keenfit_app;
create trigger not_of_merged before insert on lens_loss for each row execute function refuse_merged_wearer();

create table lens_loss_withdrawal (
  lens_loss_id uuid primary key,
  practice_id uuid not null,
  withdrawn_at timestamptz not null,
  withdrawn_by uuid not null,
  foreign key (practice_id, lens_loss_id) references lens_loss (practice_id, id),
  foreign key (practice_id, withdrawn_by) references membership (practice_id, person_id)
);
grant select, insert on lens_loss_withdrawal to keenfit_app;

-- How far the lenses of each eye reach, as reckoned from the facts: kept by whatever changes them, and anew each night. Nothing
-- here is a fact or belongs to a record: it may be thrown away and reckoned again.
create table eye_runway (
  practice_id uuid not null,
  of_wearer_id uuid not null,
  eye text not null check (eye in ('right', 'left')),
  prescription_id uuid not null,
  lens_id uuid,
  family_name text not null,
  expires_on date not null,
  in_hand_until date,
  run_out date not null,
  -- Last day at the pace at which lenses were really used up; null while that is not known, or is as labelled.
  pace_run_out date,
  reorder_by date not null,
  -- The earliest day of the wearer's eyes on which somebody should call, not before a day that was agreed on: the same in each row.
  due_on date not null,
  later_on date,
  on_the_way integer not null check (on_the_way >= 0),
  proposed integer not null check (proposed >= 0),
  within integer not null check (within >= 0),
  reckoned_on date not null,
  primary key (practice_id, of_wearer_id, eye),
  foreign key (practice_id, of_wearer_id) references wearer (practice_id, id)
);
create index eye_runway_due on eye_runway (practice_id, due_on, of_wearer_id);
create index eye_runway_on_the_way on eye_runway (practice_id, reckoned_on) where on_the_way > 0;
grant select, insert, update, delete on eye_runway to keenfit_app;

-- Wearers of whom something was recorded on which a runway rests, until it is reckoned again. Rows are only added and taken away:
-- two who record for one wearer never wait for each other here.
create table runway_stale (
  id bigint generated always as identity primary key,
  practice_id uuid not null,
  of_wearer_id uuid not null
);
create index runway_stale_of_wearer on runway_stale (practice_id, of_wearer_id);
grant select, insert, delete on runway_stale to keenfit_app;

create function runway_stale_wearer() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) values (new.practice_id, new.wearer_id);
  return null;
end $$;
create function runway_stale_order() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) select o.practice_id, o.wearer_id from lens_order o where o.id = new.order_id;
  return null;
end $$;
create function runway_stale_visit() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) select v.practice_id, v.wearer_id from visit v where v.id = new.visit_id;
  return null;
end $$;
create function runway_stale_loss() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) select l.practice_id, l.wearer_id from lens_loss l where l.id = new.lens_loss_id;
  return null;
end $$;
create function runway_stale_merge() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) select m.practice_id, w from wearer_merge m, unnest(array[m.from_id, m.into_id]) w
    where m.id = (to_jsonb(new) ->> tg_argv[0])::uuid;
  return null;
end $$;
create function runway_stale_erased() returns trigger language plpgsql as $$
begin
  insert into runway_stale (practice_id, of_wearer_id) values (new.practice_id, new.erased_wearer_id);
  return null;
end $$;
create trigger runway_stale after insert on wearer_erasure for each row execute function runway_stale_erased();
create trigger runway_stale after insert on hand_over for each row execute function runway_stale_wearer();
create trigger runway_stale after insert on lens_order for each row execute function runway_stale_wearer();
create trigger runway_stale after insert on prescription for each row execute function runway_stale_wearer();
create trigger runway_stale after insert on lens_loss for each row execute function runway_stale_wearer();
create trigger runway_stale after insert on reorder_call for each row execute function runway_stale_wearer();
create trigger runway_stale after insert on order_event for each row execute function runway_stale_order();
create trigger runway_stale after insert on worn_answer for each row execute function runway_stale_visit();
create trigger runway_stale after insert on lens_loss_withdrawal for each row execute function runway_stale_loss();
create trigger runway_stale after insert on wearer_merge for each row execute function runway_stale_merge('id');
create trigger runway_stale after insert on wearer_merge_undone for each row execute function runway_stale_merge('merge_id');

-- What was there before is reckoned by the job.
insert into runway_stale (practice_id, of_wearer_id) select practice_id, id from wearer where merged_into is null;
