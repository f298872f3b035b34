-- Trial lenses come and go by appended movements. What a lot counts is what its movements add up to: a trigger keeps it,
-- nobody writes it otherwise, and it never goes below nothing.
create table trial_movement (
  id uuid primary key default gen_random_uuid(),
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  trial_stock_id uuid not null,
  kind text not null check (kind in ('opening', 'received', 'putOn', 'putBack', 'counted', 'thrownAway')),
  change integer not null check (
    change <> 0 and (kind not in ('opening', 'received', 'putBack') or change > 0) and (kind not in ('putOn', 'thrownAway') or change < 0)),
  -- Where it went on an eye, or came back from.
  visit_id uuid,
  note text check (length(note) <= 200),
  moved_at timestamptz not null,
  moved_by uuid,
  check (moved_by is not null or kind = 'opening'),
  foreign key (practice_id, trial_stock_id) references trial_stock (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, moved_by) references membership (practice_id, person_id)
);
create index trial_movement_stock on trial_movement (practice_id, trial_stock_id, sequence desc);
create index trial_movement_visit on trial_movement (practice_id, visit_id);
insert into trial_movement (practice_id, trial_stock_id, kind, change, moved_at)
select practice_id, id, 'opening', count, now() from trial_stock where count > 0;

-- A day misread is put right by taking the lenses out of the wrong day and into the right one.
alter table trial_stock drop constraint trial_stock_practice_id_lens_id_lot_key;
alter table trial_stock add unique (practice_id, lens_id, lot, expires_on);
alter table trial_stock alter count set default 0;

create function keep_trial_count() returns trigger language plpgsql security definer set search_path from current as $$
begin
  update trial_stock set count = count + new.change where practice_id = new.practice_id and id = new.trial_stock_id;
  return null;
end $$;
create trigger trial_movement_counts after insert on trial_movement for each row execute function keep_trial_count();

create function guard_trial_count() returns trigger language plpgsql set search_path from current as $$
begin
  if tg_op = 'INSERT' and new.count <> 0 or tg_op = 'UPDATE' and pg_trigger_depth() < 2 then
    raise exception 'a trial lens is counted by its movements' using errcode = 'integrity_constraint_violation';
  end if;
  return new;
end $$;
create trigger trial_stock_counted before insert or update of count on trial_stock for each row execute function guard_trial_count();

grant select, insert on trial_movement to keenfit_app;
