-- Two events of an order can carry the same moment: their order is the order in which they were written.
alter table order_event add column sequence bigint generated always as identity;
create index order_event_sequence on order_event (practice_id, order_id, sequence);
