-- A supplier that names lens and code of a box teaches the code: nobody of the staff did.
alter table package_code alter column learned_by drop not null,
  add column supplier_message_id uuid,
  add check (num_nonnulls(learned_by, supplier_message_id) = 1),
  add foreign key (practice_id, supplier_message_id) references supplier_message (practice_id, id);

-- Who wears no more lenses from here is called no more.
alter table reorder_call drop constraint reorder_call_outcome_check,
  add constraint reorder_call_outcome_check check (outcome in ('ordered', 'sightChanged', 'examination', 'message', 'later', 'noLonger'));
