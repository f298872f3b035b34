-- One noun has one name: the steps of a visit, and a stop that was overridden.
alter table draft drop constraint draft_step_check;
update draft set step = case step when 'power' then 'refraction' when 'final' then 'prescription' when 'teach' then 'lesson' else step end;
alter table draft add constraint draft_step_check
  check (step in ('history', 'eyeHealth', 'refraction', 'lens', 'onEye', 'prescription', 'lesson', 'supply'));

alter table rule_pass rename to stop_override;
alter table stop_override rename column passed_at to overridden_at;
alter table stop_override rename column passed_by to overridden_by;
alter index rule_pass_of_wearer rename to stop_override_of_wearer;
