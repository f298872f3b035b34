'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useKey } from '../../../common/keys';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { EYES, MOVES_NEEDED, SESSION_MINUTES, type Eye, type Move } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { EyeBadge, KeyCap, Stated, StateMark } from '@/ui/marks';
import { MinuteRing } from '@/ui/MinuteRing';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { Lock } from 'lucide-react';
import { useNow } from '../../../common/Clock';
import { Correctable } from '../../shell/Correct';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { HandOver, HAND_OVER_FORM } from './HandOver';
import { eyeInTurn, lessonView, lockList, type LessonView } from './model';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import handOverWords from '@/i18n/messages/en/handOver.messages.json';
import lessonWords from '@/i18n/messages/en/lesson.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';
import { secondsSince } from '../../../common/elapsed';

const MISSES = ['blinked', 'lashes', 'lidSlipped', 'folded', 'fell'] as const;

/** The lesson: care first, then on and off, counted; sign-off stays locked until everything is there. */
function LessonStepBody() {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, run, busy, eye } = useVisit();
  const view = lessonView(record);
  const [chosenEye, setChosenEye] = useState<Eye | null>(null);
  const closed = record.visit.closedAt !== null;
  const turn = view ? (chosenEye && view.lesson.eyes.includes(chosenEye) ? chosenEye : eyeInTurn(view)) : 'right';
  const running = view !== null && view.lesson.signOffId === null && !closed;
  const lensThere = EYES.some((e) => eye(e).onEye);
  const trialsWaiting = EYES.some(
    (e) => eye(e).onEye?.current.source === 'trial' && !record.handOvers.some((c) => c.current?.eye === e && c.current.visitId === record.visit.id),
  );

  const attempt = (worked: boolean, miss: (typeof MISSES)[number] | null = null, unaided = true): void => {
    if (!view || !running || busy) return;
    const move = view.next[turn];
    const text = worked ? t(move === 'on' ? 'loggedOn' : 'loggedOff', { eye: eyeWords.short(turn) }) : t('loggedMiss', { eye: eyeWords.short(turn) });
    void run('recordAttempt', { lessonId: view.lesson.id, eye: turn, move, worked, unaided, miss }, text);
  };
  useKey(
    '1,2,3,4,5',
    (_event, hotkey) => {
      const miss = MISSES[Number(hotkey.keys?.[0] ?? 0) - 1];
      if (miss) attempt(false, miss);
    },
    [view, turn, busy],
  );
  useKey('h', () => attempt(true, null, false), [view, turn, busy]);
  useKey('r', () => setChosenEye('right'));
  useKey('l', () => setChosenEye('left'));

  const start = (): void => void run('startLesson', {}, t('started'));
  const signOff = (): void => {
    if (view) void run('signOffLesson', { lessonId: view.lesson.id }, t('signedOffToast'));
  };
  const allMovesDone = view !== null && view.gate.missing.every((m) => m.kind === 'topic');
  const act = !view ? (
    <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed || !lensThere} onClick={start}>
      {t('start')}
    </Button>
  ) : view.lesson.signOffId ? (
    trialsWaiting ? (
      <>
        <Button onClick={() => router.push(`/visits/${record.visit.id}/supply`)}>{t('toSupply')}</Button>
        <Button look="act" keys={['⏎']} data-enter="true" type="submit" form={HAND_OVER_FORM} disabled={busy || closed}>
          {t('handOver')}
        </Button>
      </>
    ) : (
      <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/visits/${record.visit.id}/supply`)}>
        {t('toSupply')}
      </Button>
    )
  ) : view.gate.open ? (
    <Button look="act" keys={['⏎']} data-enter="true" disabled={busy} onClick={signOff}>
      {t('signOff')}
    </Button>
  ) : allMovesDone ? (
    <Button look="act" disabled>
      {t('topicsMissing')}
    </Button>
  ) : (
    <Button look="act" keys={['⏎']} data-enter="true" disabled={busy} onClick={() => attempt(true)}>
      {t(view.next[turn] === 'on' ? 'wentOn' : 'cameOff', { eye: eyeWords.short(turn) })}
    </Button>
  );

  return (
    <VisitFrame
      step="lesson"
      barKeys={
        running ? (
          <>
            <span>{t('missWhy')}</span>
            {MISSES.map((miss, index) => (
              <button key={miss} type="button" className="bar-key" disabled={busy} onClick={() => attempt(false, miss)}>
                <KeyCap>{String(index + 1)}</KeyCap> {t(`miss.${miss}`)}
              </button>
            ))}
            <button type="button" className="bar-key" disabled={busy} onClick={() => attempt(true, null, false)}>
              <KeyCap>{'H'}</KeyCap> {t('helped')}
            </button>
          </>
        ) : undefined
      }
      margin={<TeachMargin view={view} />}
      actions={act}
    >
      {!view ? (
        <div className="p-8 max-w-[640px]">
          <h2 className="power mb-3">{lensThere ? t('emptyTitle') : t('noLensTitle')}</h2>
          <p className="mb-3">{lensThere ? t('emptyText') : t('noLensText')}</p>
          <p className="label">{t('orderOfThings')}</p>
        </div>
      ) : (
        <div className="grid wide:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <section className="border-r border-rule">
            <Spine label={t('tries')} width="slim">
              <SpineHead words={eyeWords.heads} label={t('needed', { count: MOVES_NEEDED })} />
              {(['on', 'off'] as const).map((move) => (
                <SpineRow
                  key={move}
                  label={t(`move.${move}`)}
                  right={<Count view={view} eye="right" move={move} />}
                  left={<Count view={view} eye="left" move={move} />}
                />
              ))}
              {running ? (
                <SpineRow
                  chosen
                  label={t('now')}
                  right={<Turn view={view} eye="right" turn={turn} onChoose={setChosenEye} />}
                  left={<Turn view={view} eye="left" turn={turn} onChoose={setChosenEye} />}
                />
              ) : null}
              {[...view.attempts].reverse().map((a) => (
                <SpineRow
                  key={a.id}
                  label={<span className="label">{formatTime(a.observedAt, record.session.practice.timeZone)}</span>}
                  right={a.eye === 'right' ? <Try id={a.rootId} /> : null}
                  left={a.eye === 'left' ? <Try id={a.rootId} /> : null}
                />
              ))}
            </Spine>
          </section>
          <section className="p-6">
            <h2 className="border-b border-rule-2 pb-2 mb-1">{t('careTopics', { done: view.topics.length, all: view.mandatory.length })}</h2>
            <p className="label mb-2">{t('saidBack')}</p>
            <ul>
              {view.mandatory.map((topic) => (
                <Topic key={topic} topic={topic} view={view} running={running} />
              ))}
            </ul>
          </section>
        </div>
      )}
      {view?.lesson.signOffId || (!view && lensThere) ? <HandOver experienced={!view?.lesson.signOffId} /> : null}
    </VisitFrame>
  );
}

function Count({ view, eye, move }: { readonly view: LessonView; readonly eye: Eye; readonly move: Move }) {
  const t = useTranslations('lesson');
  if (!view.lesson.eyes.includes(eye)) return <span className="label">{t('notTaught')}</span>;
  const done = view.gate.done[eye][move];
  return (
    <span className={`flex items-center gap-2 ${eye === 'left' ? 'flex-row' : 'flex-row-reverse'}`} data-testid={`count-${eye}-${move}`} data-done={done}>
      {Array.from({ length: MOVES_NEEDED }, (_, i) => (
        <span key={i} className="check" data-done={i < done || undefined}>
          {i < done ? <StateMark state="ok" /> : null}
        </span>
      ))}
      <span className="label">{t('ofNeeded', { done, needed: MOVES_NEEDED })}</span>
    </span>
  );
}

function Turn({ view, eye, turn, onChoose }: { readonly view: LessonView; readonly eye: Eye; readonly turn: Eye; readonly onChoose: (eye: Eye) => void }) {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  if (!view.lesson.eyes.includes(eye)) return null;
  return turn === eye ? (
    <span className="value">{t(`move.${view.next[eye]}`)}</span>
  ) : (
    <button type="button" className="btn btn-quiet" onClick={() => onChoose(eye)}>
      {t('thisEye', { eye: eyeWords.short(eye) })} <KeyCap>{eyeWords.short(eye)}</KeyCap>
    </button>
  );
}

function Try({ id }: { readonly id: string }) {
  const t = useTranslations('lesson');
  const tOf = useWordsOf('lesson');
  const { record } = useVisit();
  const chain = record.attempts.find((c) => c.rootId === id);
  if (!chain?.current) return null;
  const a = chain.current;
  const word = a.worked
    ? a.unaided
      ? t(`move.${a.move}`)
      : t('withHelp', { move: t(`move.${a.move}`) })
    : t('missed', { move: t(`move.${a.move}`), why: tOf(`miss.${a.miss ?? 'fell'}`) });
  return (
    <span className="flex gap-3 items-center">
      <span className="stated">
        <StateMark state={a.worked ? 'ok' : 'miss'} /> {word}
      </span>
      <Correctable kind="lessonAttempt" chain={chain} show={() => word} />
    </span>
  );
}

function Topic({ topic, view, running }: { readonly topic: string; readonly view: LessonView; readonly running: boolean }) {
  const t = useTranslations('lesson');
  const tOf = useWordsOf('lesson');
  const { record, run, busy } = useVisit();
  const said = view.topics.find((x) => x.topic === topic);
  const chain = record.topics.find((c) => c.rootId === said?.rootId);
  const name = tOf(`topic.${topic}.name`);
  return (
    <li className="border-b border-rule py-2 flex gap-3 items-start">
      <button
        type="button"
        role="checkbox"
        aria-checked={said !== undefined}
        aria-label={name}
        className="check mt-0.5 touch"
        data-done={said ? true : undefined}
        disabled={!running || busy || said !== undefined}
        onClick={() => void run('recordTopic', { lessonId: view.lesson.id, topic }, t('topicLogged', { name }))}
      >
        {said ? <StateMark state="ok" /> : null}
      </button>
      <span className="flex-1">
        <span className="font-[620]">{name}</span>
        <span className="block label">{tOf(`topic.${topic}.say`)}</span>
      </span>
      {said && chain && running ? <Correctable kind="lessonTopic" chain={chain} show={() => name} /> : null}
    </li>
  );
}

function TeachMargin({ view }: { readonly view: LessonView | null }) {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const moment = useNow(5000);
  if (!view)
    return (
      <>
        <h2 className="mb-3">{t('beforeTitle')}</h2>
        <p>{t('beforeText')}</p>
      </>
    );
  const zone = record.session.practice.timeZone;
  if (view.lesson.signOffId) {
    return (
      <>
        <h2 className="mb-3">
          <Stated state="ok">{t('signedOff')}</Stated>
        </h2>
        <p>{t('signedOffBy', { name: view.lesson.signedByName ?? '', time: view.lesson.signedAt ? formatTime(view.lesson.signedAt, zone) : '' })}</p>
      </>
    );
  }
  const used = Math.max(0, Math.floor(secondsSince(view.lesson.startedAt, moment) / 60));
  const left = SESSION_MINUTES - used;
  const { moves, topics } = lockList(view.gate.missing);
  return (
    <>
      <div className="flex justify-center mb-3">
        <MinuteRing used={used} label={t('minutesLeft', { count: Math.max(0, left) })}>
          <span className="power-read">{Math.max(0, left)}</span>
          <span className="note">{t('minLeft')}</span>
        </MinuteRing>
      </div>
      {left <= 0 ? (
        <p className="mb-3">
          <Stated state="watch">{t('timeUp')}</Stated>
        </p>
      ) : null}
      <div data-testid="lock" className="border-t border-rule-2 pt-3">
        {view.gate.open ? (
          <Stated state="ok">{t('unlocked')}</Stated>
        ) : (
          <h2 className="flex gap-2 items-center">
            <Lock size={16} aria-hidden="true" /> {t('locked')}
          </h2>
        )}
        <p className="label mb-2">{view.gate.open ? null : t('lockedText')}</p>
        <ul>
          {moves.map((m, index) => (
            <li key={index} className="flex gap-2 items-center py-1">
              <EyeBadge eye={m.eye} />
              <span>
                {m.kind === 'moves' ? t('missingMoves', { move: t(`move.${m.move}`), count: m.more }) : t('missingToday', { move: t(`move.${m.move}`) })}
              </span>
            </li>
          ))}
          {topics > 0 ? (
            <li className="flex gap-2 items-center py-1">
              <span className="check" />
              <span>{t('missingTopics', { count: topics })}</span>
            </li>
          ) : null}
        </ul>
      </div>
    </>
  );
}

export const LessonStep = withWords(
  { correct: correctWords, draft: draftWords, handOver: handOverWords, lesson: lessonWords, powerField: powerFieldWords },
  LessonStepBody,
);
