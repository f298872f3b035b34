-- Why a prescriber lets an order last past the end of its prescription, where the practice leaves that to them.
alter table lens_order add column past_expiry_note text check (length(past_expiry_note) <= 400);
-- Trial lenses that go home with the one that was on the eye: daily ones, for as many days.
alter table trial_movement drop constraint trial_movement_kind_check;
alter table trial_movement add constraint trial_movement_kind_check
  check (kind in ('opening', 'received', 'putOn', 'putBack', 'counted', 'thrownAway', 'givenHome'));
alter table trial_movement add check (kind <> 'givenHome' or change < 0);
