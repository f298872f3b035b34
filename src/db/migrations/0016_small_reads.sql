-- Reading less: what names the state of a practice's lens library, and indexes for what is listed.

-- Raised by whatever changes what the library answers; pages keep the library until it is.
alter table practice add column library_version integer not null default 1;
create function library_changed() returns trigger language plpgsql security definer set search_path from current as $$
begin
  update practice set library_version = library_version + 1 where id in (select distinct practice_id from changed);
  return null;
end $$;
-- A listed family always has blocks; a lens brought in has none, and changes no library.
create trigger library_changed after insert on lens_block referencing new table as changed for each statement execute function library_changed();
create trigger library_changed after insert on lens_family_ending referencing new table as changed for each statement execute function library_changed();
create trigger library_changed after insert on house_list referencing new table as changed for each statement execute function library_changed();
create trigger library_changed after insert on care_product referencing new table as changed for each statement execute function library_changed();

-- Visits that are open: the settle clocks of the practice, and whose visit goes on.
create index visit_open on visit (practice_id, wearer_id) where closed_at is null;
create index lens_choice_of_lens on lens_choice (practice_id, lens_on_eye_id);
create index lens_on_eye_lens on lens_on_eye (practice_id, lens_id) where lens_id is not null;
create index rotation_reading_lens on rotation_reading (practice_id, lens_on_eye_id);
create index lesson_attempt_lesson on lesson_attempt (practice_id, lesson_id);
create index lesson_topic_lesson on lesson_topic (practice_id, lesson_id);
create index order_line_order on order_line (practice_id, order_id);
create index prescription_eye_prescription on prescription_eye (practice_id, prescription_id);
create index referral_of_wearer on referral (practice_id, wearer_id);
create index lens_order_visit on lens_order (practice_id, visit_id);
