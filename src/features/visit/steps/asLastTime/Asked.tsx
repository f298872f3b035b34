'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Segment } from '@/ui/Segment';
import { Stated } from '@/ui/marks';
import { useAnswerWords } from '../../../common/answerWords';
import { useVisit } from '../../shell/VisitProvider';
import { HOURS } from '../../shell/worn';
import type { AsLastTime } from './useAsLastTime';

/** What is asked of the wearer: danger signs afresh, the history read back in groups, and since when the lenses are in. */
export function Asked({ page }: { readonly page: AsLastTime }) {
  const t = useTranslations('asLastTime');
  const answers = useAnswerWords();
  const { record } = useVisit();
  const { danger, history, closed } = page;
  const toHistory = `/visits/${record.visit.id}/history`;
  return (
    <>
      <section id="press-danger" className="px-6 py-3 flex gap-4 items-start flex-wrap" aria-label={t('danger')} data-testid="danger">
        <div className="min-w-[260px] flex-1">
          <h2>{t('danger')}</h2>
          {danger === null ? <p className="note">{t('dangerAsk')}</p> : null}
        </div>
        {danger === null ? (
          <span className="flex gap-3 items-center">
            <Button look={page.next?.what === 'danger' ? 'act' : 'plain'} keys={['N']} disabled={closed} onClick={page.noDanger}>
              {t('none')}
            </Button>
            <Link className="btn btn-quiet" href={toHistory}>
              {t('reported')}
            </Link>
          </span>
        ) : (
          <Stated state={danger.length === 0 ? 'ok' : 'stop'}>
            {danger.length === 0 ? t('noneSaid') : t('dangerSaid', { signs: answers.answer('danger', danger) })}
          </Stated>
        )}
      </section>
      <section id="press-history" className="px-6 py-3 border-t border-rule flex gap-4 items-start flex-wrap" aria-label={t('history')} data-testid="read-back">
        <div className="min-w-[260px] flex-1">
          {history.open.length > 0 || history.groups.length === 0 ? (
            <>
              <h2>{t('history')}</h2>
              <ReadBack page={page} />
            </>
          ) : (
            <details>
              <summary className="cursor-pointer">{t('history')}</summary>
              <ReadBack page={page} />
            </details>
          )}
        </div>
        <span className="flex gap-3 items-center flex-wrap">
          {history.open.length > 0 ? (
            <Button look={page.next?.what === 'history' ? 'act' : 'plain'} keys={['B']} disabled={closed} onClick={page.readBack}>
              {t('back')}
            </Button>
          ) : history.groups.length > 0 ? (
            <Stated state="ok">{t('backDone')}</Stated>
          ) : null}
          <Link className="btn btn-quiet" href={toHistory}>
            {history.missing > 0 ? t('missing', { count: history.missing }) : t('changed')}
          </Link>
        </span>
      </section>
      <section id="press-hour" className="px-6 py-2 border-t border-rule flex gap-4 items-center flex-wrap" aria-label={t('since')}>
        <h2>{t('since')}</h2>
        <Segment label={t('since')} values={HOURS} value={page.hour} word={String} onChoose={page.setHour} disabled={closed} />
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/worn-now`}>
          {t('otherTime')}
        </Link>
      </section>
    </>
  );
}

function ReadBack({ page }: { readonly page: AsLastTime }) {
  const t = useTranslations('asLastTime');
  const groups = useTranslations('history');
  const answers = useAnswerWords();
  if (page.history.groups.length === 0) return <p className="note">{t('historyNone')}</p>;
  return (
    <dl className="grid grid-cols-[max-content_1fr] gap-x-3 gap-y-0.5 mt-1">
      {page.history.groups.map(({ group, items }) => (
        <div key={group} className="contents">
          <dt className="label">{groups(`groups.${group}`)}</dt>
          <dd>{items.map(({ question, answer }) => `${answers.name(question)}: ${answers.answer(question, answer.value)}`).join(' · ')}</dd>
        </div>
      ))}
    </dl>
  );
}
