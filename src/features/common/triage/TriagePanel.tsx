'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { DANGER_SIGNS, TOLD, triage, type DangerSign } from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import diaryWords from '@/i18n/messages/en/diary.messages.json';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import triageProblems from '@/i18n/messages/en/triageProblems.messages.json';
import triageWords from '@/i18n/messages/en/triage.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Stated } from '@/ui/marks';
import { useNow } from '../Clock';
import { FindWearer, type Found } from '../FindWearer';
import { useServer } from '../ServerProvider';
import { useSending } from '../useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../words';

interface TriageProps {
  /** Who calls; null until they are found. */
  readonly wearer: Found | null;
  /** The alert is raised: what shows it is to be read again. */
  readonly onDone: () => void;
  readonly onClose: () => void;
}
/** A few minutes to get here, on the quarter of an hour. */
const QUARTER_MS = 15 * 60_000;
const nextQuarter = (now: number): string => new Date(Math.ceil(now / QUARTER_MS) * QUARTER_MS).toISOString();

/** Whoever answers the telephone: who it is, which of the six signs, what to say, and where they go. Nothing else is asked. */
function TriageBody({ wearer: first, onDone, onClose }: TriageProps) {
  const t = useTranslations('triage');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const now = useNow(30_000);
  const { send, problem, busy } = useSending<'triageRedEye'>(onDone);
  const [wearer, setWearer] = useState(first);
  const [signs, setSigns] = useState<readonly DangerSign[]>([]);
  const [onset, setOnset] = useState('');
  const [time, setTime] = useState(() => formatTime(nextQuarter(now), session.practice.timeZone));
  const telephone = session.practice.emergencyTelephone ?? '';
  const fault = problemAt(problem, 'time');
  const raise = async (goes: 'here' | 'emergency'): Promise<void> => {
    if (!wearer) return;
    const done = await send('triageRedEye', { wearerId: wearer.id, signs: [...signs], onset, goes, time: goes === 'here' ? time : null });
    if (done) onClose();
  };
  const ready = wearer !== null && signs.length > 0 && !busy;
  return (
    <Panel open wide onClose={onClose} title={t('title')}>
      <div className="flex flex-col gap-3">
        {wearer ? (
          <p>
            <span className="value">{wearer.name}</span> <span className="label">{t('born', { day: formatDay(wearer.birthDate) })}</span>{' '}
            {first ? null : (
              <Button look="quiet" onClick={() => setWearer(null)}>
                {t('somebodyElse')}
              </Button>
            )}
          </p>
        ) : (
          <>
            <FindWearer onFound={setWearer} />
            <p className="note">{t('unknown')}</p>
          </>
        )}
        <Signs signs={signs} onSigns={setSigns} />
        <Field label={t('onset')} value={onset} onValue={setOnset} autoComplete="off" maxLength={200} />
        <ol className="list-decimal pl-5" aria-label={t('say')}>
          {TOLD.map((told) => (
            <li key={told}>{t(`told.${told}`, { telephone })}</li>
          ))}
        </ol>
        <p className="note">{t('nothing')}</p>
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 items-end flex-wrap justify-end">
          <Field
            className="w-[150px]"
            label={t('time')}
            value={time}
            onValue={setTime}
            autoComplete="off"
            problem={fault ? words(fault.code, fault.data) : null}
          />
          <Button look="act" disabled={!ready} onClick={() => void raise('here')}>
            {t('here')}
          </Button>
          <Button disabled={!ready || telephone === ''} onClick={() => void raise('emergency')}>
            {telephone === '' ? t('noNumber') : t('emergency', { telephone })}
          </Button>
        </div>
      </div>
    </Panel>
  );
}

/** The six danger signs, and how soon what was pressed is seen. */
function Signs({ signs, onSigns }: { readonly signs: readonly DangerSign[]; readonly onSigns: (signs: readonly DangerSign[]) => void }) {
  const t = useTranslations('triage');
  const { urgency } = triage(signs);
  return (
    <>
      <div role="group" aria-label={t('signs')} className="opts">
        {DANGER_SIGNS.map((sign) => (
          <button
            key={sign}
            type="button"
            className="opt"
            aria-pressed={signs.includes(sign)}
            onClick={() => onSigns(signs.includes(sign) ? signs.filter((s) => s !== sign) : [...signs, sign])}
          >
            {t(`sign.${sign}`)}
          </button>
        ))}
      </div>
      <p aria-live="polite" data-testid="urgency">
        {signs.length === 0 ? <span className="label">{t('urgency.none')}</span> : <Stated state="stop">{t(`urgency.${urgency}`)}</Stated>}
      </p>
    </>
  );
}

export const TriagePanel = withWords({ diary: diaryWords, triage: triageWords, problems: { ...diaryProblems, ...triageProblems } }, TriageBody);
