'use client';
import { createContext, useContext, useEffect, useMemo, type ReactNode } from 'react';
import { type Eye, type EyeState, type HealthState, type NamedLens } from '@/core';
import { assert } from '@/lib/assert';
import { useLibrary } from '../../common/library';
import { useServer } from '../../common/ServerProvider';
import { eyesOfRecord } from './eyes';
import { healthOfRecord } from './health';
import { lensesOfRecord } from './lenses';
import { hasSlice, later, recordOf, type VisitData, type VisitRecord } from './visitData';
import { useVisitStore, type VisitStore } from './VisitStore';

/** A visit as the parts of a page use it. */
interface Visit extends Omit<VisitStore, 'data' | 'take'> {
  readonly record: VisitRecord;
  /** Has the practice's library come? */
  readonly hasLibrary: boolean;
  readonly eye: (eye: Eye) => EyeState;
  /** History and eye health as they stand, with the rules that hold. */
  readonly health: HealthState;
  readonly lensOf: (lensId: string) => NamedLens | undefined;
}
const VisitContext = createContext<Visit | null>(null);

export function useVisit(): Visit {
  const visit = useContext(VisitContext);
  assert(visit, 'VisitProvider');
  return visit;
}

const NOT_MEASURED = (): never => {
  throw new Error('the page reads measures');
};

/** The visit for one page: what the page has read, or what came after it. */
export function VisitProvider({ data: came, children }: { readonly data: VisitData; readonly children: ReactNode }) {
  const store = useVisitStore();
  const { session } = useServer();
  const { data: shown, take } = store;
  useEffect(() => take(came), [came, take]);
  const data = later(came, shown?.page === came.page ? shown : came);
  const library = useLibrary(hasSlice(data, 'measures') ? data.head.libraryTag : null);
  const record = useMemo(() => recordOf(data, session, library), [data, session, library]);
  const lensOf = useMemo(() => (hasSlice(data, 'lenses') ? lensesOfRecord(record) : () => undefined), [data, record]);
  const eyes = useMemo(() => (hasSlice(data, 'measures') ? eyesOfRecord(record, lensOf) : null), [data, record, lensOf]);
  const health = useMemo(
    () => healthOfRecord(record, { right: eyes?.right.verdict.choosing ?? null, left: eyes?.left.verdict.choosing ?? null }),
    [record, eyes],
  );
  const visit = useMemo((): Visit => {
    const { busy, problem, clearProblem, run, refresh } = store;
    return { record, hasLibrary: library !== null, busy, problem, clearProblem, run, refresh, eye: eyes ? (eye) => eyes[eye] : NOT_MEASURED, health, lensOf };
  }, [record, library, store, eyes, health, lensOf]);
  return <VisitContext.Provider value={visit}>{children}</VisitContext.Provider>;
}
