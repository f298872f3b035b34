'use client';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { DraftKeeper, type DraftBody, type DraftState } from '../../common/draftKeeper';
import { draftKey } from '../../common/drafts';
import { useServer } from '../../common/ServerProvider';
import { useVisit } from './VisitProvider';
import type { DraftKey, DraftOf, DraftStep } from './draftKeys';

export interface Draft<Step extends DraftStep> {
  readonly body: DraftOf<Step>;
  readonly set: (key: DraftKey<Step>, value: string) => void;
  /** A value as it stands at this moment: presses that come faster than the page is drawn build on one another. */
  readonly now: (key: DraftKey<Step>) => string;
  /** Lets go of the draft: what was typed is recorded. */
  readonly clear: () => void;
  readonly state: DraftState;
  /** Others with unfinished typing in this step. */
  readonly others: readonly string[];
}

const isBody = (value: unknown): value is DraftBody => typeof value === 'object' && value !== null && Object.values(value).every((v) => typeof v === 'string');

/** Unfinished typing of one person in one step of the visit. */
export function useDraft<Step extends DraftStep>(step: Step): Draft<Step> {
  const { record } = useVisit();
  const { quietly, session } = useServer();
  const me = session.viewer.personId;
  const [keeper] = useState(() => {
    const stored = record.drafts.find((d) => d.step === step && d.authorId === me);
    const visitId = record.visit.id;
    return new DraftKeeper({
      key: draftKey(visitId, step, me),
      stored: stored && isBody(stored.body) ? { body: stored.body, sequence: stored.sequence } : null,
      save: async (body, sequence) => {
        const done = await quietly('saveDraft', { visitId, step, body: { ...body }, sequence });
        if (done?.ok) return 'saved';
        return done?.error.kind === 'conflict' ? 'older' : 'away';
      },
      clock: () => Date.now(),
    });
  });
  useEffect(() => keeper.start(), [keeper]);
  const { body, state } = useSyncExternalStore(keeper.subscribe, keeper.snapshot, keeper.firstSnapshot);
  const others = useMemo(() => record.drafts.filter((d) => d.step === step && d.authorId !== me).map((d) => d.author), [record.drafts, step, me]);
  return { body: body as DraftOf<Step>, set: keeper.set, now: (key) => keeper.snapshot().body[key] ?? '', clear: keeper.clear, state, others };
}
