-- Lessons that go on today.
create index lesson_of_day on lesson (practice_id, started_at);
