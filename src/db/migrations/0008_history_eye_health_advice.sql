-- History, eye health, stops, the kind of lens decided, referrals and pictures. All appended.

-- One row an answer; answered again in the same visit, the later row holds and the earlier stays.
create table history_answer (
  id uuid primary key,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  question text not null check (question ~ '^[a-zA-Z]{2,30}$'),
  value jsonb not null check (jsonb_typeof(value) in ('string', 'number', 'array', 'null')),
  note text check (length(note) <= 200),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  sequence bigint generated always as identity,
  unique (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index history_answer_visit on history_answer (practice_id, visit_id, sequence);

-- A danger sign heard is an alert until a prescriber has acknowledged it.
create table alert_acknowledgement (
  history_answer_id uuid primary key,
  practice_id uuid not null,
  acknowledged_at timestamptz not null,
  acknowledged_by uuid not null,
  foreign key (practice_id, history_answer_id) references history_answer (practice_id, id),
  foreign key (practice_id, acknowledged_by) references membership (practice_id, person_id)
);

create table eye_finding (
  id uuid primary key,
  root_id uuid not null,
  practice_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
  observed_at timestamptz not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  corrects_id uuid unique,
  voided boolean not null default false,
  reason text,
  unique (practice_id, id),
  check (corrects_id is not null or (id = root_id and not voided and reason is null)),
  check (corrects_id is null or (id <> root_id and length(trim(reason)) > 0)),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id),
  foreign key (practice_id, corrects_id) references eye_finding (practice_id, id),
  sign text not null,
  number_value numeric(6, 2),
  word_value text,
  sequence bigint generated always as identity,
  check ((number_value is null) <> (word_value is null)),
  check (case
    when sign in ('lidMargin', 'lashes', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining', 'infiltrates', 'scars', 'endothelium')
      then number_value between 0 and 4 and mod(number_value, 0.5) = 0
    when sign = 'vessels' then number_value between 0 and 6 and mod(number_value, 0.5) = 0
    when sign = 'pain' then number_value between 0 and 10 and mod(number_value, 1) = 0
    when sign in ('kFlatMm', 'kSteepMm') then number_value between 4.5 and 11
    when sign = 'kFlatAxis' then number_value between 1 and 180 and mod(number_value, 1) = 0
    when sign = 'hvid' then number_value between 9 and 14 and mod(number_value, 0.1) = 0
    when sign in ('pupilRoom', 'pupilDim') then number_value between 1 and 10 and mod(number_value, 0.5) = 0
    when sign = 'lidAperture' then number_value between 4 and 16 and mod(number_value, 0.5) = 0
    when sign = 'breakUp' then number_value between 0 and 60 and mod(number_value, 1) = 0
    when sign = 'meniscus' then number_value between 0 and 1 and mod(number_value, 0.05) = 0
    when sign = 'discharge' then word_value in ('none', 'watering', 'sticky')
    when sign = 'light' then word_value in ('fine', 'hurts')
    when sign = 'suspected' then word_value in ('nothing', 'cornealInfection', 'externalInfection')
    when sign = 'lidTension' then word_value in ('loose', 'normal', 'firm')
    when sign = 'stainingPlace' then word_value in ('central', 'upper', 'lower', 'nasal', 'temporal', 'diffuse')
    when sign = 'stainingDepth' then word_value in ('shallow', 'deep')
    when sign = 'infiltratePlace' then word_value in ('central', 'edge')
    else false end)
);
create index eye_finding_visit on eye_finding (practice_id, visit_id);

-- An absolute stop stands for the wearer, whichever visit is open, until a prescriber ends it.
create table safety_stop (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  rule text not null,
  rule_version integer not null,
  eyes text[] not null check (eyes <@ array['right', 'left']),
  evidence jsonb not null,
  opened_at timestamptz not null,
  opened_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id)
);
create index safety_stop_of_wearer on safety_stop (practice_id, wearer_id);

create table safety_stop_end (
  stop_id uuid primary key,
  practice_id uuid not null,
  how text not null check (how in ('healed', 'wrongEntry')),
  visit_id uuid not null,
  reason text not null check (length(trim(reason)) >= 3),
  ended_at timestamptz not null,
  ended_by uuid not null,
  foreign key (practice_id, stop_id) references safety_stop (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, ended_by) references membership (practice_id, person_id)
);

-- A stop passed, or a dropped lens given again, with a written reason. It holds while its evidence stays the same.
create table rule_pass (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  wearer_id uuid not null,
  visit_id uuid not null,
  visit_version integer not null,
  rule text not null,
  evidence_key text not null,
  reason text not null check (length(trim(reason)) >= 3),
  passed_at timestamptz not null,
  passed_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, passed_by) references membership (practice_id, person_id)
);
create index rule_pass_of_wearer on rule_pass (practice_id, wearer_id);

-- What kind of lens was recommended and decided, with all it was made from, so that a reason can be replayed.
create table kind_decision (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  visit_id uuid not null,
  visit_version integer not null,
  recommended jsonb,
  chosen jsonb not null,
  as_recommended boolean not null,
  reason text,
  inputs jsonb not null,
  settings jsonb not null,
  rule_version text not null,
  decided_at timestamptz not null,
  decided_by uuid not null,
  sequence bigint generated always as identity,
  unique (practice_id, id),
  check (as_recommended or length(trim(reason)) >= 3),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, decided_by) references membership (practice_id, person_id)
);
create index kind_decision_visit on kind_decision (practice_id, visit_id, sequence);

create table referral (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  visit_id uuid not null,
  visit_version integer not null,
  wearer_id uuid not null,
  stop_id uuid not null unique,
  addressed_to text not null,
  telephone text not null check (length(trim(telephone)) > 0),
  opened_at timestamptz not null,
  opened_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, stop_id) references safety_stop (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id)
);
create table referral_step (
  referral_id uuid not null,
  practice_id uuid not null,
  step text not null check (step in ('lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay')),
  done_at timestamptz not null,
  done_by uuid not null,
  primary key (referral_id, step),
  foreign key (practice_id, referral_id) references referral (practice_id, id),
  foreign key (practice_id, done_by) references membership (practice_id, person_id)
);

-- A picture as it was made anew here: no metadata, no script, nothing but the picture.
create table picture (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  visit_id uuid not null,
  visit_version integer not null,
  eye text not null check (eye in ('right', 'left')),
  title text not null check (length(title) <= 120),
  bytes bytea not null check (octet_length(bytes) between 100 and 8000000),
  media_type text not null check (media_type = 'image/jpeg'),
  width integer not null check (width between 16 and 8000),
  height integer not null check (height between 16 and 8000),
  sha256 text not null,
  place_removed boolean not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  unique (practice_id, id),
  foreign key (practice_id, visit_id) references visit (practice_id, id),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index picture_visit on picture (practice_id, visit_id);

alter table practice_setting add column sequence bigint generated always as identity;

-- While an absolute stop stands, the database itself takes no new lens for the wearer: not on an eye, not
-- prescribed, handed over or ordered. Corrections of what was recorded before go through.
create function wearer_under_absolute_stop(practice uuid, wearer uuid) returns boolean language sql stable as $$
  select exists (
    select from safety_stop s left join safety_stop_end e on e.stop_id = s.id
    where s.practice_id = practice and s.wearer_id = wearer and e.stop_id is null)
$$;
create function refuse_under_absolute_stop() returns trigger language plpgsql as $$
declare wearer uuid;
begin
  select v.wearer_id into wearer from visit v where v.practice_id = new.practice_id and v.id = new.visit_id;
  if wearer_under_absolute_stop(new.practice_id, wearer) then
    raise exception 'absolute stop: no lens for this wearer' using errcode = 'KF001';
  end if;
  return new;
end $$;
create trigger no_lens_under_stop before insert on lens_on_eye for each row
  when (new.corrects_id is null and new.source <> 'broughtIn') execute function refuse_under_absolute_stop();
create trigger no_hand_over_under_stop before insert on hand_over for each row
  when (new.corrects_id is null) execute function refuse_under_absolute_stop();
create trigger no_prescription_under_stop before insert on prescription for each row execute function refuse_under_absolute_stop();
create trigger no_order_under_stop before insert on lens_order for each row execute function refuse_under_absolute_stop();

grant select, insert on
  history_answer, alert_acknowledgement, eye_finding, safety_stop, safety_stop_end, rule_pass, kind_decision, referral, referral_step, picture
to keenfit_app;
