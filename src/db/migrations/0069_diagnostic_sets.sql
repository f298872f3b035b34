-- Soft lenses for irregular corneas are fitted from diagnostic sets: lenses of their own that serve one person after another. What a
-- set begins with, how long its lenses settle and how they are disinfected are data of its family.
alter table lens_family_version drop constraint lens_family_version_modality_check, drop constraint lens_family_version_mark_layout_check;
alter table lens_family_version
  add constraint lens_family_version_modality_check check (modality in ('daily', 'twoWeekly', 'monthly', 'quarterly', 'yearly')),
  add constraint lens_family_version_mark_layout_check check (mark_layout in ('none', 'six', 'threeNine', 'twelve', 'fiveSixSeven')),
  add column irregular boolean not null default false,
  add constraint lens_family_version_irregular_stabilised check (not irregular or geometry in ('toric', 'toricMultifocal')),
  add column mark_spacing integer check (mark_spacing between 5 and 60),
  add column sight_minutes integer check (sight_minutes between 1 and 120),
  add column set_table jsonb not null default '[]' check (jsonb_typeof(set_table) = 'array'),
  add column disinfect_with text check (length(trim(disinfect_with)) between 1 and 60),
  add column disinfect_minutes integer check (disinfect_minutes between 1 and 1440),
  add check ((mark_spacing is null) = (mark_layout <> 'fiveSixSeven')),
  add check (sight_minutes is null or sight_minutes >= settle_minutes),
  add check ((disinfect_with is null) = (disinfect_minutes is null));
alter table house_list drop constraint house_list_modality_check,
  add constraint house_list_modality_check check (modality in ('daily', 'twoWeekly', 'monthly', 'quarterly', 'yearly'));

-- One lens of a set, by the number engraved on its vial.
create table diagnostic_lens (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  lens_id uuid not null,
  -- A number says nothing outside its own set.
  set_code text not null,
  number text not null check (length(trim(number)) between 1 and 20),
  expires_on date not null,
  added_at timestamptz not null,
  added_by uuid not null,
  unique (practice_id, id),
  unique (practice_id, set_code, number),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, added_by) references membership (practice_id, person_id)
);
-- It left its set for good.
create table diagnostic_lens_end (
  diagnostic_lens_id uuid primary key,
  practice_id uuid not null,
  why text not null check (why in ('damaged', 'lost', 'expired', 'wornHome')),
  ended_at timestamptz not null,
  ended_by uuid not null,
  foreign key (practice_id, diagnostic_lens_id) references diagnostic_lens (practice_id, id),
  foreign key (practice_id, ended_by) references membership (practice_id, person_id)
);
-- A disinfection by the set's own instructions, as they stood when it began.
create table diagnostic_disinfection (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  diagnostic_lens_id uuid not null,
  disinfected_with text not null check (length(trim(disinfected_with)) between 1 and 60),
  began_at timestamptz not null,
  ends_at timestamptz not null,
  begun_by uuid not null,
  check (ends_at > began_at),
  foreign key (practice_id, diagnostic_lens_id) references diagnostic_lens (practice_id, id),
  foreign key (practice_id, begun_by) references membership (practice_id, person_id)
);
create index diagnostic_disinfection_of on diagnostic_disinfection (practice_id, diagnostic_lens_id, sequence desc);
grant select, insert on diagnostic_lens, diagnostic_lens_end, diagnostic_disinfection to keenfit_app;

alter table lens_on_eye add column diagnostic_lens_id uuid;
alter table lens_on_eye add foreign key (practice_id, diagnostic_lens_id) references diagnostic_lens (practice_id, id);
create index lens_on_eye_diagnostic on lens_on_eye (practice_id, diagnostic_lens_id, put_on_at) where diagnostic_lens_id is not null;
do $$
declare named text;
begin
  select conname into strict named from pg_constraint
  where conrelid = 'lens_on_eye'::regclass and contype = 'c' and pg_get_constraintdef(oid) like '%trial_stock_id IS NOT NULL%';
  execute format('alter table lens_on_eye drop constraint %I', named);
end $$;
-- A trial lens is one of the drawer or one of a set.
alter table lens_on_eye add check (
  source <> 'trial' or (lens_id is not null and (trial_stock_id is null) <> (diagnostic_lens_id is null) and (trial_stock_id is null or lot is not null)));
alter table lens_on_eye add check (diagnostic_lens_id is null or source = 'trial');

-- Who had a diagnostic lens on, from when to when: until it was taken off, else until the visit was closed. One recorded by mistake counts:
-- whatever was said to have been on an eye is disinfected.
create view diagnostic_lens_use with (security_invoker = true) as
select e.practice_id, e.diagnostic_lens_id, e.id as lens_on_eye_id, e.visit_id, v.wearer_id, e.eye, e.put_on_at,
  coalesce(
    (select r.taken_off_at from lens_removal r where r.lens_on_eye_id = e.id
      and not exists (select 1 from lens_removal_withdrawn w where w.lens_on_eye_id = e.id)),
    v.closed_at) as off_at
from lens_on_eye e join visit v on v.practice_id = e.practice_id and v.id = e.visit_id
where e.diagnostic_lens_id is not null and e.id = e.root_id;
grant select on diagnostic_lens_use to keenfit_app;

create function diagnostic_lens_ready(p_practice uuid, p_lens uuid, p_at timestamptz) returns boolean language sql stable as $$
  select not exists (select 1 from diagnostic_lens_end e where e.diagnostic_lens_id = p_lens and e.ended_at <= p_at)
    and not exists (
      select 1 from diagnostic_lens_use u where u.practice_id = p_practice and u.diagnostic_lens_id = p_lens
        and not exists (
          select 1 from diagnostic_disinfection d where d.practice_id = p_practice and d.diagnostic_lens_id = p_lens
            and d.began_at >= u.off_at and d.ends_at <= p_at))
$$;
-- The last fence: no lens of a set goes on an eye before it was disinfected since the one before, whatever asks for it.
create function refuse_used_diagnostic_lens() returns trigger language plpgsql security definer set search_path from current as $$
begin
  -- Two eyes that ask for one lens come one after the other.
  perform 1 from diagnostic_lens where practice_id = new.practice_id and id = new.diagnostic_lens_id for update;
  if new.corrects_id is not null then
    -- Two lenses of a visit may have been mixed up; another one was not there.
    if not exists (select 1 from lens_on_eye e where e.visit_id = new.visit_id and e.diagnostic_lens_id = new.diagnostic_lens_id) then
      raise exception 'a correction brings no other lens of a set' using errcode = 'KF004';
    end if;
  elsif not diagnostic_lens_ready(new.practice_id, new.diagnostic_lens_id, new.put_on_at) then
    raise exception 'diagnostic lens % waits to be disinfected', new.diagnostic_lens_id using errcode = 'KF004';
  end if;
  return new;
end $$;
create trigger disinfected_before before insert on lens_on_eye for each row when (new.diagnostic_lens_id is not null)
  execute function refuse_used_diagnostic_lens();

-- A removal is not taken back once the lens has gone on: it would lie disinfected and on an eye at once.
create function refuse_put_back_of_set() returns trigger language plpgsql as $$
begin
  if exists (
    select 1 from lens_on_eye e join lens_removal r on r.lens_on_eye_id = e.id
    where e.id = new.lens_on_eye_id and e.diagnostic_lens_id is not null and (
      exists (select 1 from diagnostic_disinfection d where d.diagnostic_lens_id = e.diagnostic_lens_id and d.began_at >= r.taken_off_at)
      or exists (select 1 from diagnostic_lens_use u where u.diagnostic_lens_id = e.diagnostic_lens_id and u.put_on_at >= r.taken_off_at))) then
    raise exception 'this lens was disinfected or used since' using errcode = 'KF004';
  end if;
  return new;
end $$;
create trigger not_of_set before insert on lens_removal_withdrawn for each row execute function refuse_put_back_of_set();
