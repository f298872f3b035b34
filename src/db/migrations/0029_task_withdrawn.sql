-- A task whose reason is gone (nobody missed the appointment after all, or it is booked anew) is withdrawn, not done.
alter table task_event drop constraint task_event_kind_check;
alter table task_event add constraint task_event_kind_check check (kind in ('made', 'changed', 'done', 'reopened', 'withdrawn'));
