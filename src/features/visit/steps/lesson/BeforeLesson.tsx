'use client';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instructions } from './Instructions';
import type { Lesson } from './useLesson';

/** What comes before a lesson: who handles, and the topics that a change asks for. */
export function BeforeLesson({
  lesson,
  handler,
  onHandler,
}: {
  readonly lesson: Lesson;
  readonly handler: string;
  readonly onHandler: (name: string) => void;
}) {
  const t = useTranslations('lesson');
  const { lensThere, owed } = lesson;
  return (
    <div className="p-8 max-w-[640px]">
      <h2 className="power mb-3">{lensThere ? t('emptyTitle') : t('noLensTitle')}</h2>
      <p className="mb-3">{lensThere ? t('emptyText') : t('noLensText')}</p>
      <p className="label mb-3">{t('orderOfThings')}</p>
      {lensThere ? <Field label={t('handlerLabel')} value={handler} onValue={onHandler} hint={t('handlerHint')} maxLength={120} autoComplete="off" /> : null}
      <Instructions />
      {owed.length > 0 ? (
        <section data-testid="topics-owed">
          <h2>{t('topicsTitle')}</h2>
          <p className="mb-2">{t('topicsOnly', { topics: owed.map((topic) => t(`topic.${topic}.name`)).join(', ') })}</p>
          <Button disabled={lesson.busy} onClick={() => lesson.start('', true)}>
            {t('startTopics')}
          </Button>
        </section>
      ) : null}
    </div>
  );
}
