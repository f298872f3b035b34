-- The wearer's own screen in a lesson: a code that opens it once, and what it shows.
create table lesson_code (
  id uuid primary key,
  practice_id uuid not null,
  lesson_id uuid not null,
  code_hash text not null,
  opened_at timestamptz not null,
  opened_by uuid not null,
  expires_at timestamptz not null check (expires_at > opened_at),
  -- Once: the link that it became.
  link_id uuid,
  unique (practice_id, id),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id),
  foreign key (practice_id, opened_by) references membership (practice_id, person_id),
  foreign key (practice_id, link_id) references wearer_link (practice_id, id)
);
-- No code stands twice among those that nobody used yet.
create unique index lesson_code_waiting on lesson_code (code_hash) where link_id is null;
create index lesson_code_of_lesson on lesson_code (practice_id, lesson_id);
grant select, insert, update (link_id), delete on lesson_code to keenfit_app;

-- What the teacher shows: no fact, the newest holds.
create table lesson_show (
  lesson_id uuid primary key,
  practice_id uuid not null,
  part text not null check (part in ('care', 'wayOut', 'on', 'moveAndFind', 'off', 'again', 'signOff')),
  page integer not null check (page between 0 and 40),
  eye text not null check (eye in ('right', 'left')),
  -- As the teacher's own page has it, so that both show the same.
  hand text not null check (hand in ('right', 'left')),
  skin_tone integer not null check (skin_tone between 1 and 7),
  on_technique text not null check (on_technique in ('twoHanded', 'oneHanded')),
  off_technique text not null check (off_technique in ('slideAndPinch', 'lowerThird', 'rollOff', 'outerCorner')),
  peroxide boolean not null,
  version integer not null default 1,
  shown_at timestamptz not null,
  unique (practice_id, lesson_id),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id)
);
grant select, insert, update on lesson_show to keenfit_app;

create function lesson_news() returns trigger language plpgsql as $$
begin
  perform tell_news(new.practice_id, 'lesson', new.lesson_id, new.version);
  return null;
end $$;
create trigger lesson_news after insert or update on lesson_show for each row execute function lesson_news();
