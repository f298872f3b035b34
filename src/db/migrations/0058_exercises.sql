-- What a wearer answered in the exercises of a lesson: appended, by the wearer's link or by whoever teaches.
create table lesson_exercise (
  id uuid primary key,
  sequence bigint generated always as identity,
  practice_id uuid not null,
  lesson_id uuid not null,
  scenario text not null check (scenario in ('redEye', 'lightHurts', 'dryStuck', 'sleptIn', 'shower', 'dropped', 'droppedSingleUse', 'splash',
    'ordinaryCase', 'shortSoak', 'toppedUp', 'shared', 'travel')),
  choice text not null check (length(choice) between 1 and 40),
  was_right boolean not null,
  answered_at timestamptz not null,
  link_id uuid,
  person_id uuid,
  check (num_nonnulls(link_id, person_id) = 1),
  foreign key (practice_id, lesson_id) references lesson (practice_id, id),
  foreign key (practice_id, link_id) references wearer_link (practice_id, id),
  foreign key (practice_id, person_id) references membership (practice_id, person_id)
);
create index lesson_exercise_of_lesson on lesson_exercise (practice_id, lesson_id, sequence);
grant select, insert on lesson_exercise to keenfit_app;
