'use client';
import { useTranslations } from 'use-intl';
import { missesOf } from '@/core';
import { KeyCap } from '@/ui/marks';
import type { LessonView } from './model';
import type { Lesson } from './useLesson';

/** Why an attempt failed, one key each; and that it worked with help. */
export function Misses({ lesson, view }: { readonly lesson: Lesson; readonly view: LessonView }) {
  const t = useTranslations('lesson');
  return (
    <div className="px-5 py-2 border-b border-rule flex flex-wrap gap-x-1 gap-y-1 items-center" role="group" aria-label={t('missWhy')}>
      <span className="label pr-2">{t('missWhy')}</span>
      {missesOf(view.next[lesson.turn]).map((miss, index) => (
        <button key={miss} type="button" className="bar-key" disabled={lesson.busy} onClick={() => lesson.attempt(false, miss)}>
          <KeyCap>{String(index + 1)}</KeyCap> {t(`miss.${miss}`)}
        </button>
      ))}
      <button type="button" className="bar-key" disabled={lesson.busy} onClick={() => lesson.attempt(true, null, false)}>
        <KeyCap>{'H'}</KeyCap> {t('helped')}
      </button>
    </div>
  );
}
