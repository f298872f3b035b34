-- The diary: rooms that begin and end, the hours that the practice is open, appointments that keep what they were, and
-- tasks: whatever somebody must do later.
alter table room add column ended_at timestamptz, add column version integer not null default 1;
alter table room add check (length(trim(name)) between 1 and 60);
grant update (name, sort_order, ended_at, version) on room to keenfit_app;

-- The newest row of a weekday (1 Monday … 7 Sunday) holds; minutes from midnight, none when closed.
create table opening_hours (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  weekday integer not null check (weekday between 1 and 7),
  opens_minute integer check (opens_minute between 0 and 1439),
  closes_minute integer check (closes_minute between 1 and 1440),
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  check ((opens_minute is null) = (closes_minute is null) and (opens_minute is null or opens_minute < closes_minute)),
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index opening_hours_newest on opening_hours (practice_id, weekday, sequence desc);

-- A day on which the practice is closed, such as a holiday; the newest row of a day holds, and may say that it is open after all.
create table closed_day (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  day date not null,
  name text not null check (length(trim(name)) between 1 and 60),
  closed boolean not null,
  recorded_at timestamptz not null,
  recorded_by uuid not null,
  foreign key (practice_id, recorded_by) references membership (practice_id, person_id)
);
create index closed_day_newest on closed_day (practice_id, day, sequence desc);

-- How late a wearer has said to be, minutes; zero when nothing was said.
alter table appointment add column late_minutes integer not null default 0 check (late_minutes between 0 and 240);
alter table appointment add column note text check (length(note) <= 200);
create index appointment_of_wearer on appointment (practice_id, wearer_id, starts_at desc);

-- What an appointment was after each change, so that any change can be taken back and none is lost.
create table appointment_event (
  id uuid primary key default gen_random_uuid(),
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  appointment_id uuid not null,
  kind text not null check (kind in ('booked', 'moved', 'arrived', 'late', 'missed', 'cancelled', 'done', 'undone')),
  starts_at timestamptz not null,
  room_id uuid,
  staff_id uuid,
  chair_minutes integer not null,
  staff_minutes integer not null,
  state text not null check (state in ('booked', 'arrived', 'done', 'missed', 'cancelled')),
  late_minutes integer not null,
  -- Why it was booked over another, or outside the hours; or why it was cancelled.
  reason text check (length(reason) <= 200),
  at timestamptz not null,
  by uuid,
  foreign key (practice_id, appointment_id) references appointment (practice_id, id),
  foreign key (practice_id, by) references membership (practice_id, person_id)
);
create index appointment_event_newest on appointment_event (practice_id, appointment_id, sequence desc);
insert into appointment_event (practice_id, appointment_id, kind, starts_at, room_id, staff_id, chair_minutes, staff_minutes, state, late_minutes, at)
select practice_id, id, 'booked', starts_at, room_id, staff_id, chair_minutes, staff_minutes, state, 0, now() from appointment;

create table task (
  id uuid primary key,
  practice_id uuid not null references practice (id),
  kind text not null check (kind in ('call', 'chase', 'recall', 'other')),
  -- What somebody wrote; or why the product made it, and of which appointment.
  text text check (length(trim(text)) between 1 and 200),
  because text check (because in ('missedAppointment')),
  wearer_id uuid,
  appointment_id uuid,
  due_on date not null,
  -- Nobody's in particular when empty.
  assigned_to uuid,
  done_at timestamptz,
  version integer not null default 1,
  unique (practice_id, id),
  check (num_nonnulls(text, because) = 1 and (because is null or appointment_id is not null)),
  foreign key (practice_id, wearer_id) references wearer (practice_id, id),
  foreign key (practice_id, appointment_id) references appointment (practice_id, id),
  foreign key (practice_id, assigned_to) references membership (practice_id, person_id)
);
create index task_open on task (practice_id, due_on) where done_at is null;
create index task_done on task (practice_id, done_at desc) where done_at is not null;
create index task_of_wearer on task (practice_id, wearer_id, due_on);

create table task_event (
  id uuid primary key default gen_random_uuid(),
  sequence bigint generated always as identity,
  practice_id uuid not null references practice (id),
  task_id uuid not null,
  kind text not null check (kind in ('made', 'changed', 'done', 'reopened')),
  due_on date not null,
  assigned_to uuid,
  note text check (length(note) <= 200),
  at timestamptz not null,
  by uuid not null,
  foreign key (practice_id, task_id) references task (practice_id, id),
  foreign key (practice_id, by) references membership (practice_id, person_id)
);
create index task_event_newest on task_event (practice_id, task_id, sequence desc);

grant select, insert on opening_hours, closed_day, appointment_event, task, task_event to keenfit_app;
grant update (due_on, assigned_to, done_at, version) on task to keenfit_app;

-- Whoever looks at the diary or at the tasks is told that they changed.
create function diary_news() returns trigger language plpgsql as $$
begin
  perform tell_news(new.practice_id, 'diary', new.practice_id, 0);
  return null;
end $$;
create trigger diary_news after insert on appointment_event for each row execute function diary_news();
create trigger task_news after insert on task_event for each row execute function diary_news();
