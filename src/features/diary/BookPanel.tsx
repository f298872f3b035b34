'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { VISIT_KINDS, type VisitKind } from '@/core';
import { formatDay } from '@/i18n/format';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import { FindWearer, type Found } from '../common/FindWearer';
import { FreeTimes } from './FreeTimes';
import { PlaceFields } from './PlaceFields';
import { emptyPlace, mayBeDespite, minutesOf, placeOf, placeOfFree, type TypedPlace } from './place';
import { useDiaryCommand } from './useDiaryCommand';

/** A new appointment: whose, what for, and one of the next free times or another. */
export function BookPanel({
  day,
  wearer: first,
  kind: firstKind,
  onDone,
  onClose,
}: {
  readonly day: DiaryDay;
  readonly wearer: Found | null;
  readonly kind: VisitKind;
  readonly onDone: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('diary');
  const kinds = useTranslations('today.kind');
  const { session } = useServer();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDiaryCommand(onDone);
  const [wearer, setWearer] = useState(first);
  const [kind, setKind] = useState(firstKind);
  const [typed, setTyped] = useState<TypedPlace>(() => emptyPlace(firstKind, day.day < session.today ? session.today : day.day));
  const [note, setNote] = useState('');
  const book = async (place: TypedPlace): Promise<void> => {
    if (!wearer) return;
    if (await send('bookAppointment', { wearerId: wearer.id, kind, note, ...placeOf(place) })) onClose();
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void book(typed);
  };
  return (
    <Panel open wide onClose={onClose} title={t('bookTitle')}>
      <form onSubmit={submit} className="flex flex-col gap-2">
        {wearer ? (
          <p>
            <span className="value">{wearer.name}</span> <span className="label">{t('born', { day: formatDay(wearer.birthDate) })}</span>{' '}
            <Button look="quiet" onClick={() => setWearer(null)}>
              {t('somebodyElse')}
            </Button>
          </p>
        ) : (
          <FindWearer onFound={setWearer} />
        )}
        <Segment
          label={t('kind')}
          kind="wrapping"
          values={VISIT_KINDS}
          value={kind}
          word={(k) => kinds(k)}
          onChoose={(k) => {
            setKind(k);
            setTyped({ ...typed, ...minutesOf(k) });
          }}
        />
        <FreeTimes
          kind={kind}
          typed={typed}
          day={day}
          wearerId={wearer?.id ?? null}
          busy={busy || !wearer}
          onTake={(free) => void book({ ...typed, ...placeOfFree(free, session.practice.timeZone) })}
        />
        <PlaceFields typed={typed} onTyped={setTyped} day={day} problem={problem} />
        <Field label={t('note')} value={note} onValue={setNote} autoComplete="off" maxLength={200} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end items-center">
          {wearer ? null : <span className="label">{t('whoFirst')}</span>}
          <Button onClick={onClose}>{t('close')}</Button>
          <Button look="act" type="submit" disabled={busy || !wearer}>
            {mayBeDespite(problem) ? t('bookAnyway') : t('bookDo')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}
