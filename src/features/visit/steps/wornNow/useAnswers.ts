import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye, type WornHow } from '@/core';
import type { ServiceInput } from '../../../common/server';
import { useVisit } from '../../shell/VisitProvider';
import { isBare, isTime } from './model';

export type Said = NonNullable<ServiceInput<'answerWorn'>['right']>;
export type Pending = Readonly<Partial<Record<Eye, Said>>>;

/** What was pressed of each eye, until it is kept: an answer waits for the one before it, and for the time since when. */
export function useAnswers() {
  const t = useTranslations('wornNow');
  const { run } = useVisit();
  const [since, setSince] = useState('');
  const [daysAgo, setDaysAgo] = useState('');
  const [how, setHow] = useState<WornHow>('wearerSaid');
  const [pending, show] = useState<Pending>({});
  const waiting = useRef<Pending>({});
  const sending = useRef(false);
  const wait = (next: Pending): void => {
    waiting.current = next;
    show(next);
  };
  /** Sends what can be sent: what needs no time, and all of it once there is one. @returns whether nothing was refused */
  const letGo = async (time: string): Promise<boolean> => {
    if (sending.current) return true;
    const ready = EYES.filter((eye) => waiting.current[eye] && (isTime(time) || isBare(waiting.current[eye].answer)));
    if (ready.length === 0) return true;
    const of = (eye: Eye): Said | null => (ready.includes(eye) ? (waiting.current[eye] ?? null) : null);
    const sent = { right: of('right'), left: of('left') };
    const wornNow = Object.values(sent).some((said) => said !== null && !isBare(said.answer));
    sending.current = true;
    const done = await run('answerWorn', { ...sent, since: wornNow ? { time, daysAgo: daysAgo.trim() === '' ? 0 : Number(daysAgo) } : null, how }, t('done'));
    sending.current = false;
    if (done === null) return false;
    // What was refused may be pressed again; what was pressed meanwhile goes next.
    wait(Object.fromEntries(EYES.flatMap((eye) => (waiting.current[eye] && waiting.current[eye] !== sent[eye] ? [[eye, waiting.current[eye]]] : []))));
    return done.ok ? letGo(time) : false;
  };
  const send = (eye: Eye, said: Said): Promise<boolean> => {
    wait({ ...waiting.current, [eye]: said });
    if (!isTime(since) && !isBare(said.answer)) document.getElementById('worn-since')?.focus();
    return letGo(since);
  };
  const pressHour = (time: string): void => {
    setSince(time);
    void letGo(time);
  };
  return { since, setSince, pressHour, letGo: () => void letGo(since), daysAgo, setDaysAgo, how, setHow, pending, send };
}
