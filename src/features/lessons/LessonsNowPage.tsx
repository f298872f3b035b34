'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import lessonsNowWords from '@/i18n/messages/en/lessonsNow.messages.json';
import visitProblems from '@/i18n/messages/en/visitProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { LessonNow } from '@/services/lesson/now';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useEyeWords } from '../common/eyeWords';
import { useKey } from '../common/keys';
import { useNews } from '../common/news';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { useRefusalWords } from '../common/words';

/** How often the minutes are looked at, ms. */
const LOOKS_MS = 30_000;

/** Every lesson that goes on, side by side: who needs what next, one press for what worked, one key to open it. */
function LessonsNow({ first }: { readonly first: readonly LessonNow[] }) {
  const t = useTranslations('lessonsNow');
  const { poll } = useServer();
  const refusal = useRefusalWords();
  const [lessons, setLessons] = useState(first);
  const [said, setSaid] = useState('');
  const read = useCallback(async (): Promise<void> => {
    const done = await poll('readLessonsNow', {});
    if (done?.ok) setLessons(done.value.lessons);
  }, [poll]);
  useNews((what) => {
    if (what === 'look' || what.what === 'visit' || what.what === 'lesson') void read();
  });
  useEffect(() => {
    const every = setInterval(() => void read(), LOOKS_MS);
    return () => clearInterval(every);
  }, [read]);
  const { send, problem, busy } = useSending<'recordAttempt'>(() => void read());
  const worked = async (lesson: LessonNow, eye: Eye): Promise<void> => {
    const { lessonId, visitId, version } = lesson;
    const move = lesson.next[eye];
    const done = await send('recordAttempt', { lessonId, visitId, version, eye, move, worked: true, unaided: true, miss: null });
    if (done) setSaid(t('done', { name: lesson.wearerName }));
  };
  return (
    <AppPage place="today" title={t('title')}>
      <section className="px-6 py-4">
        {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <p role="status" className="label">
          {said}
        </p>
        {lessons.length === 0 ? <p>{t('none')}</p> : null}
        <div className="lessons-now">
          {lessons.map((lesson, i) => (
            <Card key={lesson.lessonId} lesson={lesson} place={i + 1} busy={busy} onWorked={(eye) => void worked(lesson, eye)} />
          ))}
        </div>
      </section>
    </AppPage>
  );
}

function Card({
  lesson,
  place,
  busy,
  onWorked,
}: {
  readonly lesson: LessonNow;
  readonly place: number;
  readonly busy: boolean;
  readonly onWorked: (eye: Eye) => void;
}) {
  const t = useTranslations('lessonsNow');
  const eyes = useEyeWords();
  const router = useRouter();
  const open = (): void => router.push(`/visits/${lesson.visitId}/lesson`);
  useKey(String(place), open, [lesson.visitId]);
  return (
    <article className="border-2 border-ink p-4 flex flex-col gap-2" aria-label={lesson.wearerName} data-testid="lesson-now">
      <h2 className="power">{lesson.wearerName}</h2>
      <p className="label">
        {t('born', { day: formatDay(lesson.birthDate) })} · {t('by', { name: lesson.startedByName })}
      </p>
      {lesson.handler ? <p>{t('handler', { name: lesson.handler })}</p> : null}
      <p>
        <strong>{t('minutes', { used: lesson.minutes, most: lesson.most })}</strong> {lesson.running ? null : <span className="label">{t('rests')}</span>}
        {lesson.toGo === null || lesson.toGo === 0 ? null : <span className="label"> {t('togo', { minutes: lesson.toGo })}</span>}
      </p>
      {lesson.hourOver ? <Stated state="stop">{t('hour')}</Stated> : null}
      {lesson.open ? <Stated state="ok">{t('ready')}</Stated> : null}
      {lesson.missed ? <Stated state="watch">{t('missed', { why: t(`miss.${lesson.missed}`) })}</Stated> : null}
      <p>{t('topics', lesson.topics)}</p>
      {EYES.filter((eye) => lesson.eyes.includes(eye)).map((eye) => (
        <div key={eye} className="flex gap-3 items-center justify-between flex-wrap">
          <span>{t('count', { eye: eyes.short(eye), on: lesson.done[eye].on, off: lesson.done[eye].off })}</span>
          <Button disabled={busy || (lesson.hourOver && lesson.next[eye] === 'on')} onClick={() => onWorked(eye)}>
            {t(lesson.next[eye] === 'on' ? 'wentOn' : 'cameOff', { eye: eyes.short(eye) })}
          </Button>
        </div>
      ))}
      <Button look="act" keys={[String(place)]} onClick={open}>
        {t('open')}
      </Button>
    </article>
  );
}

export const LessonsNowPage = withWords({ lessonsNow: lessonsNowWords, problems: visitProblems }, LessonsNow);
