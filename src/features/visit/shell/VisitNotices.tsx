'use client';
import { lazy, Suspense, useEffect, useState } from 'react';
import type { Problem } from '@/lib/outcome';
import type { Run, UndoFacts } from './VisitStore';

export interface Said {
  readonly key: number;
  readonly text: string;
  readonly undo: UndoFacts;
}

const load = () => import('./SaidToast').then((m) => ({ default: m.SaidToast }));
const SaidToast = lazy(load);
const loadRefused = () => import('./Refused').then((m) => ({ default: m.Refused }));
const Refused = lazy(loadRefused);

/** What was done a moment ago, with the way to undo it, and what was refused. */
export function VisitNotices({
  said,
  onSaid,
  problem,
  onClear,
  run,
}: {
  readonly said: Said | null;
  readonly onSaid: (said: Said | null) => void;
  readonly problem: Problem | null;
  readonly onClear: () => void;
  readonly run: Run;
}) {
  const [began, setBegan] = useState(false);
  if (said && !began) setBegan(true);
  // Fetched while the server is there: what refuses may be that it is away.
  useEffect(() => void Promise.all([load(), loadRefused()]), []);
  return (
    <>
      {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? (
        <Suspense fallback={null}>
          <Refused problem={problem} onClear={onClear} />
        </Suspense>
      ) : null}
      {began ? (
        <Suspense fallback={null}>
          <SaidToast said={said} onSaid={onSaid} run={run} />
        </Suspense>
      ) : null}
    </>
  );
}
