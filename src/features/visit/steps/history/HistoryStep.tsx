'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useKey } from '../../../common/keys';
import { useTranslations } from 'use-intl';
import { RULE_VERSION, type AnswerValue, type QuestionId } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { KeyCap, StateMark } from '@/ui/marks';
import { DraftLine } from '../../shell/DraftLine';
import { healthOfRecord } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { asRecorded, digitOf, noteKey, originOf, press, sheetOf, typedOf, WITHDRAW, type SheetQuestion } from './model';
import { QuestionRow } from './QuestionRow';
import { SetsOff } from './SetsOff';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';

/** The history as a quick sheet: last visit's answer, the question, today's answer. */
function HistoryStepBody() {
  const t = useTranslations('history');
  const router = useRouter();
  const { record, health, eye, run, busy, problem } = useVisit();
  const draft = useDraft('history');
  const handedOver = record.handOvers.some((c) => c.current !== null);
  const sheet = useMemo(() => sheetOf(draft.body, health, record.wearer.age, handedOver), [draft.body, health, record.wearer.age, handedOver]);
  const [here, setHere] = useState<QuestionId | null>(() => sheet.missing[0]?.id ?? null);
  const [noting, setNoting] = useState(false);
  const closed = record.visit.closedAt !== null;
  const index = sheet.questions.findIndex((q) => q.id === here);
  const current = sheet.questions[index] ?? null;
  const live = useMemo(() => {
    const needs = { right: eye('right').verdict.choosing, left: eye('left').verdict.choosing };
    return healthOfRecord(record, needs, { answers: asRecorded(sheet.typed, record.visit.id) });
  }, [record, eye, sheet.typed]);
  const typedCount = Object.keys(sheet.typed).length + sheet.withdrawn.length;
  const lastHeard = record.health.answers.findLast((a) => a.visitId !== record.visit.id);

  const recordAll = async (goOn: boolean): Promise<void> => {
    const [first] = sheet.problems;
    if (first) {
      setHere(first.question);
      return;
    }
    if (typedCount > 0) {
      const typed = Object.entries(sheet.typed).map(([question, a]) => ({
        question: question as QuestionId,
        value: typeof a.value === 'object' ? [...a.value] : a.value,
        note: a.note,
      }));
      const answers = [...typed, ...sheet.withdrawn.map((question) => ({ question, value: null, note: null }))];
      const done = await run('recordHistory', { answers }, t('done'));
      if (!done?.ok) return;
      draft.clear();
    }
    if (goOn) router.push(`/visits/${record.visit.id}/eye-health`);
  };

  const go = (id: QuestionId | null): void => {
    // A danger sign heard does not wait for the rest of the sheet: it is recorded when its row is left.
    const danger = sheet.typed.danger?.value;
    if (here === 'danger' && id !== 'danger' && Array.isArray(danger) && !danger.includes('none') && sheet.problems.length === 0) void recordAll(false);
    setNoting(false);
    setHere(id);
  };
  const move = (by: number): void => go(sheet.questions[Math.max(0, Math.min(sheet.questions.length - 1, index + by))]?.id ?? here);
  /** On to the next question without an answer of today, or to the end. */
  const next = (answered: QuestionId | null = here): void => {
    const at = sheet.questions.findIndex((q) => q.id === answered);
    const after = sheet.questions.slice(at + 1).find((q) => sheet.now[q.id] === undefined);
    go(after?.id ?? null);
  };
  const put = (q: SheetQuestion, value: AnswerValue): void => draft.set(q.id, typedOf(q, value));
  const choose = (q: SheetQuestion, digit: number): void => {
    if (closed) return;
    const held = sheet.now[q.id]?.value ?? (originOf(q.id, sheet, health.before) === 'carried' ? health.before[q.id]?.value : undefined);
    const done = press(q, digit, held);
    if (!done) return;
    setHere(q.id);
    put(q, done.value);
    if (done.on) {
      const at = sheet.questions.findIndex((o) => o.id === q.id);
      const after = sheet.questions
        .slice(at + 1)
        .find((o) => sheet.now[o.id] === undefined && !(q.id === 'lastWorn' && done.value === 'never' && o.asked === 'wornBefore'));
      go(after?.id ?? null);
    }
  };
  /** Carried over and said again today. */
  const sayAgain = (q: SheetQuestion): void => {
    const before = health.before[q.id];
    if (before && sheet.now[q.id] === undefined) {
      put(q, before.value);
      if (before.note) draft.set(noteKey(q.id), before.note);
    }
    next(q.id);
  };
  const enter = (): void => {
    if (!current) {
      void recordAll(true);
      return;
    }
    if (originOf(current.id, sheet, health.before) === 'carried') sayAgain(current);
    else next();
  };

  useKey(
    '0,1,2,3,4,5,6,7,8,9',
    (event) => {
      if (!current?.options) return;
      // The next row may open a field: the digit that chose here must not be typed there.
      event.preventDefault();
      choose(current, Number(event.key));
    },
    [current, sheet, closed],
  );
  useHotkeys('down', (event) => (event.preventDefault(), move(1)), [index, sheet]);
  useHotkeys('up', (event) => (event.preventDefault(), move(-1)), [index, sheet]);
  useHotkeys('alt+c', (event) => (event.preventDefault(), setNoting(true)), { enableOnFormTags: true }, []);
  useHotkeys('ctrl+enter', (event) => (event.preventDefault(), void recordAll(true)), { enableOnFormTags: true }, [sheet, busy]);
  useEffect(() => {
    if (here) document.getElementById(`q-${here}`)?.scrollIntoView({ block: 'nearest' });
  }, [here]);

  const serverProblem = (id: QuestionId) => (problem?.kind === 'invalid' ? problem.fields.find((f) => f.path[0] === 'answers' && f.path[1] === id) : undefined);
  const answered = sheet.questions.length - sheet.missing.length;
  return (
    <VisitFrame
      step="history"
      keys={
        <>
          <span>
            <KeyCap>{'↑'}</KeyCap> <KeyCap>{'↓'}</KeyCap> {t('keyQuestion')}
          </span>
          <span>
            <KeyCap>{'0–9'}</KeyCap> {t('keyAnswer')}
          </span>
          <span>
            <KeyCap>{'Alt C'}</KeyCap> {t('keyNote')}
          </span>
        </>
      }
      margin={<SetsOff health={live} />}
      actions={
        <>
          {typedCount > 0 && sheet.missing.length > 0 ? (
            <Button keys={['Ctrl', '⏎']} disabled={busy || closed} onClick={() => void recordAll(true)}>
              {t('record')}
            </Button>
          ) : null}
          <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed} onClick={enter}>
            {current && sheet.missing.length > 0 ? t('toGo', { count: sheet.missing.length }) : typedCount > 0 ? t('record') : t('toEyes')}
          </Button>
        </>
      }
    >
      <div className="sheet" role="group" aria-label={t('title')} data-answered={answered}>
        <div className="sheet-row sheet-head">
          <div className="sheet-then">
            {lastHeard ? t('lastBy', { day: formatDay(lastHeard.recordedAt.slice(0, 10)), name: lastHeard.recordedByName }) : t('noLast')}
          </div>
          <div className="sheet-question">{t('then')}</div>
          <div className="sheet-now flex gap-5">
            <span className="mr-auto">{t('today')}</span>
            <span className="stated">
              <StateMark state="ok" size={12} /> {t('saidToday')}
            </span>
            <span className="stated">
              <span className="carried-mark" aria-hidden="true" /> {t('carried')}
            </span>
          </div>
        </div>
        {sheet.questions.map((q, i) => (
          <QuestionRow
            key={q.id}
            q={q}
            number={i + 1}
            opensGroup={sheet.questions[i - 1]?.group !== q.group}
            current={q.id === here}
            origin={originOf(q.id, sheet, health.before)}
            now={sheet.now[q.id]}
            before={health.before[q.id]}
            text={draft.body[q.id] ?? (sheet.now[q.id] ? typedOf(q, sheet.now[q.id]?.value ?? '') : '')}
            note={draft.body[noteKey(q.id)] ?? sheet.now[q.id]?.note ?? ''}
            noting={noting && q.id === here}
            problem={sheet.problems.find((p) => p.question === q.id) ?? serverProblem(q.id) ?? null}
            closed={closed}
            onHere={() => go(q.id)}
            onOption={(option) => choose(q, digitOf(q, option))}
            onText={(text) => draft.set(q.id, text)}
            onNote={(text) => draft.set(noteKey(q.id), text)}
            onEnter={enter}
            onWithdraw={() => draft.set(WITHDRAW, 'yes')}
          />
        ))}
      </div>
      <p className="note px-6 py-3">{t('rule', { version: RULE_VERSION })}</p>
      <DraftLine draft={draft} />
    </VisitFrame>
  );
}

export const HistoryStep = withWords({ stops: stopsWords, draft: draftWords, kind: kindWords, signs: signsWords }, HistoryStepBody);
