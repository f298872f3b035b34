'use client';
import { createContext, lazy, Suspense, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { assert } from '@/lib/assert';
import type { Result } from '@/lib/outcome';
import type { CommandName, ServiceInput, ServiceOutput } from '../../common/server';
import { useVisitData, type InVisit, type VisitCommands } from './useVisitData';
import { VisitNotices, type Said } from './VisitNotices';

export type UndoFacts = ServiceInput<'undo'>['facts'];
/** Does a command and says so, with the way to undo it. */
export type Run = <N extends CommandName>(name: N, input: InVisit<N>, done?: string) => Promise<Result<ServiceOutput<N>> | null>;
export interface VisitStore extends Omit<VisitCommands, 'run'> {
  readonly run: Run;
}
// Seldom: it brings its own script and words.
const ConflictPanel = lazy(() => import('./ConflictPanel').then((m) => ({ default: m.ConflictPanel })));
const StoreContext = createContext<VisitStore | null>(null);

export function useVisitStore(): VisitStore {
  const store = useContext(StoreContext);
  assert(store, 'VisitStoreProvider');
  return store;
}

/** What outlives the steps of a visit: what was read, the command on its way, what was said and can be undone. */
export function VisitStoreProvider({ visitId, children }: { readonly visitId: string; readonly children: ReactNode }) {
  const commands = useVisitData(visitId);
  const [said, setSaid] = useState<Said | null>(null);
  const { run: doCommand } = commands;
  const run = useCallback<Run>(
    async (name, input, done) => {
      const result = await doCommand(name, input);
      if (!result?.ok) return result;
      const value: unknown = result.value;
      const facts = typeof value === 'object' && value !== null && 'facts' in value ? (value.facts as UndoFacts) : [];
      if (done) setSaid({ key: Date.now(), text: done, undo: name === 'undo' ? [] : facts });
      return result;
    },
    [doCommand],
  );
  const { data, busy, problem, clearProblem, take, refresh } = commands;
  const store = useMemo((): VisitStore => ({ data, busy, problem, clearProblem, take, refresh, run }), [data, busy, problem, clearProblem, take, refresh, run]);
  return (
    <StoreContext.Provider value={store}>
      {children}
      <VisitNotices said={said} onSaid={setSaid} problem={problem} onClear={clearProblem} run={run} />
      <Suspense fallback={null}>{problem?.kind === 'conflict' ? <ConflictPanel problem={problem} onClear={clearProblem} onReload={refresh} /> : null}</Suspense>
    </StoreContext.Provider>
  );
}
