-- Lenses that slow a child's myopia are worn as their label says: at least so many hours a day, so many days a week.
alter table lens_family_version add column myopia_hours integer check (myopia_hours between 1 and 24),
  add column myopia_days integer check (myopia_days between 1 and 7),
  add check ((myopia_hours is null) = (myopia_days is null));
