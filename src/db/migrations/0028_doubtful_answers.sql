-- A supplier's answer that does not fit its order is kept and shown, and stands for no answer.
alter table order_event drop constraint order_event_state_check;
alter table order_event add constraint order_event_state_check
  check (state in ('placed', 'sendFailed', 'doubtful', 'acknowledged', 'backordered', 'refused', 'received'));
create index order_event_reference on order_event (practice_id, supplier_reference) where supplier_reference is not null;
