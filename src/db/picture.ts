import 'server-only';
import type { Eye, PictureRow, VisitRow } from '../core';
import type { Db } from './client';
import { earlierVisits } from './visit';

/** The newest pictures of a wearer up to a visit, oldest first. */
export function listPictures(sql: Db, visit: VisitRow, most: number) {
  return sql<PictureRow[]>`
    select i.id, i.visit_id, i.eye, i.title, i.width, i.height, i.place_removed, i.recorded_at, p.display_name as recorded_by_name
    from picture i join person p on p.id = i.recorded_by
    where i.practice_id = ${visit.practiceId} and i.id in (
      select n.id from picture n where n.practice_id = ${visit.practiceId} and (n.visit_id = ${visit.id} or n.visit_id in (${earlierVisits(sql, visit)}))
      order by n.recorded_at desc limit ${most})
    order by i.recorded_at`;
}

export async function findPicture(sql: Db, practiceId: string, id: string): Promise<{ readonly bytes: Uint8Array; readonly mediaType: string } | null> {
  const [row] = await sql<{ bytes: Uint8Array; mediaType: string }[]>`
    select bytes, media_type from picture where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

/** Of which visit and eye a picture is. */
export async function pictureOf(sql: Db, practiceId: string, id: string): Promise<{ readonly visitId: string; readonly eye: Eye } | null> {
  const [row] = await sql<{ visitId: string; eye: Eye }[]>`select visit_id, eye from picture where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

export async function insertPicture(
  sql: Db,
  p: {
    id: string;
    practiceId: string;
    visitId: string;
    visitVersion: number;
    eye: Eye;
    title: string;
    bytes: Uint8Array;
    width: number;
    height: number;
    sha256: string;
    placeRemoved: boolean;
    at: string;
    by: string;
  },
): Promise<void> {
  await sql`
    insert into picture (id, practice_id, visit_id, visit_version, eye, title, bytes, media_type, width, height, sha256, place_removed, recorded_at, recorded_by)
    values (${p.id}, ${p.practiceId}, ${p.visitId}, ${p.visitVersion}, ${p.eye}, ${p.title}, ${Buffer.from(p.bytes)}, 'image/jpeg', ${p.width}, ${p.height},
      ${p.sha256}, ${p.placeRemoved}, ${p.at}, ${p.by})`;
}
