'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay } from '@/core';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import { FreeTimes } from './FreeTimes';
import { PlaceFields } from './PlaceFields';
import { mayBeDespite, placeOf, placeOfFree, placeOfRow } from './place';
import type { Dropped, Row } from './strip';
import { useDiaryCommand } from './useDiaryCommand';
import type { Problem } from '@/lib/outcome';

/** An appointment gets another time, room or person: typed, or one of the next free times. */
export function MovePanel({
  row,
  day,
  to,
  refused,
  onDone,
  onClose,
}: {
  readonly row: Row;
  readonly day: DiaryDay;
  /** Where it was dragged, and why it could not be put there. */
  readonly to?: Dropped;
  readonly refused?: Problem;
  readonly onDone: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('diary');
  const { session } = useServer();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDiaryCommand(onDone);
  const zone = session.practice.timeZone;
  const now = placeOfRow(row, day.day, zone);
  const [typed, setTyped] = useState(to ? { ...now, time: formatMinuteOfDay(to.minute), roomId: to.roomId ?? '' } : now);
  const shown = problem ?? refused ?? null;
  const move = async (place: typeof typed): Promise<void> => {
    if (await send('moveAppointment', { appointmentId: row.appointmentId, version: row.version, ...placeOf(place) })) onClose();
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void move(typed);
  };
  return (
    <Panel open wide onClose={onClose} title={t('moveTitle', { name: row.name })}>
      <form onSubmit={submit} className="flex flex-col gap-2">
        <PlaceFields typed={typed} onTyped={setTyped} day={day} problem={shown} />
        <FreeTimes
          kind={row.kind}
          typed={typed}
          day={day}
          wearerId={row.wearerId}
          busy={busy}
          onTake={(free) => void move({ ...typed, ...placeOfFree(free, zone) })}
        />
        {shown && shown.kind !== 'invalid' ? <ProblemLine>{shown.kind === 'conflict' ? t('changed') : refusal(shown)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end">
          <Button onClick={onClose}>{t('close')}</Button>
          <Button look="act" type="submit" disabled={busy}>
            {mayBeDespite(shown) ? t('moveAnyway') : t('move')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}
