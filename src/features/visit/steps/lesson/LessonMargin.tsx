'use client';
import { Lock } from 'lucide-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { addSeconds, instantOf, may, MISSES_TO_CHANGE, SESSION_MINUTES } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { MinuteRing } from '@/ui/MinuteRing';
import { useNow } from '../../../common/Clock';
import { useVisit } from '../../shell/VisitProvider';
import { lockList, type LessonView } from './model';
import { Instructions } from './Instructions';
import type { Lesson } from './useLesson';

interface Of {
  readonly lesson: Lesson;
  readonly view: LessonView;
}

/** The hour, the coaching for the last miss, and what still locks the sign-off. */
export function LessonMargin({ lesson, onSignOff }: { readonly lesson: Lesson; readonly onSignOff: (overrideNote: string) => void }) {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const { view } = lesson;
  if (!view)
    return (
      <>
        <h2 className="mb-3">{t('beforeTitle')}</h2>
        <p>{t('beforeText')}</p>
      </>
    );
  const { signedAt, signedByName, overridden, overrideNote } = view.lesson;
  if (view.lesson.signOffId)
    return (
      <>
        <h2 className="mb-3">
          <Stated state="ok">{t('signedOff')}</Stated>
        </h2>
        <p>{t('signedOffBy', { name: signedByName ?? '', time: signedAt ? formatTime(signedAt, record.session.practice.timeZone) : '' })}</p>
        {overrideNote ? <p className="label">{t('overridden', { missing: (overridden ?? []).length, note: overrideNote })}</p> : null}
      </>
    );
  return (
    <>
      {view.lesson.eyes.length > 0 ? <Hour lesson={lesson} view={view} /> : null}
      <Coaching view={view} />
      <Instructions />
      <LockPart lesson={lesson} view={view} onSignOff={onSignOff} />
    </>
  );
}

function Hour({ lesson, view }: Of) {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const now = useNow(5000);
  const [note, setNote] = useState('');
  const { time, toGo } = view;
  const left = Math.max(0, SESSION_MINUTES - time.used);
  const wall = toGo === null ? '' : formatTime(addSeconds(instantOf(now), toGo * 60), record.session.practice.timeZone);
  return (
    <div className="mb-3">
      <div className="flex justify-center items-center gap-4">
        <MinuteRing used={time.used} label={t('minutesLeft', { count: left })}>
          <span className="power-read">{left}</span>
          <span className="note">{t('minLeft')}</span>
        </MinuteRing>
        {toGo !== null && toGo > 0 && !time.over ? (
          <p>
            <span className="value block">{wall}</span>
            <span className="note">{t('doneAt')}</span>
          </p>
        ) : null}
      </div>
      {lesson.running && !view.hourOver ? (
        <p className="flex justify-center gap-3 items-center pt-1">
          {time.running ? null : <span className="label">{t('clockRests')}</span>}
          <Button look="quiet" keys={['P']} disabled={lesson.busy} onClick={() => lesson.clock(time.running ? 'pause' : 'run')}>
            {t(time.running ? 'clockRest' : 'clockOn')}
          </Button>
        </p>
      ) : null}
      {view.hourOver ? (
        <div className="py-2">
          <Stated state="stop">{t('hourOver')}</Stated>
          {may(record.session.viewer.roles, 'sign') ? (
            <>
              <Field label={t('hourNote')} value={note} onValue={setNote} maxLength={400} autoComplete="off" />
              <Button disabled={lesson.busy || note.trim().length < 3} onClick={() => lesson.clock('run', note)}>
                {t('goOn')}
              </Button>
            </>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}

/** The last attempt failed: what to say to that very miss. */
function Coaching({ view }: { readonly view: LessonView }) {
  const t = useTranslations('lesson');
  const last = view.attempts.at(-1);
  if (!last || last.worked || last.miss === null || last.lessonId !== view.lesson.id) return null;
  const sameWay = view.attempts.filter((a) => a.technique !== null && a.technique === last.technique);
  const row = sameWay.length - 1 - sameWay.findLastIndex((a) => a.worked);
  return (
    <div className="border-t border-rule-2 py-3" data-testid="coaching">
      <h2>{t('coachTitle', { why: t(`miss.${last.miss}`) })}</h2>
      <p>{t(`coach.${last.miss}`)}</p>
      {row >= 2 ? <Stated state="watch">{t('coachRow', { count: row, limit: MISSES_TO_CHANGE })}</Stated> : null}
    </div>
  );
}

function LockPart({ lesson, view, onSignOff }: Of & { readonly onSignOff: (overrideNote: string) => void }) {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const [note, setNote] = useState('');
  const { moves, sights, topics, again, care } = lockList(view.gate.missing);
  const prescriber = may(record.session.viewer.roles, 'sign');
  const counted = [
    care ? t('missingCare') : null,
    topics > 0 ? t('missingTopics', { count: topics }) : null,
    again > 0 ? t('missingAgain', { count: again }) : null,
  ].filter((line) => line !== null);
  return (
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
        {sights.map((eye) => (
          <li key={eye} className="flex gap-2 items-center py-1">
            <EyeBadge eye={eye} /> {t('missingSight')}
          </li>
        ))}
        {counted.map((line) => (
          <li key={line} className="flex gap-2 items-center py-1">
            <span className="check" aria-hidden="true" /> {line}
          </li>
        ))}
      </ul>
      {view.gate.practise && !view.gate.open && record.session.settings.practiseAtHome === 'safeRemover' ? <Stated state="ok">{t('practise')}</Stated> : null}
      {!view.gate.open && prescriber && lesson.running ? (
        <details className="mt-3">
          <summary>{t('override')}</summary>
          <Field label={t('overrideNote')} value={note} onValue={setNote} maxLength={400} autoComplete="off" />
          <Button disabled={lesson.busy || note.trim().length < 3} onClick={() => onSignOff(note)}>
            {t('overrideDo')}
          </Button>
        </details>
      ) : null}
    </div>
  );
}
