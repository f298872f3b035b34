import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity, type Eye, type EarlierGrade } from '@/core';
import type { ServiceInput } from '../../../common/server';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { timeOf } from '../../shell/worn';
import {
  exceptKey,
  eyeToday,
  FITS_AS_IT_SHOULD,
  gradesToSend,
  historyToday,
  lookAtMark,
  nextEye,
  OF_EACH_EYE,
  readBack,
  type EyePress,
  type EyeToday,
} from './model';
import { usePresses } from '../../shell/usePresses';

/** One press: what, of which eye, and the line of the chart where one is read. */
interface Pressed {
  readonly id: string;
  readonly what: 'danger' | 'history' | EyePress;
  readonly eye: Eye;
  readonly logMar?: number;
}
export interface Next {
  readonly what: 'danger' | 'history' | 'hour' | EyePress;
  readonly eye: Eye | null;
}
type Answered = ServiceInput<'answerWorn'>['right'];
/** Distance of the trial lenses of a refractor in front of the eye, mm: the usual one. */
const VERTEX_MM = 12;

/** What each press records, as the page stands. @returns whether it was recorded */
function useRecording(eyes: Readonly<Record<Eye, EyeToday>>, hour: number | null) {
  const t = useTranslations('asLastTime');
  const { record, health, run } = useVisit();
  const draft = useDraft('asLastTime');
  const history = historyToday(health, record.wearer.age);
  const onEye = async (eye: Eye, reading: object): Promise<boolean> => {
    const { lensOnEyeId } = eyes[eye];
    if (lensOnEyeId === null) return false;
    const of = (e: Eye) => (e === eye ? { lensOnEyeId, vertexMm: VERTEX_MM, ...reading } : null);
    return (await run('recordOnEye', { right: of('right'), left: of('left') }, t('kept')))?.ok === true;
  };
  const act = async ({ what, eye, logMar = 0 }: Pressed): Promise<boolean> => {
    switch (what) {
      case 'danger':
        return (await run('recordHistory', { answers: [{ question: 'danger', value: ['none'], note: null }] }, t('kept')))?.ok === true;
      case 'history':
        return (await run('recordHistory', { answers: readBack(health, history.open) }, t('kept')))?.ok === true;
      case 'worn': {
        const lensId = eyes[eye].worn?.lensId;
        if (lensId === undefined || hour === null) return false;
        const of = (e: Eye): Answered => (e === eye ? { answer: 'yes', lensId } : null);
        return (await run('answerWorn', { right: of('right'), left: of('left'), since: { time: timeOf(hour) } }, t('kept')))?.ok === true;
      }
      case 'sees':
        return onEye(eye, { findings: [{ sign: 'acuityLens', value: logMar, typed: formatAcuity(logMar, record.session.settings.acuity) }] });
      case 'over':
        return onEye(eye, { overRefraction: 'plano', plusHalf: 'worse' });
      case 'fit':
        return onEye(eye, { fit: 'fits', findings: [...FITS_AS_IT_SHOULD], blinks: [...lookAtMark(eyes[eye])] });
      case 'cornea': {
        const { findings, asLastTime } = gradesToSend(eyes[eye], draft.body);
        const none = { right: [], left: [], rightAsLastTime: [], leftAsLastTime: [] };
        const form = { ...none, [eye]: findings, [`${eye}AsLastTime`]: asLastTime, lensOff: eyes[eye].lensOnEyeId === null ? [] : [eye] };
        return (await run('recordFindings', form, t('kept')))?.ok === true;
      }
    }
  };
  return { act, draft, history };
}

/** What is known of last time, and the presses that say that it is so today. */
export function useAsLastTime() {
  const { record, health, eye: stateOf, busy } = useVisit();
  const [hour, setHour] = useState<number | null>(null);
  const eyes = { right: eyeToday(record, stateOf('right'), health, 'right'), left: eyeToday(record, stateOf('left'), health, 'left') };
  const { act, draft, history } = useRecording(eyes, hour);
  const { press, isUnderWay } = usePresses(busy, act);
  const closed = record.visit.closedAt !== null;
  const danger = health.said.danger?.value;
  const idOf = (what: EyePress, eye: Eye): string => `${what} ${eye}`;
  const nextOf = (what: EyePress): Eye | null => nextEye(eyes, what, (eye) => isUnderWay(idOf(what, eye)));
  const ofEye = (what: EyePress, eye: Eye | null, logMar?: number): void => {
    if (closed || eye === null || eyes[eye].done[what]) return;
    press({ id: idOf(what, eye), what, eye, ...(logMar === undefined ? {} : { logMar }) });
  };
  const next = (): Next | null => {
    if (danger === undefined) return { what: 'danger', eye: null };
    if (history.open.length > 0) return { what: 'history', eye: null };
    const what = OF_EACH_EYE.find((w) => nextOf(w) !== null);
    return what === undefined ? null : { what: what === 'worn' && hour === null ? 'hour' : what, eye: nextOf(what) };
  };
  return {
    eyes,
    health,
    history,
    hour,
    setHour,
    closed,
    /** Danger signs that were reported at this visit; empty for none, null while nobody has asked. */
    danger: danger === undefined ? null : (danger as readonly string[]).filter((sign) => sign !== 'none'),
    nextOf,
    /** What comes next; null when all is looked at. */
    next: next(),
    ofEye,
    noDanger: (): void => (closed || danger !== undefined ? undefined : press({ id: 'danger', what: 'danger', eye: 'right' })),
    readBack: (): void => (closed || history.open.length === 0 ? undefined : press({ id: 'history', what: 'history', eye: 'right' })),
    except: draft.body,
    setExcept: (eye: Eye, sign: EarlierGrade['sign'], grade: string): void => draft.set(exceptKey(eye, sign), grade),
    draft,
    /** Everything that is looked at afresh has been. */
    complete: danger !== undefined && EYES.every((eye) => Object.values(eyes[eye].done).every(Boolean)),
  };
}
export type AsLastTime = ReturnType<typeof useAsLastTime>;
