-- Who sells lenses to the practice: whose, by what way, until when in the day, from what value.
create table supplier (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  version integer not null default 1,
  name text not null check (length(trim(name)) between 1 and 80),
  -- Makers whose lenses come from here; none: every maker's that nobody else sells.
  makers text[] not null default '{}',
  -- Where orders are sent, a path under the address that the server was started with or an address of its own; null: by telephone.
  endpoint text check (length(trim(endpoint)) between 1 and 200),
  telephone text check (length(trim(telephone)) between 1 and 40),
  -- Orders placed by this minute of the practice's day leave the same day.
  cut_off_minute integer not null check (cut_off_minute between 0 and 1439),
  minimum_minor integer not null default 0 check (minimum_minor >= 0),
  to_wearers boolean not null default false,
  -- Days from placed to received of four in five of its last orders; null while they are few.
  learned_lead_days integer check (learned_lead_days between 0 and 120),
  ended boolean not null default false,
  sort_order integer not null,
  unique (practice_id, id)
);
create unique index supplier_name on supplier (practice_id, lower(name));
-- What signs the messages of a supplier: seen once, when it is made.
create table supplier_secret (
  supplier_id uuid primary key,
  practice_id uuid not null,
  secret text not null check (length(secret) >= 32),
  made_at timestamptz not null,
  foreign key (practice_id, supplier_id) references supplier (practice_id, id)
);
-- Every change of a supplier, as it was before.
create table supplier_change (
  id uuid primary key,
  practice_id uuid not null,
  supplier_id uuid not null,
  was jsonb not null,
  changed_at timestamptz not null,
  changed_by uuid not null,
  foreign key (practice_id, supplier_id) references supplier (practice_id, id),
  foreign key (practice_id, changed_by) references membership (practice_id, person_id)
);
grant select, insert, update on supplier, supplier_secret to keenfit_app;
grant select, insert on supplier_change to keenfit_app;

alter table lens_order
  add column supplier_id uuid,
  add column deliver_to text not null default 'practice' check (deliver_to in ('practice', 'wearer')),
  add column delivery_address text check (length(trim(delivery_address)) between 5 and 300),
  add check ((deliver_to = 'wearer') = (delivery_address is not null)),
  add foreign key (practice_id, supplier_id) references supplier (practice_id, id);
create index lens_order_supplier on lens_order (practice_id, supplier_id, placed_at desc);

alter table order_event drop constraint order_event_state_check;
alter table order_event add constraint order_event_state_check check (state in (
  'placed', 'sendFailed', 'doubtful', 'acknowledged', 'backordered', 'refused', 'shipped', 'delayed', 'delivered', 'arrived', 'notArrived',
  'received', 'cancelAsked', 'cancelled', 'cancelRefused'));
alter table order_event add column told_by uuid references person (id);
create unique index order_event_cancelled_once on order_event (order_id) where state = 'cancelled';

-- A cancellation on its way to the supplier, until it is answered.
create table order_cancel_dispatch (
  order_id uuid primary key,
  practice_id uuid not null,
  due_at timestamptz not null,
  attempts integer not null default 0,
  done_at timestamptz,
  last_problem text,
  foreign key (practice_id, order_id) references lens_order (practice_id, id)
);
create index order_cancel_dispatch_due on order_cancel_dispatch (due_at) where done_at is null;
grant select, insert, update on order_cancel_dispatch to keenfit_app;

-- What a supplier said of itself: each message once, whether by call or by asking. One that fits no order is kept with why.
create table supplier_message (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  supplier_id uuid not null,
  message_ref text not null check (length(message_ref) between 1 and 80),
  kind text not null check (kind in ('shipped', 'delayed', 'delivered')),
  order_id uuid,
  body jsonb not null,
  -- Why it could not be taken; null where it was.
  refused text,
  came_by text not null check (came_by in ('call', 'poll')),
  came_at timestamptz not null,
  unique (practice_id, supplier_id, message_ref),
  unique (practice_id, id),
  foreign key (practice_id, supplier_id) references supplier (practice_id, id),
  foreign key (practice_id, order_id) references lens_order (practice_id, id)
);
grant select, insert on supplier_message to keenfit_app;
-- How far a supplier was asked.
create table supplier_cursor (
  supplier_id uuid primary key,
  practice_id uuid not null,
  cursor text not null check (length(cursor) <= 200),
  foreign key (practice_id, supplier_id) references supplier (practice_id, id)
);
grant select, insert, update on supplier_cursor to keenfit_app;

-- Boxes that are on the road, as the supplier announced them.
create table shipment_line (
  id uuid primary key,
  practice_id uuid not null,
  supplier_message_id uuid not null,
  order_line_id uuid not null,
  packs integer not null check (packs between 1 and 60),
  gtin text check (gtin ~ '^[0-9]{14}$'),
  lot text check (length(trim(lot)) between 1 and 20),
  expires_on date,
  -- What is wrong with it, as announced.
  faults text[] not null default '{}',
  foreign key (practice_id, supplier_message_id) references supplier_message (practice_id, id),
  foreign key (practice_id, order_line_id) references order_line (practice_id, id)
);
create index shipment_line_of_line on shipment_line (practice_id, order_line_id);
create index shipment_line_of_message on shipment_line (practice_id, supplier_message_id);
grant select, insert on shipment_line to keenfit_app;

-- What is wrong with boxes that came or did not, until the supplier has made it good.
create table order_claim (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  order_line_id uuid not null,
  kind text not null check (kind in ('wrong', 'missing', 'damaged', 'shortDated', 'exchange')),
  packs integer not null check (packs between 1 and 60),
  note text check (length(trim(note)) between 1 and 400),
  opened_at timestamptz not null,
  opened_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, order_line_id) references order_line (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id)
);
create index order_claim_of_line on order_claim (practice_id, order_line_id);
create table order_claim_step (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  claim_id uuid not null,
  step text not null check (step in ('told', 'replaced', 'credited', 'refused', 'withdrawn')),
  note text check (length(trim(note)) between 1 and 400),
  at timestamptz not null,
  by uuid not null,
  foreign key (practice_id, claim_id) references order_claim (practice_id, id),
  foreign key (practice_id, by) references membership (practice_id, person_id)
);
create index order_claim_step_of_claim on order_claim_step (practice_id, claim_id, sequence);
-- A claim ends once.
create unique index order_claim_ended_once on order_claim_step (claim_id) where step <> 'told';
grant select, insert on order_claim, order_claim_step to keenfit_app;

-- Orders of which something is still to come, so that whoever looks does not read all that ever were. Reckoned from the facts.
create table order_open (
  practice_id uuid not null,
  order_id uuid not null,
  primary key (practice_id, order_id),
  foreign key (practice_id, order_id) references lens_order (practice_id, id)
);
grant select, insert, delete on order_open to keenfit_app;
create function order_opens() returns trigger language plpgsql as $$
begin
  insert into order_open (practice_id, order_id) values (new.practice_id, new.id);
  return null;
end $$;
create trigger order_opens after insert on lens_order for each row execute function order_opens();
create function order_ends() returns trigger language plpgsql as $$
begin
  if new.state in ('refused', 'cancelled') then
    delete from order_open where practice_id = new.practice_id and order_id = new.order_id;
  elsif new.state = 'received' then
    delete from order_open o where o.practice_id = new.practice_id and o.order_id = new.order_id and not exists (
      select 1 from order_line l where l.practice_id = o.practice_id and l.order_id = o.order_id
        and l.packs > coalesce((select sum(r.packs) from order_receipt r where r.practice_id = l.practice_id and r.order_line_id = l.id), 0));
  end if;
  return null;
end $$;
create trigger order_ends after insert on order_event for each row execute function order_ends();
insert into order_open (practice_id, order_id)
select o.practice_id, o.id from lens_order o
where exists (
    select 1 from order_line l where l.practice_id = o.practice_id and l.order_id = o.id
      and l.packs > coalesce((select sum(r.packs) from order_receipt r where r.practice_id = l.practice_id and r.order_line_id = l.id), 0))
  and not exists (select 1 from order_event e where e.practice_id = o.practice_id and e.order_id = o.id and e.state in ('refused', 'cancelled'));
