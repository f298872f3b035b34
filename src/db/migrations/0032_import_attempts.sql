-- A file that ends the process that reads it is tried once more, and then given up.
alter table catalogue_import add column attempts integer not null default 0;
grant update (attempts) on catalogue_import to keenfit_app;
