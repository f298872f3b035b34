-- Who took lenses home and was not seen again is somebody's to call.
alter table task drop constraint task_because_check;
alter table task add constraint task_because_check check (because in ('missedAppointment', 'trialsCame', 'redEye', 'request', 'notSeenAgain'));
