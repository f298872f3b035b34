-- Where a prescriber is registered, if not at the practice: it stands on what they sign.
alter table membership add column address text check (length(address) <= 200);
grant update (address) on membership to keenfit_app;
