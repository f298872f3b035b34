'use client';
import { Toast } from 'radix-ui';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { type Eye, type EyeState, type HealthState, type NamedLens } from '@/core';
import { formatTime } from '@/i18n/format';
import { assert } from '@/lib/assert';
import type { Problem, Result } from '@/lib/outcome';
import type { VisitRecord } from '@/services/visitRecord';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import type { DeedInput, DeedName, DeedOutput } from '../deeds';
import { holdDrafts } from '../draftKeeper';
import { useDeeds } from '../DeedsProvider';
import { useRefusalWords } from '../words';
import { LENS_MOVED } from '../SettleClocks';
import { eyesOfRecord } from './eyes';
import { healthOf } from './health';
import { lensesOfRecord } from './lenses';

/** Deeds that change a visit: their input without what the room itself knows. */
type InVisit<N extends DeedName> = Omit<DeedInput<N>, 'visitId' | 'version'>;
type UndoFacts = DeedInput<'undo'>['facts'];

interface VisitRoom {
  readonly record: VisitRecord;
  readonly busy: boolean;
  /** The refusal of the last deed, for its fields; null after a success. */
  readonly problem: Problem | null;
  /** Does a deed in the visit and reads the record anew. True when it happened. */
  readonly run: <N extends DeedName>(name: N, input: InVisit<N>, done?: string) => Promise<Result<DeedOutput<N>> | null>;
  /** Looks quietly for what is new; stays as it is while the server is away. */
  readonly refresh: () => Promise<void>;
  readonly eye: (eye: Eye) => EyeState;
  /** History and eye health as they stand, with the rules that hold. */
  readonly health: HealthState;
  readonly lensOf: (lensId: string) => NamedLens | undefined;
  readonly clearProblem: () => void;
}
const VisitContext = createContext<VisitRoom | null>(null);

export function useVisit(): VisitRoom {
  const room = useContext(VisitContext);
  assert(room, 'VisitProvider');
  return room;
}

/** Deeds after which the settle clocks are other ones. */
const MOVES_LENSES: readonly string[] = ['putOnTrials', 'takeOff', 'putBack', 'correct', 'swapEyes', 'undo', 'recordBroughtIn', 'recordWorn'];
const UNDO_MS = 10_000;
interface Said {
  readonly key: number;
  readonly text: string;
  readonly undo: UndoFacts;
}

/** One visit's record in the browser: deeds go through here, so that two people never silently overwrite each other. */
export function VisitProvider({ initial, children }: { readonly initial: VisitRecord; readonly children: ReactNode }) {
  const t = useTranslations('visit');
  const refusal = useRefusalWords();
  const { perform, poll } = useDeeds();
  const [record, setRecord] = useState(initial);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [said, setSaid] = useState<Said | null>(null);
  const running = useRef(false);

  const reload = useCallback(async () => {
    const fresh = await perform('readVisit', { visitId: initial.visit.id });
    if (fresh?.ok) setRecord(fresh.value);
  }, [perform, initial.visit.id]);

  const run = useCallback(
    async <N extends DeedName>(name: N, input: InVisit<N>, done?: string): Promise<Result<DeedOutput<N>> | null> => {
      // A second press while the first is on its way is the same press.
      if (running.current) return null;
      running.current = true;
      setBusy(true);
      const release = await holdDrafts();
      try {
        const full = { ...input, visitId: record.visit.id, version: record.visit.version } as unknown as DeedInput<N>;
        const result = await perform(name, full);
        if (!result) return null;
        if (!result.ok) {
          setProblem(result.error);
          return result;
        }
        setProblem(null);
        if (MOVES_LENSES.includes(name)) window.dispatchEvent(new Event(LENS_MOVED));
        await reload();
        const value: unknown = result.value;
        const facts = typeof value === 'object' && value !== null && 'facts' in value ? (value.facts as UndoFacts) : [];
        if (done) setSaid({ key: Date.now(), text: done, undo: name === 'undo' ? [] : facts });
        return result;
      } finally {
        release();
        running.current = false;
        setBusy(false);
      }
    },
    [perform, record.visit.id, record.visit.version, reload],
  );

  const refresh = useCallback(async (): Promise<void> => {
    const fresh = await poll('readVisit', { visitId: initial.visit.id });
    if (fresh?.ok) setRecord(fresh.value);
  }, [poll, initial.visit.id]);
  // Coming back to a page that lay open: what others recorded meanwhile is shown before anything is typed on top.
  useEffect(() => {
    const look = (): void => {
      if (document.visibilityState === 'visible' && !running.current) void refresh();
    };
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, [refresh]);

  const lensOf = useMemo(() => lensesOfRecord(record), [record]);
  const eyes = useMemo(() => eyesOfRecord(record, lensOf), [record, lensOf]);
  const health = useMemo(() => healthOf(record, { right: eyes.right.verdict.choosing, left: eyes.left.verdict.choosing }), [record, eyes]);
  const room = useMemo(
    (): VisitRoom => ({ record, busy, problem, run, refresh, eye: (eye) => eyes[eye], health, lensOf, clearProblem: () => setProblem(null) }),
    [record, busy, problem, run, refresh, eyes, health, lensOf],
  );
  const conflict = problem?.kind === 'conflict' ? problem : null;
  const takeBack = (): void => {
    if (!said) return;
    setSaid(null);
    void run('undo', { facts: said.undo }, t('undone'));
  };
  return (
    <VisitContext.Provider value={room}>
      <Toast.Provider duration={UNDO_MS} label={t('notices')}>
        {children}
        {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? (
          <div className="refusal" role="alert">
            <StateMark state="stop" size={16} />
            <span>{refusal(problem)}</span>
            <Button look="quiet" onClick={() => setProblem(null)}>
              {t('settled')}
            </Button>
          </div>
        ) : null}
        {said ? (
          <Toast.Root key={said.key} className="toast" onOpenChange={(open) => (open ? undefined : setSaid(null))}>
            <Toast.Title className="flex gap-2 items-baseline">
              <StateMark state="ok" />
              {said.text}
            </Toast.Title>
            {said.undo.length > 0 ? (
              <Toast.Action altText={t('undoAlt')} asChild>
                <Button look="quiet" onClick={takeBack}>
                  {t('undo')}
                </Button>
              </Toast.Action>
            ) : null}
          </Toast.Root>
        ) : null}
        <Toast.Viewport className="toasts" />
      </Toast.Provider>
      <Panel open={conflict !== null} onClose={() => setProblem(null)} title={t('conflictTitle')}>
        <p className="mb-3">{t('conflictText')}</p>
        <ul className="mb-4">
          {(conflict?.differs ?? []).map((fact, index) => (
            <li key={index} className="border-b border-rule py-1">
              <strong>{t(`facts.${fact.what as 'refraction'}`, { eye: fact.eye ?? 'both' })}</strong> {fact.text}{' '}
              <span className="note">{t('by', { name: fact.by, time: formatTime(fact.at, record.house.practice.timeZone) })}</span>
            </li>
          ))}
        </ul>
        <div className="flex justify-end">
          <Button
            look="act"
            onClick={() => {
              setProblem(null);
              void reload();
            }}
          >
            {t('conflictReload')}
          </Button>
        </div>
      </Panel>
    </VisitContext.Provider>
  );
}
