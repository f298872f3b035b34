-- Boxes that came for an order, as they were read by hand: which line and so which eye, how many, their lot and day. A line
-- may come in parts. What is handed over names the receipt it came from.
create table order_receipt (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  order_line_id uuid not null,
  -- The lens in the box: of a raw order, what the laboratory made of it.
  lens_id uuid not null,
  lot text not null check (length(trim(lot)) > 0),
  expires_on date not null,
  packs integer not null check (packs between 1 and 60),
  received_at timestamptz not null,
  received_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, order_line_id) references order_line (practice_id, id),
  foreign key (practice_id, lens_id) references lens (practice_id, id),
  foreign key (practice_id, received_by) references membership (practice_id, person_id)
);
create index order_receipt_line on order_receipt (practice_id, order_line_id);
create index order_receipt_lot on order_receipt (practice_id, lot);
grant select, insert on order_receipt to keenfit_app;

alter table hand_over add column order_receipt_id uuid;
alter table hand_over add foreign key (practice_id, order_receipt_id) references order_receipt (practice_id, id);
alter table hand_over add check ((source = 'order') = (order_receipt_id is not null and order_line_id is not null));
create index hand_over_receipt on hand_over (practice_id, order_receipt_id) where order_receipt_id is not null;

alter table order_event drop constraint order_event_state_check;
alter table order_event add constraint order_event_state_check
  check (state in ('placed', 'sendFailed', 'acknowledged', 'backordered', 'refused', 'received'));
