-- With years of work in it: what is read by chain, and the visit of an appointment.
create index refraction_root on refraction (practice_id, root_id);
create index eye_finding_root on eye_finding (practice_id, root_id);
create index lens_on_eye_root on lens_on_eye (practice_id, root_id);
create index hand_over_root on hand_over (practice_id, root_id);
create index visit_appointment on visit (practice_id, appointment_id, opened_at desc) where appointment_id is not null;
