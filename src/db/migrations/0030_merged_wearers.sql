-- Two records of one person become one, and can be taken apart again. What was recorded moves as it is; which rows moved is kept.

alter table wearer add column merged_into uuid,
  add constraint wearer_merged_into foreign key (practice_id, merged_into) references wearer (practice_id, id),
  add check (merged_into <> id);
create index wearer_merged on wearer (practice_id, merged_into) where merged_into is not null;

create table wearer_merge (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  from_id uuid not null,
  into_id uuid not null,
  reason text not null check (length(trim(reason)) >= 3),
  merged_at timestamptz not null,
  merged_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, from_id) references wearer (practice_id, id),
  foreign key (practice_id, into_id) references wearer (practice_id, id),
  foreign key (practice_id, merged_by) references membership (practice_id, person_id)
);
create index wearer_merge_newest on wearer_merge (practice_id, merged_at desc);
create table wearer_merge_undone (
  merge_id uuid primary key,
  practice_id uuid not null,
  reason text not null check (length(trim(reason)) >= 3),
  undone_at timestamptz not null,
  undone_by uuid not null,
  foreign key (practice_id, merge_id) references wearer_merge (practice_id, id),
  foreign key (practice_id, undone_by) references membership (practice_id, person_id)
);
-- What moved from the one record to the other.
create table wearer_merge_row (
  merge_id uuid not null references wearer_merge (id),
  table_name text not null,
  row_id uuid not null,
  primary key (merge_id, table_name, row_id)
);
grant select, insert on wearer_merge, wearer_merge_undone to keenfit_app;

-- A chain of prescriptions begins once for each record it was signed for: two records that are merged bring one each.
alter table prescription add column signed_for uuid;
update prescription set signed_for = wearer_id;
alter table prescription alter column signed_for set not null;
create function prescription_signed_for() returns trigger language plpgsql as $$
begin
  new.signed_for := new.wearer_id;
  return new;
end $$;
create trigger prescription_signed_for before insert on prescription for each row execute function prescription_signed_for();
drop index prescription_first;
create unique index prescription_first on prescription (practice_id, signed_for, purpose) where supersedes_id is null;

-- Tables whose rows belong to a wearer; who somebody is and was stays with the record that says so.
create view wearer_owned as
  select c.table_name::text, exists (
    select 1 from information_schema.columns v where v.table_schema = 'public' and v.table_name = c.table_name and v.column_name = 'visit_id') as of_visit
  from information_schema.columns c join information_schema.tables t on t.table_schema = c.table_schema and t.table_name = c.table_name
  where c.table_schema = 'public' and c.column_name = 'wearer_id' and t.table_type = 'BASE TABLE' and c.table_name not like 'wearer\_identity%';

-- Nothing new is recorded for a record that was merged into another. The lock waits for a merge under way.
create function refuse_merged_wearer() returns trigger language plpgsql as $$
begin
  if new.wearer_id is not null then
    perform 1 from wearer where practice_id = new.practice_id and id = new.wearer_id and merged_into is null for key share;
    if not found then raise exception 'wearer % is merged into another record', new.wearer_id using errcode = 'KF002'; end if;
  end if;
  return new;
end $$;
do $$
declare owned record;
begin
  for owned in select table_name from wearer_owned loop
    execute format('create trigger not_of_merged before insert on %I for each row execute function refuse_merged_wearer()', owned.table_name);
  end loop;
end $$;

-- The application may not change rows of facts: it may only have them moved as a whole. Both records are locked by the caller.
create function merge_wearer_rows(p_merge uuid) returns void language plpgsql security definer set search_path = public, pg_temp as $$
declare
  m wearer_merge;
  owned record;
begin
  select * into strict m from wearer_merge where id = p_merge;
  for owned in select table_name from wearer_owned loop
    execute format(
      'with moved as (update %1$I set wearer_id = $1 where practice_id = $2 and wearer_id = $3 returning id)
       insert into wearer_merge_row select $4, %1$L, id from moved', owned.table_name)
      using m.into_id, m.practice_id, m.from_id, m.id;
  end loop;
  update wearer set merged_into = m.into_id, version = version + 1 where practice_id = m.practice_id and id = m.from_id;
  update wearer set version = version + 1 where practice_id = m.practice_id and id = m.into_id;
end $$;

-- Taken apart, each row goes back to where it came from, and what was recorded since goes with its visit. False where something
-- recorded since belongs to both.
create function unmerge_wearer_rows(p_merge uuid) returns boolean language plpgsql security definer set search_path = public, pg_temp as $$
declare
  m wearer_merge;
  owned record;
begin
  select * into strict m from wearer_merge where id = p_merge;
  for owned in select table_name from wearer_owned loop
    execute format(
      'update %1$I t set wearer_id = $1 from wearer_merge_row r
       where r.merge_id = $4 and r.table_name = %1$L and r.row_id = t.id and t.practice_id = $2 and t.wearer_id = $3', owned.table_name)
      using m.from_id, m.practice_id, m.into_id, m.id;
  end loop;
  for owned in select table_name from wearer_owned where of_visit loop
    execute format(
      'update %1$I t set wearer_id = v.wearer_id from visit v
       where t.practice_id = $1 and v.practice_id = $1 and v.id = t.visit_id and t.wearer_id <> v.wearer_id and v.wearer_id = $2 and t.wearer_id = $3',
      owned.table_name)
      using m.practice_id, m.from_id, m.into_id;
  end loop;
  update wearer set merged_into = null, version = version + 1 where practice_id = m.practice_id and id = m.from_id;
  update wearer set version = version + 1 where practice_id = m.practice_id and id = m.into_id;
  return true;
exception when foreign_key_violation or unique_violation then
  return false;
end $$;
revoke all on function merge_wearer_rows(uuid), unmerge_wearer_rows(uuid) from public;
grant execute on function merge_wearer_rows(uuid), unmerge_wearer_rows(uuid) to keenfit_app;
