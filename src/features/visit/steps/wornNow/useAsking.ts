import { useMemo, useState } from 'react';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { EYES, stepSlug, stepsOf, type Eye, type WornAnswer } from '@/core';
import type { ServiceInput } from '../../../common/server';
import { useVisit } from '../../shell/VisitProvider';
import { answersFor, askingOf, isBare, isTime, type Asking } from './model';

export type Said = NonNullable<ServiceInput<'answerWorn'>['right']>;
type Pending = Readonly<Partial<Record<Eye, Said>>>;
export const HOWS = ['wearerSaid', 'boxSeen'] as const;
export type How = (typeof HOWS)[number];

/** What is asked, typed and answered about the lenses worn. */
export interface AskingState extends Asking {
  readonly since: string;
  readonly setSince: (text: string) => void;
  /** An hour by one press; what waited for it is sent. */
  readonly pressHour: (time: string) => void;
  /** Sends what waited, now that the time is typed. */
  readonly letGo: () => void;
  readonly daysAgo: string;
  readonly setDaysAgo: (text: string) => void;
  readonly how: How;
  readonly setHow: (how: How) => void;
  /** Eyes whose answer waits until it is known since when. */
  readonly pending: Pending;
  /** An answer that asks for more is being given. */
  readonly opened: { readonly eye: Eye; readonly answer: 'oldPair' | 'boughtElsewhere' } | null;
  readonly open: (opened: AskingState['opened']) => void;
  /** One press: sent at once, or as soon as it is known since when. */
  readonly press: (eye: Eye, answer: WornAnswer) => void;
  readonly send: (eye: Eye, said: Said) => Promise<boolean>;
  readonly answers: (eye: Eye) => readonly WornAnswer[];
  readonly toNext: () => void;
  readonly closed: boolean;
}

export function useAsking(): AskingState {
  const t = useTranslations('wornNow');
  const router = useRouter();
  const { record, run } = useVisit();
  const asking = useMemo(() => askingOf(record), [record]);
  const [since, setSince] = useState('');
  const [daysAgo, setDaysAgo] = useState('');
  const [how, setHow] = useState<How>('wearerSaid');
  const [pending, setPending] = useState<Pending>({});
  const [opened, open] = useState<AskingState['opened']>(null);

  const keep = async (all: Pending, time: string): Promise<boolean> => {
    const days = daysAgo.trim() === '' ? 0 : Number(daysAgo);
    const lenses = Object.values(all).some((said) => !isBare(said.answer));
    const done = await run('answerWorn', { right: all.right ?? null, left: all.left ?? null, since: lenses ? { time, daysAgo: days } : null, how }, t('done'));
    if (done?.ok) setPending({});
    return done?.ok ?? false;
  };
  const send = async (eye: Eye, said: Said): Promise<boolean> => {
    if (isBare(said.answer)) return keep({ [eye]: said }, since);
    const all = { ...pending, [eye]: said };
    if (isTime(since)) return keep(all, since);
    setPending(all);
    document.getElementById('worn-since')?.focus();
    return true;
  };
  const press = (eye: Eye, answer: WornAnswer): void => {
    const other: Eye = eye === 'right' ? 'left' : 'right';
    const worn = asking.eyes[answer === 'mixed' ? other : eye].worn?.lensId ?? '';
    if (answer === 'oldPair' || answer === 'boughtElsewhere') open({ eye, answer });
    else if (answer === 'yes' || answer === 'mixed') void send(eye, { answer, lensId: worn });
    else if (answer === 'someoneElses') void send(eye, { answer, description: t('someoneName') });
    else void send(eye, { answer });
  };
  const letGo = (time: string): void => {
    if (isTime(time) && EYES.some((eye) => pending[eye])) void keep(pending, time);
  };
  const pressHour = (time: string): void => {
    setSince(time);
    letGo(time);
  };
  const steps = stepsOf(record.visit.kind);
  const next = steps[steps.indexOf('wornNow') + 1] ?? 'history';
  return {
    ...asking,
    since,
    setSince,
    pressHour,
    letGo: () => letGo(since),
    daysAgo,
    setDaysAgo,
    how,
    setHow,
    pending,
    opened,
    open,
    press,
    send,
    answers: (eye) => answersFor(asking, eye),
    toNext: () => router.push(`/visits/${record.visit.id}/${stepSlug(next)}`),
    closed: record.visit.closedAt !== null,
  };
}
