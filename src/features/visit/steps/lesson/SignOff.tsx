'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, nextAftercare } from '@/core';
import { formatDay } from '@/i18n/format';
import { ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useRefusalWords } from '../../../common/words';
import { BookNext } from '../../shell/booking/BookNext';
import { useVisit } from '../../shell/VisitProvider';
import type { LessonView } from './model';

/** Signs the lesson off; the same press books when the wearer is seen again. */
export function SignOff({ view, overrideNote, onClose }: { readonly view: LessonView; readonly overrideNote: string; readonly onClose: () => void }) {
  const t = useTranslations('lesson');
  const refusal = useRefusalWords();
  const { record, eye, run, problem } = useVisit();
  const [unbooked, setUnbooked] = useState('');
  const complex = EYES.some((e) => (record.lenses[eye(e).onEye?.current.lensId ?? '']?.geometry ?? 'sphere') !== 'sphere');
  const { today } = record.session;
  const due = nextAftercare({
    today,
    outcome: 'change',
    since: null,
    reusable: !view.lesson.singleUse,
    complex,
    firstNight: view.mandatory.includes('overnightRules') ? today : null,
  });
  return (
    <Panel open wide onClose={onClose} title={t('signOff')}>
      <p className="mb-2" data-testid="seen-again">
        {t('seenAgain', { day: formatDay(due.on), due: t(`seenDue.${due.due}`) })}
      </p>
      <BookNext
        focusFirst
        kind={complex ? 'longFollowUp' : 'shortFollowUp'}
        from={due.on}
        unbooked={unbooked}
        onUnbooked={setUnbooked}
        onEnd={(next) =>
          void run('signOffLesson', { lessonId: view.lesson.id, overrideNote, unbookedReason: unbooked, next }, t('signedOffToast')).then((done) => {
            if (done?.ok) onClose();
          })
        }
        say={{ free: (day, time) => t('signFree', { day, time }), booked: (day) => t('signBooked', { day }), unbooked: t('signUnbooked') }}
      />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </Panel>
  );
}
