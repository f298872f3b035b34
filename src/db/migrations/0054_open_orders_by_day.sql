-- The day for which an open order is promised, so that those due first are found without reading the story of every one.
alter table order_open add column due_on date;
update order_open w set due_on = (
  select e.due_on from order_event e where e.practice_id = w.practice_id and e.order_id = w.order_id and e.due_on is not null order by e.sequence desc limit 1);
create index order_open_due on order_open (practice_id, due_on nulls first, order_id);
grant update (due_on) on order_open to keenfit_app;
create function order_promised() returns trigger language plpgsql as $$
begin
  update order_open set due_on = new.due_on where practice_id = new.practice_id and order_id = new.order_id;
  return null;
end $$;
create trigger order_promised after insert on order_event for each row when (new.due_on is not null) execute function order_promised();
