'use client';
import { useEffect, useRef } from 'react';
import { useTranslations } from 'use-intl';
import { USUAL_MINUTES, type FreeSlot, type VisitKind } from '@/core';
import { formatTime, formatWeekday } from '@/i18n/format';
import bookNextProblems from '@/i18n/messages/en/bookNextProblems.messages.json';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import bookNextWords from '@/i18n/messages/en/bookNext.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../VisitProvider';
import { useComing } from './useComing';
import { useFreeTimes } from './useFreeTimes';

/** Free times that are offered. */
const OFFERED = 3;

/** A free time as it is sent to be booked. */
export const placeOf = <Kind extends VisitKind>(free: FreeSlot, kind: Kind, zone: string) => ({
  kind,
  day: free.day,
  time: formatTime(free.startsAt, zone),
  chairMinutes: USUAL_MINUTES[kind].chair,
  staffMinutes: USUAL_MINUTES[kind].staff,
  roomId: free.roomId,
  staffId: free.staffId,
  despite: '',
});

export interface BookNextProps<Kind extends VisitKind> {
  readonly kind: Kind;
  /** The first day that is looked at; null: none is proposed. */
  readonly from: string | null;
  readonly unbooked: string;
  readonly onUnbooked: (text: string) => void;
  /** The press that ends what goes on: with a place, or without one. */
  readonly onEnd: (next: ReturnType<typeof placeOf<Kind>> | null) => void;
  /** What the presses say: with a free time, with what is booked already, without either. */
  /** In a panel of its own: the common press takes the focus as soon as it is known, so that it is Enter. */
  readonly focusFirst?: boolean;
  readonly say: { readonly free: (day: string, time: string) => string; readonly booked: (day: string) => string; readonly unbooked: string };
}

/** Focus for the common press once it stands there, unless somebody has begun to type. */
function useFirstPress(wanted: boolean, known: boolean) {
  const common = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const at = document.activeElement;
    const typing = at instanceof HTMLInputElement && at.value !== '';
    if (wanted && known && !typing) common.current?.querySelector('button')?.focus();
  }, [wanted, known]);
  return common;
}

/** The next visit, booked by the press that ends something: a free time, the one that is booked already, or why none is. */
function BookNextPart<Kind extends VisitKind>({ kind, from, unbooked, onUnbooked, onEnd, say, focusFirst = false }: BookNextProps<Kind>) {
  const t = useTranslations('bookNext');
  const words = useProblemWords();
  const { record, problem, busy } = useVisit();
  const zone = record.session.practice.timeZone;
  const free = useFreeTimes(kind, from, record.wearer.id);
  const coming = useComing(record.wearer.id);
  const common = useFirstPress(focusFirst, coming !== undefined && free !== null);
  const why = problemAt(problem, 'unbookedReason');
  const place = problemAt(problem, 'next', 'time') ?? problemAt(problem, 'time') ?? problemAt(problem, 'roomId') ?? problemAt(problem, 'staffId');
  return (
    <>
      {coming ? (
        <div ref={common} className="flex gap-3 items-center flex-wrap">
          <span>{t('booked', { day: formatWeekday(coming.startsAt, zone), time: formatTime(coming.startsAt, zone) })}</span>
          <Button look="act" disabled={busy} onClick={() => onEnd(null)}>
            {say.booked(formatWeekday(coming.startsAt, zone))}
          </Button>
        </div>
      ) : null}
      {place ? <ProblemLine>{words(place.code, place.data)}</ProblemLine> : null}
      {free === null ? <p className="note">{t('looking')}</p> : null}
      {free?.length === 0 ? <p>{t('noneFree')}</p> : null}
      <div ref={coming ? undefined : common} className="flex gap-3 flex-wrap">
        {(free ?? []).slice(0, OFFERED).map((slot, i) => (
          <Button key={slot.startsAt} look={i === 0 && !coming ? 'act' : 'plain'} disabled={busy} onClick={() => onEnd(placeOf(slot, kind, zone))}>
            {say.free(formatWeekday(slot.startsAt, zone), formatTime(slot.startsAt, zone))}
          </Button>
        ))}
      </div>
      <div className="flex gap-3 items-end flex-wrap">
        <Field
          className="w-[320px]"
          label={t('unbooked')}
          value={unbooked}
          onValue={onUnbooked}
          problem={why ? words(why.code, why.data) : null}
          autoComplete="off"
          maxLength={200}
        />
        <Button disabled={busy} onClick={() => onEnd(null)}>
          {say.unbooked}
        </Button>
      </div>
    </>
  );
}

export const BookNext = withWords({ bookNext: bookNextWords, problems: { ...diaryProblems, ...bookNextProblems } }, BookNextPart) as typeof BookNextPart;
