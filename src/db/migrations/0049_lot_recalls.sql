-- Lots that a maker calls back: no lens of one goes on an eye or home from then on, until the recall is lifted.
create table lot_recall (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  lot text not null check (length(trim(lot)) between 1 and 40),
  -- Of one family alone: makers number lots each by itself; null: whoever's.
  family_code text,
  reason text not null check (length(trim(reason)) between 3 and 400),
  opened_at timestamptz not null,
  opened_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id)
);
create index lot_recall_lot on lot_recall (practice_id, lower(trim(lot)));
create table lot_recall_lift (
  recall_id uuid primary key,
  practice_id uuid not null,
  reason text not null check (length(trim(reason)) between 3 and 400),
  lifted_at timestamptz not null,
  lifted_by uuid not null,
  foreign key (practice_id, recall_id) references lot_recall (practice_id, id),
  foreign key (practice_id, lifted_by) references membership (practice_id, person_id)
);
-- Who was called about it, and what came of that; the newest counts.
create table lot_recall_call (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  recall_id uuid not null,
  wearer_id uuid not null,
  outcome text not null check (outcome in ('stopped', 'notWorn', 'message', 'notReached')),
  note text check (length(trim(note)) between 1 and 400),
  called_at timestamptz not null,
  called_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, recall_id) references lot_recall (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, called_by) references membership (practice_id, person_id)
);
create index lot_recall_call_of on lot_recall_call (practice_id, recall_id, wearer_id, sequence desc);
create index lot_recall_call_of_wearer on lot_recall_call (practice_id, wearer_id);
grant select, insert on lot_recall, lot_recall_lift, lot_recall_call to keenfit_app;
create trigger not_of_merged before insert on lot_recall_call for each row execute function refuse_merged_wearer();

create index hand_over_lot_any on hand_over (practice_id, lower(trim(lot)));
create index lens_on_eye_lot_any on lens_on_eye (practice_id, lower(trim(lot))) where lot is not null;
create index order_receipt_lot_any on order_receipt (practice_id, lower(trim(lot)));

create function lot_recalled(p_practice uuid, p_lot text, p_lens uuid) returns boolean language sql stable as $$
  select exists (
    select 1 from lot_recall r
    where r.practice_id = p_practice and lower(trim(r.lot)) = lower(trim(p_lot))
      and not exists (select 1 from lot_recall_lift f where f.recall_id = r.id)
      and (r.family_code is null or r.family_code = (
        select v.code from lens l join lens_family_version v on v.id = l.family_version_id where l.id = p_lens)))
$$;
-- The last fence: what a use case should have refused is refused here.
create function refuse_recalled_lot() returns trigger language plpgsql as $$
begin
  if new.corrects_id is null and lot_recalled(new.practice_id, new.lot, new.lens_id) then
    raise exception 'lot % is recalled', new.lot using errcode = 'KF003';
  end if;
  return new;
end $$;
create trigger not_recalled before insert on hand_over for each row execute function refuse_recalled_lot();
create trigger not_recalled before insert on lens_on_eye for each row when (new.source = 'trial') execute function refuse_recalled_lot();
