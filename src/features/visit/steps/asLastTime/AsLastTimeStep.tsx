'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { COPIED_FOR_MONTHS, EYES, LOOK_WITHIN, wornDoubts } from '@/core';
import answersWords from '@/i18n/messages/en/answers.messages.json';
import asLastTimeWords from '@/i18n/messages/en/asLastTime.messages.json';
import asLastTimeProblems from '@/i18n/messages/en/asLastTimeProblems.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import historyWords from '@/i18n/messages/en/history.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import wornNowWords from '@/i18n/messages/en/wornNow.messages.json';
import wornNowProblems from '@/i18n/messages/en/wornNowProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useKey } from '../../../common/keys';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { WornDoubts } from '../../../common/WornDoubts';
import { powerWords, wornDoubtsOf } from '../../shell/worn';
import { Asked } from './Asked';
import { EyeRows } from './EyeRows';
import { LINES, OF_EACH_EYE } from './model';
import { useAsLastTime, type AsLastTime } from './useAsLastTime';

/** A letter for each thing that is pressed, R first, then L: no key says two different things, and none can be drummed through the page. */
function useAsLastTimeKeys(page: AsLastTime): void {
  useKey('n', page.noDanger, [page]);
  useKey('b', page.readBack, [page]);
  useKey('5,6,7,8,9', (event) => page.setHour(Number(event.key)), [page]);
  useKey('y', () => page.ofEye('worn', page.nextOf('worn')), [page]);
  useKey('1,2,3,4', (event) => page.ofEye('sees', page.nextOf('sees'), LINES[Number(event.key) - 1]), [page]);
  useKey('p', () => page.ofEye('over', page.nextOf('over')), [page]);
  useKey('f', () => page.ofEye('fit', page.nextOf('fit')), [page]);
  useKey('c', () => page.ofEye('cornea', page.nextOf('cornea')), [page]);
}

/** The annual visit of somebody happy: last time is read back, what has to be fresh is looked at, exceptions alone are typed. */
function AsLastTimeBody() {
  const t = useTranslations('asLastTime');
  const router = useRouter();
  const { record, busy } = useVisit();
  const page = useAsLastTime();
  useAsLastTimeKeys(page);
  const at = page.next?.what ?? null;
  useEffect(() => {
    if (at !== null) document.getElementById(`press-${at}`)?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  const to = (step: string) => () => router.push(`/visits/${record.visit.id}/${step}`);
  const anything = EYES.some((eye) => page.eyes[eye].worn !== null || page.eyes[eye].done.worn);
  return (
    <VisitFrame
      step="asLastTime"
      keys={[
        [['N'], t('keyNone')],
        [['B'], t('keyBack')],
        [['5–9'], t('keyHour')],
        [['Y', '1–4', 'P', 'F', 'C'], t('keyEye')],
      ]}
      margin={<Margin page={page} />}
      actions={
        <>
          <Button onClick={to('worn-now')} look={anything ? 'plain' : 'act'}>
            {t('toWorn')}
          </Button>
          <Button
            look={page.complete ? 'act' : 'plain'}
            keys={page.complete ? ['⏎'] : []}
            data-enter={page.complete ? 'true' : undefined}
            disabled={busy}
            onClick={to('prescription')}
          >
            {t('next')}
          </Button>
        </>
      }
    >
      {anything ? (
        <>
          <Asked page={page} />
          <WornDoubts doubts={wornDoubts(wornDoubtsOf(record))} powerOf={(lensId) => powerWords(record, lensId)} />
          <EyeRows page={page} />
        </>
      ) : (
        <p className="p-8 max-w-[640px]">{t('nothing')}</p>
      )}
      <DraftLine draft={page.draft} />
    </VisitFrame>
  );
}

/** What a press says, and what is still to be done. */
function Margin({ page }: { readonly page: AsLastTime }) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const open = [
    ...(page.danger === null ? [t('leftDanger')] : []),
    ...(page.history.open.length + page.history.missing > 0 ? [t('leftHistory')] : []),
    ...EYES.flatMap((eye) => {
      const left = OF_EACH_EYE.filter((what) => !page.eyes[eye].done[what]);
      return left.length === 0 ? [] : [t('leftEye', { eye: eyeWords.name(eye), what: left.map((what) => t(`what.${what}`)).join(', ') })];
    }),
  ];
  return (
    <>
      <h2 className="mb-2">{t('left')}</h2>
      {open.length === 0 ? (
        <p className="mb-4">
          <Stated state="ok">{t('leftNothing')}</Stated>
        </p>
      ) : (
        <ul className="mb-4 list-disc pl-5" data-testid="still-to-do">
          {open.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <h2 className="mb-2">{t('reasoning')}</h2>
      <p className="mb-3">{t('fresh')}</p>
      <p className="mb-3">{t('copied', { months: COPIED_FOR_MONTHS })}</p>
      <p className="mb-3">{t('markWhy', { degrees: LOOK_WITHIN })}</p>
    </>
  );
}

export const AsLastTimeStep = withWords(
  {
    answers: answersWords,
    asLastTime: asLastTimeWords,
    draft: draftWords,
    history: historyWords,
    purposes: purposesWords,
    signs: signsWords,
    wornNow: wornNowWords,
    problems: { ...wornNowProblems, ...asLastTimeProblems },
  },
  AsLastTimeBody,
);
