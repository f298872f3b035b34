-- Pages that lie open are told what changed: which thing, and to which version; nothing of what was recorded.

create function tell_news(practice uuid, what text, id uuid, version integer) returns void language sql as $$
  select pg_notify('keenfit_news', json_build_object('practice', practice, 'what', what, 'id', id, 'version', version)::text)
$$;

create function visit_news() returns trigger language plpgsql as $$
begin
  perform tell_news(new.practice_id, 'visit', new.id, new.version);
  return null;
end $$;
create trigger visit_news after insert or update on visit for each row execute function visit_news();

create function library_news() returns trigger language plpgsql as $$
begin
  perform tell_news(new.id, 'library', new.id, new.library_version);
  return null;
end $$;
create trigger library_news after update of library_version on practice for each row when (old.library_version <> new.library_version)
  execute function library_news();

-- What a supplier answers changes no visit: whoever waits for it looks at the order.
create function order_news() returns trigger language plpgsql as $$
begin
  perform tell_news(new.practice_id, 'order', (select o.visit_id from lens_order o where o.id = new.order_id), 0);
  return null;
end $$;
create trigger order_news after insert on order_event for each row execute function order_news();
