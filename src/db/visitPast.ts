import 'server-only';
import { FEWEST_READINGS, type KnownTurn, type OnEyeFact, type VisitRow } from '../core';
import type { Db } from './client';
import { factRows, factsByKind } from './fact';
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

/**
 * Of each lens that is, or was, on an eye in this visit: the last whole series of readings that a lens of its family had on that
 * eye at an earlier one. Looks that only confirmed a turn are no series, nor are readings before the lens had settled.
 */
export const listKnownTurns = (sql: Db, visit: VisitRow) => sql<KnownTurn[]>`
  with series as (
    select e.eye, f.code, max(r.observed_at) as at, array_agg(r.rotation_left_deg order by r.sequence) as readings
    from rotation_reading r
    join lens_on_eye e on e.practice_id = r.practice_id and e.root_id = r.lens_on_eye_id and not e.voided
      and not exists (select 1 from lens_on_eye n where n.practice_id = e.practice_id and n.corrects_id = e.id)
    join lens l on l.practice_id = e.practice_id and l.id = e.lens_id
    join lens_family_version f on f.practice_id = l.practice_id and f.id = l.family_version_id
    where r.practice_id = ${visit.practiceId} and r.visit_id in (${visitsBefore(sql, visit)}) and not r.voided and not r.provisional and r.how <> 'look'
      and not exists (select 1 from rotation_reading n where n.practice_id = r.practice_id and n.corrects_id = r.id)
    group by e.eye, f.code, r.lens_on_eye_id, r.series_no having count(*) >= ${FEWEST_READINGS})
  select distinct on (h.root_id) h.root_id as lens_on_eye_id, s.at, s.readings
  from lens_on_eye h
  join lens l on l.practice_id = h.practice_id and l.id = h.lens_id
  join lens_family_version f on f.practice_id = l.practice_id and f.id = l.family_version_id
  join series s on s.eye = h.eye and s.code = f.code
  where h.practice_id = ${visit.practiceId} and h.visit_id = ${visit.id}
  order by h.root_id, s.at desc`;

/** A wearer, and a visit of theirs that is read apart; null: none. */
export type WearerScope = Pick<VisitRow, 'practiceId' | 'wearerId'> & { readonly id: string | null };

/** The newest trial of each eye at other visits, and those that a prescription rests on: what was tried, which is never what is worn. */
export const listNewestTrials = (sql: Db, of: WearerScope) => sql<OnEyeFact[]>`
  select t.* from (
    select f.*, p.display_name as recorded_by_name, row_number() over (partition by f.eye order by f.put_on_at desc) as place,
      f.root_id in (select e.tried_lens_on_eye_id from prescription r join prescription_eye e on e.practice_id = r.practice_id and e.prescription_id = r.id
        where r.practice_id = ${of.practiceId} and r.wearer_id = ${of.wearerId}) as prescribed_from
    from lens_on_eye f join person p on p.id = f.recorded_by join visit v on v.practice_id = f.practice_id and v.id = f.visit_id
    where f.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and f.visit_id is distinct from ${of.id}::uuid and f.source = 'trial'
      and not f.voided and not exists (select 1 from lens_on_eye n where n.practice_id = f.practice_id and n.corrects_id = f.id)) t
  where t.place = 1 or t.prescribed_from order by t.eye, t.put_on_at desc`;

/** Kinds of what is kept of the lenses at home. */
const SUPPLY_KINDS = [
  'handOver',
  'wornAnswer',
  'careSystem',
  'lessonInstruction',
  'nearFinding',
  'lessonAttempt',
  'lessonTopic',
  'lessonWay',
  'lessonTurn',
  'lessonSight',
] as const;
/** The newest answers about the lenses worn that are read, both eyes together. */
const ANSWERS = 6;
/** The newest instructions for lessons that are read. */
const INSTRUCTIONS_READ = 6;

/**
 * At other visits: the newest hand-overs of each eye, what was last answered about the lenses worn, the care system prescribed last, and the attempts and topics of
 * lessons that nobody signed off yet.
 * @param handOvers how many of each eye: the other eye's do not push them out
 */
export const listSupplyBefore = (sql: Db, of: WearerScope, handOvers: number) => {
  const chosen: Readonly<Record<'handOver' | 'wornAnswer' | 'careSystem' | 'lessonInstruction' | 'nearFinding', () => ReturnType<Db>>> = {
    handOver: () => sql`
      select n.root_id from (
        select h.root_id, row_number() over (partition by h.eye order by h.recorded_at desc, h.visit_version desc) as place from hand_over h
        where h.practice_id = ${of.practiceId} and h.wearer_id = ${of.wearerId} and h.corrects_id is null and h.visit_id is distinct from ${of.id}::uuid) n
      where n.place <= ${handOvers}`,
    wornAnswer: () => sql`
      select a.root_id from worn_answer a join visit v on v.practice_id = a.practice_id and v.id = a.visit_id
      where a.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and a.corrects_id is null and a.visit_id is distinct from ${of.id}::uuid
      order by a.recorded_at desc, a.visit_version desc, a.eye limit ${ANSWERS}`,
    careSystem: () => sql`
      select c.root_id from care_system c join visit v on v.practice_id = c.practice_id and v.id = c.visit_id
      where c.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and c.visit_id is distinct from ${of.id}::uuid and not c.voided
        and not exists (select 1 from care_system n where n.practice_id = c.practice_id and n.corrects_id = c.id)
      order by c.recorded_at desc, c.visit_version desc limit 1`,
    lessonInstruction: () => sql`
      select c.root_id from lesson_instruction c join visit v on v.practice_id = c.practice_id and v.id = c.visit_id
      where c.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and c.visit_id is distinct from ${of.id}::uuid and c.corrects_id is null
      order by c.recorded_at desc limit ${INSTRUCTIONS_READ}`,
    nearFinding: () => sql`
      select distinct on (c.sign) c.root_id from near_finding c join visit v on v.practice_id = c.practice_id and v.id = c.visit_id
      where c.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and c.visit_id is distinct from ${of.id}::uuid and not c.voided
        and not exists (select 1 from near_finding n where n.practice_id = c.practice_id and n.corrects_id = c.id)
      order by c.sign, c.recorded_at desc, c.sequence desc`,
  };
  return factRows(sql, SUPPLY_KINDS, of.practiceId, (_sql, kind) =>
    kind === 'handOver' || kind === 'wornAnswer' || kind === 'careSystem' || kind === 'lessonInstruction' || kind === 'nearFinding'
      ? sql`f.visit_id is distinct from ${of.id}::uuid and f.root_id in (${chosen[kind]()})`
      : sql`f.visit_id is distinct from ${of.id}::uuid and f.lesson_id in (
          select l.id from lesson l where l.practice_id = ${of.practiceId} and l.wearer_id = ${of.wearerId}
            and not exists (select 1 from lesson_sign_off s where s.lesson_id = l.id))`,
  );
};
/** The rows of `listSupplyBefore` by their kind. */
export const supplyBefore = (rows: Parameters<typeof factsByKind<(typeof SUPPLY_KINDS)[number]>>[1]) => factsByKind(SUPPLY_KINDS, rows);

/** Codes of every family of which lenses were handed over at other visits. */
export const listGivenFamilies = (sql: Db, of: WearerScope) => sql<{ readonly code: string }[]>`
  select distinct g.code from hand_over h join lens l on l.id = h.lens_id join lens_family_version g on g.id = l.family_version_id
  where h.practice_id = ${of.practiceId} and h.wearer_id = ${of.wearerId} and h.visit_id is distinct from ${of.id}::uuid and not h.voided
    and not exists (select 1 from hand_over n where n.practice_id = h.practice_id and n.corrects_id = h.id) order by 1`;
