-- The application's role: facts can be read and appended, never changed; only parents and queues are updated.
do $$ begin
  if not exists (select from pg_roles where rolname = 'keenfit_app') then create role keenfit_app nologin; end if;
end $$;

grant usage on schema public to keenfit_app;
grant select, insert on
  practice, practice_setting, practice_counter, person, membership, room, device, session, sign_in_attempt, audit_log,
  wearer, wearer_identity, appointment, visit, draft, lens_family_version, lens_block, lens, trial_stock,
  refraction, lens_on_eye, lens_confirmation, lens_removal, fit_check, rotation_reading, over_refraction,
  prescription, prescription_eye, lesson, lesson_attempt, lesson_topic, lesson_sign_off, hand_over,
  lens_order, order_line, order_event, order_dispatch
to keenfit_app;
grant select, update on app_clock to keenfit_app;
grant update on practice, wearer, wearer_identity, appointment, visit, draft to keenfit_app;
grant update (next_value) on practice_counter to keenfit_app;
grant update (password_hash, password_set_at) on person to keenfit_app;
grant update (title, roles, register_number, ended_at, version) on membership to keenfit_app;
grant update (room_id, lights, seen_at) on device to keenfit_app;
grant update (seen_at, ended_at) on session to keenfit_app;
grant update (count) on trial_stock to keenfit_app;
grant update (due_at, attempts, done_at, last_problem) on order_dispatch to keenfit_app;
grant delete on draft to keenfit_app;
revoke create on schema public from public;
