'use client';
import { useTranslations } from 'use-intl';
import { useState } from 'react';
import type { WornAnswer } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated, type State } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { ANSWER_KEYS, isBare, isTime, type AskedEye } from './model';
import type { AskingState } from './useAsking';

const STATE_OF: Readonly<Record<WornAnswer, State>> = {
  yes: 'ok',
  oldPair: 'watch',
  mixed: 'watch',
  boughtElsewhere: 'watch',
  someoneElses: 'stop',
  lost: 'watch',
  glasses: 'watch',
};

/** What is answered of one eye: one press; then what was said, and the way to say otherwise. */
export function AnswerCell({ asking, asked }: { readonly asking: AskingState; readonly asked: AskedEye }) {
  const t = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  const { record, busy } = useVisit();
  const [again, setAgain] = useState(false);
  const { eye, said } = asked;
  const group = t('answerLabel', { eye: eyeWords.name(eye) });
  const side = eye === 'right' ? 'items-end' : 'items-start';
  if (said && !again) {
    const on = record.facts.onEye.find((c) => c.rootId === said.lensOnEyeId)?.current;
    const time = on ? formatTime(on.putOnAt, record.session.practice.timeZone) : '';
    return (
      <span role="group" aria-label={group} className={`flex flex-col gap-1 ${side}`} data-testid={`said-${eye}`}>
        <Stated state={STATE_OF[said.answer]}>{t(`said.${said.answer}`, { time })}</Stated>
        {asking.closed ? null : (
          <Button look="quiet" onClick={() => setAgain(true)}>
            {t('again')}
          </Button>
        )}
      </span>
    );
  }
  const next = asking.next === eye;
  const waits = asking.pending[eye];
  const press = (answer: WornAnswer) => (
    <Button
      key={answer}
      look={answer === 'yes' ? (next ? 'act' : 'plain') : 'quiet'}
      keys={next ? [ANSWER_KEYS[answer]] : []}
      data-enter={next && answer === 'yes' ? 'true' : undefined}
      aria-pressed={waits?.answer === answer}
      disabled={asking.closed}
      onClick={() => {
        setAgain(false);
        asking.press(eye, answer);
      }}
    >
      {t(`answers.${answer}`)}
    </Button>
  );
  return (
    <span role="group" aria-label={group} className={`flex flex-col gap-2 self-start ${side}`}>
      {asking.answersOf(eye).includes('yes') ? press('yes') : null}
      <span className={`flex flex-wrap gap-x-5 gap-y-1 max-w-[360px] ${eye === 'right' ? 'justify-end' : ''}`}>
        {asking
          .answersOf(eye)
          .filter((answer) => answer !== 'yes')
          .map(press)}
      </span>
      {waits && !busy ? <Stated state="watch">{t(isBare(waits.answer) || isTime(asking.since) ? 'notKept' : 'sinceWhen')}</Stated> : null}
    </span>
  );
}
