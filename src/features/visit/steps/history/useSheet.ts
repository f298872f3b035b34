import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AnswerValue, QuestionId } from '@/core';
import { healthOfRecord } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { asRecorded, noteKey, originOf, press, sheetOf, toRecord, typedOf, type SheetQuestion } from './model';

/** The questions, what is typed, and what it would mean: and recording it. */
function useTyped() {
  const t = useTranslations('history');
  const { record, health, eye, run } = useVisit();
  const draft = useDraft('history');
  const handedOver = record.handOvers.some((c) => c.current !== null);
  const sheet = useMemo(() => sheetOf(draft.body, health, record.wearer.age, handedOver), [draft.body, health, record.wearer.age, handedOver]);
  const live = useMemo(() => {
    const needs = { right: eye('right').verdict.choosing, left: eye('left').verdict.choosing };
    return healthOfRecord(record, needs, { answers: asRecorded(sheet.typed, record.visit.id) });
  }, [record, eye, sheet.typed]);
  const typedCount = Object.keys(sheet.typed).length + sheet.withdrawn.length;
  /** @returns false when it could not be recorded */
  const send = async (): Promise<boolean> => {
    if (typedCount === 0) return true;
    const done = await run('recordHistory', { answers: toRecord(sheet) }, t('done'));
    if (done?.ok !== true) return false;
    draft.clear();
    return true;
  };
  return { draft, sheet, live, typedCount, send };
}

/** The history's sheet: which question is being asked, answering it, and going on. */
export function useSheet() {
  const router = useRouter();
  const { record, health } = useVisit();
  const typing = useTyped();
  const { draft, sheet, send } = typing;
  const [here, setHere] = useState<QuestionId | null>(() => sheet.missing[0]?.id ?? null);
  const [noting, setNoting] = useState(false);
  const closed = record.visit.closedAt !== null;
  const index = sheet.questions.findIndex((q) => q.id === here);
  const current = sheet.questions[index] ?? null;
  const recordAll = async (goOn: boolean): Promise<void> => {
    const [first] = sheet.problems;
    if (first) setHere(first.question);
    else if ((await send()) && goOn) router.push(`/visits/${record.visit.id}/eye-health`);
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
  const next = (answered: QuestionId | null = here, skips: (q: SheetQuestion) => boolean = () => false): void => {
    const at = sheet.questions.findIndex((q) => q.id === answered);
    go(sheet.questions.slice(at + 1).find((q) => sheet.now[q.id] === undefined && !skips(q))?.id ?? null);
  };
  const put = (q: SheetQuestion, value: AnswerValue): void => draft.set(q.id, typedOf(q, value));
  const choose = (q: SheetQuestion, digit: number): void => {
    if (closed) return;
    const held = sheet.now[q.id]?.value ?? (originOf(q.id, sheet, health.before) === 'carried' ? health.before[q.id]?.value : undefined);
    const done = press(q, digit, held);
    if (!done) return;
    setHere(q.id);
    put(q, done.value);
    if (done.on) next(q.id, (o) => q.id === 'lastWorn' && done.value === 'never' && o.asked === 'wornBefore');
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
    if (!current) void recordAll(true);
    else if (originOf(current.id, sheet, health.before) === 'carried') sayAgain(current);
    else next();
  };
  return { ...typing, here, noting, setNoting, index, current, closed, recordAll, go, move, choose, enter };
}
export type SheetTyped = ReturnType<typeof useSheet>;
