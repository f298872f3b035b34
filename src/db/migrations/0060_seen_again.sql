-- A lesson that is signed off says when the wearer is seen again, or why that is not booked.
alter table lesson_sign_off add column appointment_id uuid, add column unbooked_reason text,
  add foreign key (practice_id, appointment_id) references appointment (practice_id, id);
-- Who took lenses home a day, three days, a week ago.
create index lesson_sign_off_of_day on lesson_sign_off (practice_id, signed_at);
