'use client';
import { useTranslations } from 'use-intl';
import { parseDay } from '@/core';
import { formatDay } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import type { DiaryDay } from '@/services/appointment/queries';
import { Field, ProblemLine } from '@/ui/Field';
import { problemAt, useProblemWords } from '../common/words';
import { mayBeDespite, type TypedPlace } from './place';
import { Choice } from './Choice';

/** Day, time, room, person and minutes of an appointment; and, where it is refused for what may be overridden, why all the same. */
export function PlaceFields({
  typed,
  onTyped,
  day,
  problem,
}: {
  readonly typed: TypedPlace;
  readonly onTyped: (typed: TypedPlace) => void;
  readonly day: Pick<DiaryDay, 'rooms' | 'staff'>;
  readonly problem: Problem | null;
}) {
  const t = useTranslations('diary');
  const words = useProblemWords();
  const set = (key: keyof TypedPlace) => (value: string) => onTyped({ ...typed, [key]: value });
  const at = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const read = parseDay(typed.day);
  return (
    <>
      <div className="flex flex-wrap gap-x-3">
        <Field
          className="w-40"
          label={t('day')}
          value={typed.day}
          onValue={set('day')}
          problem={at('day')}
          hint={read.ok ? formatDay(read.value) : t('dayHint')}
          autoComplete="off"
        />
        <Field className="w-24" label={t('time')} value={typed.time} onValue={set('time')} problem={at('time')} autoComplete="off" mono />
        <Field
          className="w-36"
          label={t('chairMinutes')}
          value={typed.chairMinutes}
          onValue={set('chairMinutes')}
          problem={at('chairMinutes')}
          inputMode="numeric"
          mono
        />
        <Field
          className="w-36"
          label={t('staffMinutes')}
          value={typed.staffMinutes}
          onValue={set('staffMinutes')}
          problem={at('staffMinutes')}
          inputMode="numeric"
          mono
        />
      </div>
      <div className="flex flex-wrap gap-x-3">
        <Choice label={t('room')} none={t('noRoom')} of={day.rooms} value={typed.roomId} onValue={set('roomId')} problem={at('roomId')} />
        <Choice label={t('staff')} none={t('noStaff')} of={day.staff} value={typed.staffId} onValue={set('staffId')} problem={at('staffId')} />
      </div>
      {mayBeDespite(problem) || typed.despite !== '' ? (
        <Field label={t('despite')} value={typed.despite} onValue={set('despite')} problem={at('despite')} hint={t('despiteHint')} />
      ) : null}
      {problem?.kind === 'invalid' && problem.fields.some((f) => f.path[0] === 'wearerId') ? <ProblemLine>{at('wearerId')}</ProblemLine> : null}
    </>
  );
}
