-- Trial lenses that the drawer lacks are ordered like any lenses, but under no prescription; they come into the drawer.
alter table lens_order alter column prescription_id drop not null,
  add column kind text not null default 'supply' check (kind in ('supply', 'trial')),
  add check ((kind = 'supply') = (prescription_id is not null));
alter table order_line alter column prescription_id drop not null;
alter table task drop constraint task_because_check;
alter table task add constraint task_because_check check (because in ('missedAppointment', 'trialsCame'));
do $$
declare named text;
begin
  select conname into strict named from pg_constraint
  where conrelid = 'task'::regclass and contype = 'c' and pg_get_constraintdef(oid) like '%num_nonnulls%';
  execute format('alter table task drop constraint %I', named);
end $$;
alter table task add constraint task_text_or_because
  check (num_nonnulls(text, because) = 1 and (because is distinct from 'missedAppointment' or appointment_id is not null));
-- What is on its way, for the whole practice.
create index lens_order_placed on lens_order (practice_id, placed_at);
