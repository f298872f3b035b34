import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import {
  aftercareOfVisit,
  aftercareSaid,
  type AftercareQuestionId,
  type AftercareSaid,
  type AftercareVisit,
  type Eye,
  type LensSignId,
  type QuestionId,
} from '@/core';
import { useDraft } from '../../shell/useDraft';
import { usePresses } from '../../shell/usePresses';
import { useVisit } from '../../shell/VisitProvider';
import { aftercareVisitOf, troublesAfter } from './model';

/** What is said so far, as the page stands when a press goes out. */
type Said = (question: AftercareQuestionId, eye?: Eye | null) => AftercareSaid | null;
interface Pressed {
  readonly id: string;
  readonly send: (said: Said) => Promise<boolean>;
}
type Kept = Promise<{ readonly ok: boolean } | null>;
const kept = async (done: Kept): Promise<boolean> => (await done)?.ok === true;
/** Distance of the trial lenses in front of the eye, mm: nothing here is read through one. */
const VERTEX_MM = 12;

/** What is seen of the lens on an eye: kept by one press each. */
function useSeeing(visit: AftercareVisit, press: (p: Pressed) => void) {
  const t = useTranslations('aftercare');
  const { record, run } = useVisit();
  return (eye: Eye, sign: LensSignId, value: number | string): void => {
    const lensOnEyeId = visit.eyes[eye].onEye?.rootId;
    if (record.visit.closedAt !== null || lensOnEyeId === undefined) return;
    const reading = { lensOnEyeId, vertexMm: VERTEX_MM, findings: [{ sign, value }] };
    const none = { right: null, left: null };
    press({ id: `${eye} ${sign} ${value}`, send: () => kept(run('recordOnEye', { ...none, [eye]: reading }, t('kept'))) });
  };
}

/** What is asked and seen at aftercare: each press is kept at once; and what all of it points to. */
export function useAftercare() {
  const t = useTranslations('aftercare');
  const { record, health, hasLibrary, eye: stateOf, lensOf, busy, run } = useVisit();
  const draft = useDraft('aftercare');
  const visit = useMemo(
    () => aftercareVisitOf(record, health, { right: stateOf('right'), left: stateOf('left') }, lensOf, hasLibrary),
    [record, health, stateOf, lensOf, hasLibrary],
  );
  const state = useMemo(() => aftercareOfVisit(visit), [visit]);
  const closed = record.visit.closedAt !== null;
  const said: Said = (question, eye = null) => aftercareSaid(record.health.aftercare, question, eye, record.visit.id);
  const { press } = usePresses<Pressed>(busy, (p) => p.send(said), 'goOn');
  const answer = (answers: readonly { readonly question: AftercareQuestionId; readonly eye: Eye | null; readonly said: readonly string[] }[]): Kept =>
    run('answerAftercare', { answers: answers.map((a) => ({ ...a, said: [...a.said] })) }, t('kept'));
  const say = (question: AftercareQuestionId, words: readonly string[], eye: Eye | null = null, done?: () => void): void =>
    press({
      id: `${question} ${eye ?? ''} ${words.join()}`,
      send: async () => {
        const ok = await kept(answer([{ question, eye, said: words }]));
        if (ok) done?.();
        return ok;
      },
    });
  return {
    draft,
    visit,
    state,
    closed,
    said,
    say,
    /** Each press is laid on what is said when it goes out: faster than the server answers, none is lost. */
    trouble: (eye: Eye, pressed: string): void =>
      press({
        id: `trouble ${eye} ${pressed}`,
        send: (sofar) => kept(answer([{ question: 'trouble', eye, said: troublesAfter(sofar('trouble', eye) ?? [], pressed) }])),
      }),
    allFine: (): void => {
      if (closed) return;
      const both = (['right', 'left'] as const).filter((eye) => state.worn[eye] !== null);
      if (both.length > 0) press({ id: 'allFine', send: () => kept(answer(both.map((eye) => ({ question: 'trouble', eye, said: ['none'] })))) });
    },
    /** What the history asks as well is kept there. */
    sayHistory: (question: QuestionId, value: string | number | readonly string[], done?: () => void): void =>
      press({
        id: `${question} ${String(value)}`,
        send: async () => {
          const whole = typeof value === 'string' || typeof value === 'number' ? value : [...value];
          const ok = await kept(run('recordHistory', { answers: [{ question, value: whole, note: null }] }, t('kept')));
          if (ok) done?.();
          return ok;
        },
      }),
    seeOnLens: useSeeing(visit, press),
  };
}
export type AftercarePage = ReturnType<typeof useAftercare>;
