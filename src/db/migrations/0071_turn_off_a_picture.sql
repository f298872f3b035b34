-- The turn of a lens read off a picture: which picture, how far it is turned, whether a lid was held, and what the program read by itself.
alter table rotation_reading drop constraint rotation_reading_how_check;
alter table rotation_reading
  add constraint rotation_reading_how_check check (how in ('drag', 'keys', 'typed', 'scale', 'pedal', 'look', 'photo')),
  add column picture_id uuid,
  add column photo_roll_deg numeric(4, 1) check (photo_roll_deg between -90 and 90),
  add column photo_lid text check (photo_lid in ('free', 'held')),
  add column photo_found_deg numeric(4, 1) check (photo_found_deg between -90 and 90),
  add constraint rotation_reading_photo check ((how = 'photo') = (picture_id is not null)),
  add constraint rotation_reading_photo_said check (
    (picture_id is null) = (photo_roll_deg is null) and (picture_id is null) = (photo_lid is null) and (picture_id is not null or photo_found_deg is null)),
  add foreign key (practice_id, picture_id) references picture (practice_id, id);
