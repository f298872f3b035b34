'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { SET_UP_TURN } from '@/core';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import type { Problem } from '@/lib/outcome';
import { useServer } from '../../../common/ServerProvider';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../../../common/words';

/** A lens with its mark at a turn, as the examiner sees it, with the beam lying on the mark. */
function DrawnMark({ turn, label }: { readonly turn: number; readonly label: string }) {
  return (
    <svg viewBox="0 0 160 160" width="140" height="140" role="img" aria-label={label}>
      <circle cx="80" cy="80" r="56" fill="var(--iris)" stroke="var(--ink)" strokeWidth="1.5" />
      <circle cx="80" cy="80" r="16" fill="var(--pupil)" />
      <circle cx="80" cy="80" r="68" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <g transform={`rotate(${turn} 80 80)`}>
        <line x1="80" y1="4" x2="80" y2="156" stroke="var(--watch-fill)" strokeWidth="5" opacity="0.75" />
        <line x1="80" y1="134" x2="80" y2="150" stroke="var(--ink)" strokeWidth="6" />
      </g>
    </svg>
  );
}

/** Slit lamps that are set up, each with what it reads; one that is gone, or was set up wrong, is ended here. */
function InUse({ onProblem }: { readonly onProblem: (problem: Problem | null) => void }) {
  const t = useTranslations('instrument');
  const { command } = useServer();
  const { record, refresh } = useVisit();
  const [asked, setAsked] = useState<string | null>(null);
  if (record.instruments.length === 0) return null;
  const end = async (instrumentId: string): Promise<void> => {
    const done = await command('endInstrument', { instrumentId });
    if (!done) return;
    onProblem(done.ok ? null : done.error);
    setAsked(null);
    await refresh();
  };
  return (
    <section aria-label={t('inUse')}>
      <h3 className="label">{t('inUse')}</h3>
      <ul className="flex flex-col gap-1">
        {record.instruments.map((i) => (
          <li key={i.id} className="flex gap-3 items-center flex-wrap">
            <strong>{i.name}</strong>
            <span className="note grow">{t('reads', { zero: i.zero, side: t(`grows.${i.grows}`) })}</span>
            {asked === i.id ? (
              <>
                <span className="note">{t('endNote')}</span>
                <Button onClick={() => setAsked(null)}>{t('keep')}</Button>
                <Button onClick={() => void end(i.id)}>{t('endDo', { name: i.name })}</Button>
              </>
            ) : (
              <Button look="quiet" onClick={() => setAsked(i.id)} aria-label={t('endLabel', { name: i.name })}>
                {t('end')}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Set up by looking: what the scale reads on two drawn marks says where it begins and which way it counts. */
export function SetUpInstrument({ onClose, onAdded }: { readonly onClose: () => void; readonly onAdded: (id: string) => void }) {
  const t = useTranslations('instrument');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { command } = useServer();
  const { refresh } = useVisit();
  const [name, setName] = useState('');
  const [straight, setStraight] = useState('');
  const [turned, setTurned] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const at = (path: string): string | null => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  const figure = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text.trim()) : Number.NaN);
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await command('addInstrument', { name, readStraight: figure(straight), readTurned: figure(turned) });
    if (!done) return;
    if (!done.ok) {
      setProblem(done.error);
      return;
    }
    onAdded(done.value.instrumentId);
    await refresh();
    onClose();
  };
  return (
    <Panel open onClose={onClose} title={t('title')}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <p>{t('text')}</p>
        <Field label={t('name')} value={name} onValue={setName} problem={at('name')} autoFocus hint={t('nameHint')} />
        <div className="grid grid-cols-2 gap-4">
          <div className="flex flex-col gap-2">
            <DrawnMark turn={0} label={t('straightDrawn')} />
            <Field label={t('straight')} value={straight} onValue={setStraight} inputMode="numeric" mono problem={at('readStraight')} />
          </div>
          <div className="flex flex-col gap-2">
            <DrawnMark turn={SET_UP_TURN} label={t('turnedDrawn', { degrees: SET_UP_TURN })} />
            <Field label={t('turned')} value={turned} onValue={setTurned} inputMode="numeric" mono problem={at('readTurned')} />
          </div>
        </div>
        <InUse onProblem={setProblem} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex justify-end gap-3">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="act" type="submit">
            {t('do')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}
