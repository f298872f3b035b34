'use client';
import { useTranslations } from 'use-intl';
import { scenariosFor, weakTopics, type CareTopic } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import { Button } from '@/ui/Button';
import { Stated, StateMark } from '@/ui/marks';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import type { LessonView } from './model';
import type { Lesson } from './useLesson';

interface Of {
  readonly lesson: Lesson;
  readonly view: LessonView;
}

/** Care topics, pressed as the wearer says them back; those that hurt eyes once more at the end. */
export function Topics({ lesson, view }: Of) {
  const t = useTranslations('lesson');
  return (
    <>
      <h2 className="border-b border-rule-2 pb-2 mb-1">{t('careTopics', { done: view.topics.length, all: view.mandatory.length })}</h2>
      <p className="label mb-2">{t('saidBack')}</p>
      <ul>
        {view.mandatory.map((topic) => (
          <Topic key={topic} topic={topic} lesson={lesson} view={view} />
        ))}
      </ul>
      <Again lesson={lesson} view={view} />
    </>
  );
}

function Topic({ topic, lesson, view }: Of & { readonly topic: CareTopic }) {
  const t = useTranslations('lesson');
  const tOf = useWordsOf('lesson');
  const { record } = useVisit();
  const answers = record.exercises.filter((e) => e.lessonId === view.lesson.id);
  const weak = weakTopics(scenariosFor({ singleUse: view.lesson.singleUse, peroxide: view.mandatory.includes('ownCaseFullHours') }), answers).includes(topic);
  const said = view.topics.find((x) => x.topic === topic);
  const chain = record.topics.find((c) => c.rootId === said?.rootId);
  const name = t(`topic.${topic}.name`);
  return (
    <li className="border-b border-rule py-2 flex gap-3 items-start">
      <button
        type="button"
        role="checkbox"
        aria-checked={said !== undefined}
        aria-label={name}
        className="check mt-0.5 touch"
        data-done={said ? true : undefined}
        disabled={!lesson.running || lesson.busy || said !== undefined}
        onClick={() => lesson.say(topic, name)}
      >
        {said ? <StateMark state="ok" /> : null}
      </button>
      <span className="flex-1">
        <span className="font-[620]">{name}</span>
        <span className="block label">{tOf(`topic.${topic}.say`, { makeUp: record.session.settings.makeUp })}</span>
        {weak ? <Stated state="watch">{t('weak')}</Stated> : null}
      </span>
      {said && chain && lesson.running ? <Correctable kind="lessonTopic" chain={chain} show={() => name} /> : null}
    </li>
  );
}

/** What is asked once more at the end, by one press. */
function Again({ lesson, view }: Of) {
  const t = useTranslations('lesson');
  const told = view.mandatory.every((topic) => view.topics.some((x) => x.topic === topic));
  const open = view.again.filter((topic) => !view.saidAgain.includes(topic));
  if (!told || view.again.length === 0) return null;
  return (
    <section className="pt-3" data-testid="asked-again">
      <h2>{t('again', { done: view.saidAgain.length, all: view.again.length })}</h2>
      <p className="label">{t('againText')}</p>
      <ul className="py-1">
        {view.again.map((topic) => (
          <li key={topic}>{view.saidAgain.includes(topic) ? <Stated state="ok">{t(`topic.${topic}.name`)}</Stated> : t(`topic.${topic}.name`)}</li>
        ))}
      </ul>
      {open.length > 0 && lesson.running ? (
        <Button disabled={lesson.busy} onClick={() => lesson.sayAgain(open)}>
          {t('againAll')}
        </Button>
      ) : null}
    </section>
  );
}
