'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { answersFirst, question } from '@/core';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { useAnswerWords } from '../../../common/answerWords';
import { useVisit } from '../../shell/VisitProvider';
import { ASKED_HERE, TYPED_HERE } from './model';
import type { RedEye } from './useRedEye';

/** What a colleague asks first: said so far, with water and sleep asked here. */
export function AskedRows({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  const words = useAnswerWords();
  const { record } = useVisit();
  const { health, closed } = page;
  return (
    <section className="px-6 py-3 border-t border-rule" aria-label={t('asked')}>
      <div className="flex gap-4 items-baseline justify-between flex-wrap">
        <h2>{t('asked')}</h2>
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/history`}>
          {t('ask')}
        </Link>
      </div>
      {TYPED_HERE.map((id) => (
        <form
          key={id}
          onSubmit={(event) => {
            event.preventDefault();
            page.sayTyped(id);
          }}
          onBlur={() => page.sayTyped(id)}
          className="max-w-[520px]"
        >
          <Field
            label={words.name(id)}
            value={page.draft.body[id] ?? ''}
            onValue={(text) => page.draft.set(id, text)}
            hint={health.answers[id] ? words.answer(id, health.answers[id].value) : undefined}
            autoComplete="off"
            maxLength={200}
          />
        </form>
      ))}
      {ASKED_HERE.map((id) => (
        <div key={id} className="flex gap-4 items-center flex-wrap py-1">
          <span className="min-w-[180px]">{words.name(id)}</span>
          <Segment
            label={words.name(id)}
            kind="wrapping"
            values={question(id)?.options ?? []}
            value={typeof health.answers[id]?.value === 'string' ? health.answers[id].value : null}
            word={(option) => words.option(id, option)}
            disabled={closed}
            onChoose={(option) => page.say(id, option)}
          />
        </div>
      ))}
      <dl className="grid grid-cols-[max-content_1fr] gap-x-3 gap-y-0.5 mt-1">
        {answersFirst(health.answers).flatMap(({ question: id, answer }) =>
          answer && !([...ASKED_HERE, ...TYPED_HERE] as readonly string[]).includes(id)
            ? [
                <div key={id} className="contents">
                  <dt className="label">{words.name(id)}</dt>
                  <dd>{words.answer(id, answer.value)}</dd>
                </div>,
              ]
            : [],
        )}
      </dl>
    </section>
  );
}
