import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, stepSlug, stepsOf, type Eye, type WornAnswer } from '@/core';
import { useVisit } from '../../shell/VisitProvider';
import { answersFor, askingOf, type Asking } from './model';
import { useAnswers } from './useAnswers';

/** An answer that asks for more. */
export interface Opened {
  readonly eye: Eye;
  readonly answer: 'oldPair' | 'boughtElsewhere';
}

/** What is asked, typed and answered about the lenses worn. */
export interface AskingState extends Asking, ReturnType<typeof useAnswers> {
  /** The eye to be asked next; null when both have answered. */
  readonly next: Eye | null;
  readonly opened: Opened | null;
  readonly open: (opened: Opened | null) => void;
  /** One press: sent at once, or as soon as it is known since when. */
  readonly press: (eye: Eye, answer: WornAnswer) => void;
  readonly answersOf: (eye: Eye) => readonly WornAnswer[];
  readonly toNext: () => void;
  readonly closed: boolean;
}

export function useAsking(): AskingState {
  const t = useTranslations('wornNow');
  const router = useRouter();
  const { record } = useVisit();
  const asking = useMemo(() => askingOf(record), [record]);
  const answers = useAnswers();
  const [opened, open] = useState<Opened | null>(null);
  const press = (eye: Eye, answer: WornAnswer): void => {
    const other: Eye = eye === 'right' ? 'left' : 'right';
    const lensId = asking.eyes[answer === 'mixed' ? other : eye].worn?.lensId ?? '';
    if (answer === 'oldPair' || answer === 'boughtElsewhere') open({ eye, answer });
    else if (answer === 'yes' || answer === 'mixed') void answers.send(eye, { answer, lensId });
    else if (answer === 'someoneElses') void answers.send(eye, { answer, description: t('someoneName') });
    else void answers.send(eye, { answer });
  };
  const steps = stepsOf(record.visit.kind);
  const next = steps[steps.indexOf('wornNow') + 1] ?? 'history';
  return {
    ...asking,
    ...answers,
    next: EYES.find((eye) => asking.eyes[eye].said === null && answers.pending[eye] === undefined) ?? null,
    opened,
    open,
    press,
    answersOf: (eye) => answersFor(asking, eye),
    toNext: () => router.push(`/visits/${record.visit.id}/${stepSlug(next)}`),
    closed: record.visit.closedAt !== null,
  };
}
