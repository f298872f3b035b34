import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, instantOf, missesOf, type CareTopic, type Eye, type LessonWay, type Miss } from '@/core';
import { useNow } from '../../../common/Clock';
import { useEyeWords } from '../../../common/eyeWords';
import { useKey } from '../../../common/keys';
import { useVisit } from '../../shell/VisitProvider';
import { eyeInTurn, lessonView, owedHere, type LessonView } from './model';

/** The lesson of the visit: what it is, and what is pressed in it. */
export interface Lesson {
  readonly view: LessonView | null;
  readonly turn: Eye;
  readonly choose: (eye: Eye) => void;
  /** It goes on: neither signed off nor in a visit that was closed. */
  readonly running: boolean;
  readonly busy: boolean;
  readonly lensThere: boolean;
  /** Topics that a change asks for of somebody signed off before. */
  readonly owed: readonly CareTopic[];
  readonly start: (handler: string, topicsOnly: boolean) => void;
  readonly attempt: (worked: boolean, miss?: Miss | null, unaided?: boolean) => void;
  readonly say: (topic: CareTopic, name: string) => void;
  readonly sayAgain: (topics: readonly CareTopic[]) => void;
  readonly keepWay: (way: LessonWay) => void;
  readonly clock: (turn: 'run' | 'pause', note?: string) => void;
  /** Of a lesson of topics alone: nothing is booked for it. */
  readonly signOffTopics: () => void;
}

export function useLesson(): Lesson {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  const { record, run, busy, eye, health, hasLibrary } = useVisit();
  const now = useNow(5000);
  const [chosen, choose] = useState<Eye | null>(null);
  const products = hasLibrary ? record.careProducts : [];
  const view = lessonView(record, health.findings, products, instantOf(now));
  const turn = view ? (chosen && view.lesson.eyes.includes(chosen) ? chosen : eyeInTurn(view)) : 'right';
  const running = view !== null && view.lesson.signOffId === null && record.visit.closedAt === null;
  const lenses = EYES.flatMap((e) => record.lenses[eye(e).onEye?.current.lensId ?? ''] ?? []);
  const lessonId = view?.lesson.id ?? '';
  const attempt = (worked: boolean, miss: Miss | null = null, unaided = true): void => {
    if (!view || !running || busy || view.lesson.eyes.length === 0) return;
    const move = view.next[turn];
    const text = worked ? t(move === 'on' ? 'loggedOn' : 'loggedOff', { eye: eyeWords.short(turn) }) : t('loggedMiss', { eye: eyeWords.short(turn) });
    void run('recordAttempt', { lessonId, eye: turn, move, worked, unaided, miss }, text);
  };
  useKey(
    '1,2,3,4,5,6,7,8,9',
    (_event, hotkey) => {
      const miss = view ? missesOf(view.next[turn])[Number(hotkey.keys?.[0] ?? 0) - 1] : undefined;
      if (miss) attempt(false, miss);
    },
    [view, turn, busy],
  );
  useKey('h', () => attempt(true, null, false), [view, turn, busy]);
  useKey('r', () => choose('right'));
  useKey('l', () => choose('left'));
  const clock = (to: 'run' | 'pause', note = ''): void =>
    void run('turnLessonClock', { lessonId, turn: to, note }, t(to === 'run' ? 'clockStarted' : 'clockPaused'));
  useKey('p', () => (view && running ? clock(view.time.running ? 'pause' : 'run') : undefined), [view, running]);
  return {
    ...{ view, turn, choose, running, busy, attempt, clock },
    lensThere: EYES.some((e) => eye(e).onEye),
    owed:
      hasLibrary && lenses.length > 0
        ? owedHere(
            record,
            products,
            lenses.every((l) => l.modality === 'daily'),
          )
        : [],
    start: (handler, topicsOnly) => void run('startLesson', { handler, topicsOnly }, t('started')),
    say: (topic, name) => void run('recordTopic', { lessonId, topic }, t('topicLogged', { name })),
    sayAgain: (topics) => void run('recordTopicsAgain', { lessonId, topics: [...topics] }, t('againLogged')),
    keepWay: (way) =>
      void run(
        'setLessonWay',
        { lessonId, hand: way.hand, dexterity: way.dexterity, skinTone: way.skinTone, onTechnique: way.onTechnique, offTechnique: way.offTechnique },
        t('wayKept'),
      ),
    signOffTopics: () => void run('signOffLesson', { lessonId }, t('signedOffToast')),
  };
}
