import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, FIT_WORDS, LIMITS, parseAcuity, linesLostTogether, sightDoubts, sightOfBoth, withinLimit, type Eye, type LensSignId } from '@/core';
import { useNow } from '../../../common/Clock';
import { powerReady } from '../../../common/PowerField';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useInstrument } from './instrument';
import {
  controlOf,
  findingKey,
  hasReading,
  liveEye,
  pendingBlink,
  plusHalfOf,
  readBlinks,
  readOn,
  testedOf,
  turnText,
  typedFindings,
  writeBlinks,
  type Blink,
  type LiveEye,
} from './model';
import { livePatterns } from './patterns';
import { problemOf } from './TurnControls';
import { secondsSince } from '../../../common/elapsed';

/** What is being read on both eyes, and the commands that log and record it. */
export function useReadings() {
  const t = useTranslations('onEye');
  const { record, eye, run, lensOf } = useVisit();
  const draft = useDraft('onEye');
  const { instrument, choose } = useInstrument(record.instruments);
  const moment = useNow(5000);
  const [asked, setAsked] = useState(false);
  const { settings } = record.session;
  const closed = record.visit.closedAt !== null;
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const early = (e: Eye): boolean => {
    const row = eye(e).onEye?.current;
    const minutes = row?.lensId ? (record.lenses[row.lensId]?.settleMinutes ?? 15) : 15;
    return row !== undefined && secondsSince(row.putOnAt, moment) < minutes * 60;
  };
  const liveOf = (e: Eye): LiveEye =>
    liveEye({
      record,
      state: eye(e),
      eye: e,
      body: draft.body,
      vertexMm: vertexFine ? vertexMm : settings.vertexMm,
      instrument,
      lensOf,
      early: early(e),
    });
  const live = { right: liveOf('right'), left: liveOf('left') };
  const patterns = livePatterns(record, live, lensOf);
  const doubts = {
    right: sightDoubts(live.right.acuities, live.right.over?.power ?? null),
    left: sightDoubts(live.left.acuities, live.left.over?.power ?? null),
  };
  const usable = (e: Eye): boolean => live[e].state.onEye !== null && live[e].state.takenOffAt === null && live[e].state.choice === null && !closed;
  const hasMark = (e: Eye): boolean => usable(e) && live[e].lens !== null && live[e].lens.markLayout !== 'none';
  const typed = EYES.filter((e) => hasReading(draft.body, e));
  const bothText = draft.body.bothVa ?? '';
  /** Both lenses can be read through: otherwise nothing seen together is recorded. */
  const bothOn = EYES.every(usable);
  const bothTyped = parseAcuity(bothText, settings.acuity);
  const together = sightOfBoth(record.facts.acuitiesBoth, {
    right: live.right.state.onEye?.rootId ?? null,
    left: live.left.state.onEye?.rootId ?? null,
  });
  const bothAcuity = bothTyped.ok ? bothTyped.value : (together?.current.acuityLogMar ?? null);
  const lostTogether = linesLostTogether(bothAcuity, { right: live.right.acuities, left: live.left.acuities });
  const waiting = typed.length > 0 || bothText.trim() !== '';
  const on = (e: Eye) => readOn(instrument, live[e].lens);

  const setTurn = (e: Eye, value: number, how: 'drag' | 'keys'): void => {
    draft.set(`${e}Turn`, turnText(value));
    if (draft.now(`${e}How`) !== how) draft.set(`${e}How`, how);
  };
  const typeTurn = (e: Eye, text: string): void => {
    draft.set(`${e}Turn`, text);
    draft.set(`${e}How`, 'typed');
  };
  /** Keeps the blink in hand as one of the series; with none in hand, the mark sat as shown. */
  const logBlink = (e: Eye): boolean => {
    if (!hasMark(e)) return false;
    const text = draft.now(`${e}Turn`);
    const pending = pendingBlink({ [`${e}Turn`]: text, [`${e}How`]: draft.now(`${e}How`) }, e, instrument, on(e));
    if (text.trim() !== '' && pending === null) {
      setAsked(true);
      return false;
    }
    const logged = readBlinks(draft.now(`${e}Blinks`));
    const shown = logged.at(-1)?.rotationLeft ?? live[e].state.series.at(-1)?.current.rotationLeftDeg ?? 0;
    const blink: Blink = pending ?? { rotationLeft: shown, how: 'pedal', scaleReading: null, instrumentId: null };
    draft.set(`${e}Blinks`, writeBlinks([...logged, blink]));
    draft.set(`${e}Turn`, '');
    return true;
  };
  const dropBlink = (e: Eye): void => draft.set(`${e}Blinks`, writeBlinks(live[e].logged.slice(0, -1)));
  const readAnew = (e: Eye): void => draft.set(`${e}Fresh`, 'yes');
  const setFinding = (e: Eye, sign: LensSignId, text: string): void => draft.set(findingKey(e, sign), text);
  const findingText = (e: Eye, sign: LensSignId): string => draft.body[findingKey(e, sign)] ?? '';
  const overAcuity = (e: Eye) => parseAcuity(draft.body[`${e}OverVa`] ?? '', settings.acuity);

  /** The first field that cannot be recorded as it stands; null when all can. */
  const faulty = (): string | null => {
    for (const e of typed) {
      if (problemOf(draft.body[`${e}Turn`] ?? '', on(e))) return `turn-${e}`;
      if ((draft.body[e] ?? '').trim() !== '' && !powerReady(draft.body[e] ?? '', draft.body[`${e}Kept`] ?? null)) return `over-${e}`;
      if ((draft.body[`${e}OverVa`] ?? '').trim() !== '' && !overAcuity(e).ok) return `over-va-${e}`;
      const unread = typedFindings(draft.body, e, settings.acuity).find((f) => f.value === null);
      if (unread) return `finding-${e}-${unread.sign}`;
    }
    return bothText.trim() !== '' && (!bothTyped.ok || !bothOn) ? 'both-va' : null;
  };
  const reading = (e: Eye) => {
    const { onEye } = live[e].state;
    if (!onEye || !hasReading(draft.body, e)) return null;
    const over = draft.body[e] ?? '';
    const va = overAcuity(e);
    return {
      lensOnEyeId: onEye.rootId,
      fit: FIT_WORDS.find((f) => f === draft.body[`${e}Fit`]) ?? null,
      findings: typedFindings(draft.body, e, settings.acuity).flatMap((f) =>
        f.value === null ? [] : [{ sign: f.sign, value: f.value, typed: typeof f.value === 'number' ? f.text.trim() : null }],
      ),
      blinks: [...live[e].logged, ...(live[e].pending ? [live[e].pending] : [])],
      continues: live[e].continues,
      overRefraction: over.trim() === '' ? null : over,
      overAcuity: over.trim() !== '' && va.ok ? { logMar: va.value, typed: (draft.body[`${e}OverVa`] ?? '').trim() } : null,
      cylinderTested: testedOf(draft.body, e),
      plusHalf: plusHalfOf(draft.body, e),
      control: controlOf(draft.body, e),
      vertexMm,
      sureOfLens: draft.body[`${e}Sure`] === 'yes',
    };
  };
  const togetherTyped = () => {
    const ids = { right: live.right.state.onEye?.rootId, left: live.left.state.onEye?.rootId };
    if (!bothTyped.ok || !ids.right || !ids.left) return null;
    return { rightLensOnEyeId: ids.right, leftLensOnEyeId: ids.left, acuity: { logMar: bothTyped.value, typed: bothText.trim() } };
  };
  const recordReadings = async (): Promise<boolean> => {
    setAsked(true);
    const fault = faulty();
    if (fault !== null) {
      document.getElementById(fault)?.focus();
      return false;
    }
    const done = await run('recordOnEye', { right: reading('right'), left: reading('left'), both: togetherTyped() }, t('recorded'));
    if (done?.ok !== true) return false;
    draft.clear();
    setAsked(false);
    return true;
  };
  return {
    draft,
    live,
    patterns,
    doubts,
    asked,
    instrument,
    chooseInstrument: choose,
    vertexText,
    vertexMm,
    vertexFine,
    early,
    usable,
    hasMark,
    waiting,
    bothOn,
    together,
    lostTogether,
    on,
    setTurn,
    typeTurn,
    logBlink,
    dropBlink,
    readAnew,
    setFinding,
    findingText,
    recordReadings,
    closed,
  };
}
export type Readings = ReturnType<typeof useReadings>;
