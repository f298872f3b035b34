import 'server-only';
import {
  ageOn,
  chains,
  timelineOf,
  type BroughtAlong,
  type FactChain,
  type HandOverFact,
  type LensRow,
  type TimelineEntry,
  type WearerRow,
  type WornAnswerFact,
} from '../../core';
import { listBroughtAlong } from '../../db/broughtAlong';
import { erasureRow, type Erasure } from '../../db/erasure';
import { factRows, factsByKind } from '../../db/fact';
import { readPersonRows } from '../../db/personRows';
import { revived } from '../../db/bundle';
import { listTimeline } from '../../db/timeline';
import { findWearer } from '../../db/wearer';
import { writePersonFile, type PersonFile } from '../../formats/personFile';
import { notFound, ok, type Result } from '../../lib/outcome';
import { exportPersonForm, timelineForm } from '../../schema/personFile';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { namedLenses } from '../visit/lenses';

/** Lines of a page, and the most that a print has: more than anybody's years come to. */
const PAGE = 80;
const WHOLE = 20_000;

export interface TimelinePage {
  readonly session: SessionContext;
  readonly wearer: WearerRow & { readonly age: number };
  readonly erasure: Erasure | null;
  readonly entries: readonly TimelineEntry[];
  readonly more: boolean;
  readonly lenses: Readonly<Record<string, LensRow>>;
  /** What the line of lenses is drawn from, of all years. */
  readonly line: {
    readonly handOvers: readonly FactChain<HandOverFact>[];
    readonly wornAnswers: readonly FactChain<WornAnswerFact>[];
    readonly broughtAlong: readonly BroughtAlong[];
  };
}

const idsIn = (value: unknown): string[] => (typeof value === 'string' ? [value] : []);

/** A wearer's file as one timeline, with filters; and the lenses of all years. */
export const readTimeline = defineQuery({
  name: 'readTimeline',
  right: 'clinicalRead',
  input: timelineForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<TimelinePage>> => {
    const { tx, caller, today } = context;
    const { practiceId } = caller;
    const { wearerId, filter, before, whole } = form;
    const wearer = await findWearer(tx, practiceId, wearerId);
    if (!wearer) return notFound('wearer');
    const most = whole ? WHOLE : PAGE;
    const rows = await listTimeline(tx, { practiceId, wearerId }, timelineOf(filter), { before, most: most + 1, onlyCorrections: filter === 'corrections' });
    const kinds = ['handOver', 'wornAnswer'] as const;
    const facts = factsByKind(
      kinds,
      await factRows(
        tx,
        kinds,
        practiceId,
        () => tx`f.visit_id in (select v.id from visit v where v.practice_id = ${practiceId} and v.wearer_id = ${wearerId})`,
      ),
    );
    const broughtAlong = await listBroughtAlong(tx, practiceId, wearerId);
    const entries = rows.slice(0, most).map((row): TimelineEntry => ({ ...row, data: revived(row.data), was: row.was && revived(row.was) }));
    const { lenses } = await namedLenses(context, [
      ...entries.flatMap((e) => [...idsIn(e.data['lensId']), ...idsIn(e.was?.['lensId'])]),
      ...entries.flatMap((e) => Object.values(e.data['lenses'] ?? {}).flatMap(idsIn)),
      ...[...facts.handOver, ...facts.wornAnswer].flatMap((f) => f.lensId ?? []),
      ...broughtAlong.map((b) => b.lensId),
    ]);
    return ok({
      session: sessionContextOf(context),
      wearer: { ...wearer, age: ageOn(wearer.birthDate, today) },
      erasure: (await erasureRow(tx, practiceId, wearerId))[0] ?? null,
      entries,
      more: rows.length > most,
      lenses,
      line: { handOvers: chains(facts.handOver), wornAnswers: chains(facts.wornAnswer), broughtAlong },
    });
  },
});

/** All that is held on a person, as one document. A prescriber answers for what leaves. */
export const exportPerson = defineQuery({
  name: 'exportPerson',
  right: 'sign',
  input: exportPersonForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller }, form): Promise<Result<{ readonly name: string; readonly text: string }>> => {
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    const tables = wearer && (await readPersonRows(tx, caller.practiceId, form.wearerId));
    if (!wearer || !tables) return notFound('wearer');
    const file = { format: 'keen-fit-person', version: 1, wearer: form.wearerId, tables } as const;
    return ok({ name: `record-${String(wearer.recordNumber).padStart(4, '0')}.json`, text: writePersonFile(file as PersonFile) });
  },
});
