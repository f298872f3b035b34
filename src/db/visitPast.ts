import 'server-only';
import type { OnEyeFact, VisitRow } from '../core';
import type { Db } from './client';
import { factRows } from './fact';
import { visitsBefore } from './visit';

/** Lenses on an eye at earlier visits that are, or were, on an eye in this one too: the very same lens. */
const sameLenses = (sql: Db, visit: VisitRow) => sql`
  select e.root_id from lens_on_eye e
  where e.practice_id = ${visit.practiceId} and e.visit_id in (${visitsBefore(sql, visit)}) and e.lens_id in (
    select h.lens_id from lens_on_eye h where h.practice_id = ${visit.practiceId} and h.visit_id = ${visit.id} and h.lens_id is not null)`;

/** The same lenses at earlier visits, and every reading of their mark. */
export const listSameLensesBefore = (sql: Db, visit: VisitRow) =>
  factRows(sql, ['lensOnEye', 'rotation'], visit.practiceId, (_sql, kind) =>
    kind === 'lensOnEye' ? sql`f.root_id in (${sameLenses(sql, visit)})` : sql`f.lens_on_eye_id in (${sameLenses(sql, visit)})`,
  );

/** A wearer, and a visit of theirs that is read apart; null: none. */
export type WearerScope = Pick<VisitRow, 'practiceId' | 'wearerId'> & { readonly id: string | null };

/** The newest trial of each eye at other visits: what was tried, which is never what is worn. */
export const listNewestTrials = (sql: Db, of: WearerScope) => sql<OnEyeFact[]>`
  select distinct on (f.eye) f.*, p.display_name as recorded_by_name
  from lens_on_eye f join person p on p.id = f.recorded_by join visit v on v.practice_id = f.practice_id and v.id = f.visit_id
  where f.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and f.visit_id is distinct from ${of.id}::uuid and f.source = 'trial' and not f.voided
    and not exists (select 1 from lens_on_eye n where n.practice_id = f.practice_id and n.corrects_id = f.id)
  order by f.eye, f.put_on_at desc`;

/** The newest hand-overs at other visits, and the attempts and topics of lessons that nobody signed off yet. */
export const listSupplyBefore = (sql: Db, of: WearerScope, handOvers: number) =>
  factRows(sql, ['handOver', 'lessonAttempt', 'lessonTopic'], of.practiceId, (_sql, kind) =>
    kind === 'handOver'
      ? sql`f.visit_id is distinct from ${of.id}::uuid and f.root_id in (
          select n.root_id from hand_over n where n.practice_id = ${of.practiceId} and n.wearer_id = ${of.wearerId}
            and n.corrects_id is null and n.visit_id is distinct from ${of.id}::uuid order by n.recorded_at desc limit ${handOvers})`
      : sql`f.visit_id is distinct from ${of.id}::uuid and f.lesson_id in (
          select l.id from lesson l where l.practice_id = ${of.practiceId} and l.wearer_id = ${of.wearerId}
            and not exists (select 1 from lesson_sign_off s where s.lesson_id = l.id))`,
  );

/** Codes of every family of which lenses were handed over at other visits. */
export const listGivenFamilies = (sql: Db, of: WearerScope) => sql<{ readonly code: string }[]>`
  select distinct g.code from hand_over h join lens l on l.id = h.lens_id join lens_family_version g on g.id = l.family_version_id
  where h.practice_id = ${of.practiceId} and h.wearer_id = ${of.wearerId} and h.visit_id is distinct from ${of.id}::uuid and not h.voided
    and not exists (select 1 from hand_over n where n.practice_id = h.practice_id and n.corrects_id = h.id) order by 1`;
