'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { addDays } from '@/core';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useRefusalWords } from '../../../common/words';
import { BookNext } from '../../shell/booking/BookNext';
import { useVisit } from '../../shell/VisitProvider';

/** Enough for today: another day is booked by the same press. */
export function StopLesson({ lessonId, onClose }: { readonly lessonId: string; readonly onClose: () => void }) {
  const t = useTranslations('lesson');
  const refusal = useRefusalWords();
  const { record, run, problem } = useVisit();
  const [note, setNote] = useState('');
  const [unbooked, setUnbooked] = useState('');
  return (
    <Panel open wide onClose={onClose} title={t('stopTitle')}>
      <p className="mb-2">{t('stopText')}</p>
      <Field label={t('stopNote')} value={note} onValue={setNote} maxLength={400} autoComplete="off" />
      <BookNext
        focusFirst
        kind="lesson"
        from={addDays(record.session.today, 1)}
        unbooked={unbooked}
        onUnbooked={setUnbooked}
        onEnd={(next) =>
          void run('stopLesson', { lessonId, note, unbookedReason: unbooked, next }, t('stopped')).then((done) => {
            if (done?.ok) onClose();
          })
        }
        say={{ free: (day, time) => t('stopFree', { day, time }), booked: (day) => t('stopBooked', { day }), unbooked: t('stopUnbooked') }}
      />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </Panel>
  );
}
