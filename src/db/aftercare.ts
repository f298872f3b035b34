import 'server-only';
import type { VisitRow } from '../core';
import type { Db } from './client';
import { factRows, factsByKind } from './fact';
import { earlierVisits } from './visit';

const KINDS = ['aftercareAnswer', 'adverseEvent', 'returnToWear'] as const;

/** What of earlier visits bears on aftercare: what went wrong with an eye, what ended it, and the first night in lenses. */
export const listAftercareBefore = (sql: Db, visit: VisitRow) =>
  factRows(sql, KINDS, visit.practiceId, (_sql, kind) =>
    kind === 'aftercareAnswer'
      ? sql`f.question = 'firstNight' and f.visit_id in (${earlierVisits(sql, visit)})`
      : sql`f.visit_id in (${earlierVisits(sql, visit)})`,
  );
/** The rows of `listAftercareBefore` by their kind. */
export const aftercareBefore = (rows: Parameters<typeof factsByKind<(typeof KINDS)[number]>>[1]) => factsByKind(KINDS, rows);
