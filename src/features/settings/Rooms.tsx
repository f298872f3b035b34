'use client';
import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { may, type PracticeHours } from '@/core';
import type { RoomRow } from '@/db/room';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import practiceProblems from '@/i18n/messages/en/practiceProblems.messages.json';
import roomsWords from '@/i18n/messages/en/rooms.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { ClosedDays } from './ClosedDays';
import { OpeningHours } from './OpeningHours';
import { PracticeDetails } from './PracticeDetails';
import { useRoomsCommand } from './useRoomsCommand';

/** The practice itself, its rooms, opening hours and the days on which the practice is closed. */
function RoomsPage({ practiceVersion, rooms, hours }: { readonly practiceVersion: number; readonly rooms: readonly RoomRow[]; readonly hours: PracticeHours }) {
  const t = useTranslations('rooms');
  const { session } = useServer();
  const mayChange = may(session.viewer.roles, 'settings');
  return (
    <AppPage place="settings" title={t('title')}>
      <p className="px-6 pt-3">
        <Link href="/settings" prefetch={false} className="underline">
          {t('back')}
        </Link>
      </p>
      <PracticeDetails key={practiceVersion} version={practiceVersion} mayChange={mayChange} />
      <section className="px-6 py-3 max-w-[760px]">
        <h2 className="settings-group">{t('rooms')}</h2>
        <p className="label">{t('roomsLine')}</p>
        {rooms.length === 0 ? <p className="py-2">{t('noRooms')}</p> : null}
        <ul>
          {rooms.map((room, i) => (
            <Room key={`${room.id} ${room.version}`} room={room} above={rooms[i - 1] ?? null} mayChange={mayChange} />
          ))}
        </ul>
        {mayChange ? <NewRoom /> : null}
      </section>
      <OpeningHours week={hours.week} mayChange={mayChange} />
      <ClosedDays days={hours.closedDays.filter((day) => day.closed)} mayChange={mayChange} />
    </AppPage>
  );
}

function NewRoom() {
  const t = useTranslations('rooms');
  const words = useProblemWords();
  const { send, problem, busy } = useRoomsCommand();
  const [name, setName] = useState('');
  const found = problemAt(problem, 'name');
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await send('addRoom', { name })) setName('');
  };
  return (
    <form className="flex gap-3 items-end pt-3" onSubmit={(event) => void submit(event)}>
      <Field className="w-64" label={t('add')} value={name} onValue={setName} problem={found ? words(found.code, found.data) : null} autoComplete="off" />
      <Button type="submit" className="mb-[20px]" disabled={busy || name.trim() === ''}>
        {t('addDo')}
      </Button>
    </form>
  );
}

/** @param above the room before it in the list, past which it may go up */
function Room({ room, above, mayChange }: { readonly room: RoomRow; readonly above: RoomRow | null; readonly mayChange: boolean }) {
  const t = useTranslations('rooms');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useRoomsCommand();
  const [name, setName] = useState(room.name);
  const found = problemAt(problem, 'name');
  const ended = room.endedAt !== null;
  const change = (to: Partial<{ name: string; sortOrder: number; ended: boolean }>) =>
    void send('changeRoom', { roomId: room.id, version: room.version, name: room.name, sortOrder: room.sortOrder, ended, ...to });
  if (!mayChange) return <li className="border-b border-rule py-2 value">{room.name}</li>;
  return (
    <li className="border-b border-rule pt-2" data-testid={`room-${room.name}`}>
      <form
        className="flex flex-wrap gap-3 items-start"
        onSubmit={(event) => {
          event.preventDefault();
          change({ name });
        }}
      >
        <Field
          className="w-64"
          hideLabel
          label={t('name')}
          value={name}
          onValue={setName}
          problem={found ? words(found.code, found.data) : null}
          autoComplete="off"
        />
        {name.trim() !== room.name && name.trim() !== '' ? (
          <Button type="submit" disabled={busy}>
            {t('rename')}
          </Button>
        ) : null}
        {ended ? <Stated state="watch">{t('ended')}</Stated> : null}
        <span className="ml-auto" />
        {above && !ended ? (
          <Button
            look="quiet"
            disabled={busy}
            aria-label={t('upOne', { name: room.name })}
            onClick={() => change({ sortOrder: Math.max(0, above.sortOrder - 1) })}
          >
            {t('up')}
          </Button>
        ) : null}
        <Button look="quiet" disabled={busy} onClick={() => change({ ended: !ended })}>
          {ended ? t('again') : t('end')}
        </Button>
      </form>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
    </li>
  );
}

export const Rooms = withWords({ rooms: roomsWords, problems: { ...diaryProblems, ...practiceProblems } }, RoomsPage);
