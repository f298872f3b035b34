-- The annual visit of a happy wearer: what is as last time is said in one press, and keeps the day on which it was really seen.
-- A grade copied from an earlier visit names the row it was copied from; what is looked for afresh at every visit is never copied.
alter table eye_finding add column copied_from_id uuid;
alter table eye_finding add foreign key (practice_id, copied_from_id) references eye_finding (practice_id, id);
alter table eye_finding add constraint eye_finding_copied_check
  check (copied_from_id is null or sign in ('lidMargin', 'lashes', 'bulbarRedness', 'limbalRedness', 'papillae', 'vessels', 'scars', 'endothelium'));

-- An answer that was read back to the wearer and confirmed, rather than asked openly.
alter table history_answer add column read_back boolean not null default false;

-- One look at a mark whose turn is known from an earlier visit.
alter table rotation_reading drop constraint rotation_reading_how_check;
alter table rotation_reading add constraint rotation_reading_how_check check (how in ('drag', 'keys', 'typed', 'scale', 'pedal', 'look'));

alter table draft drop constraint draft_step_check;
alter table draft add constraint draft_step_check
  check (step in ('asLastTime', 'wornNow', 'history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));
