import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye, LensSignId } from '@/core';
import { useVisit } from '../../shell/VisitProvider';
import { findingKey, pendingBlink, readBlinks, turnText, writeBlinks, type Blink } from './model';
import { faultyField, readingOf } from './reading';
import { useLive, useSightTogether, type Live } from './useLive';

/** Typing, nudging and logging how the mark lies, blink by blink. @param onUnread a blink that cannot be read was to be logged */
function turnCommands({ draft, live, hasMark, instrument, on }: Live, onUnread: () => void) {
  return {
    setTurn: (e: Eye, value: number, how: 'drag' | 'keys'): void => {
      draft.set(`${e}Turn`, turnText(value));
      if (draft.now(`${e}How`) !== how) draft.set(`${e}How`, how);
    },
    typeTurn: (e: Eye, text: string): void => {
      draft.set(`${e}Turn`, text);
      draft.set(`${e}How`, 'typed');
    },
    /** Keeps the blink in hand as one of the series; with none in hand, the mark sat as shown. */
    logBlink: (e: Eye): boolean => {
      if (!hasMark(e)) return false;
      const text = draft.now(`${e}Turn`);
      const pending = pendingBlink({ [`${e}Turn`]: text, [`${e}How`]: draft.now(`${e}How`) }, e, instrument, on(e));
      if (text.trim() !== '' && pending === null) {
        onUnread();
        return false;
      }
      const logged = readBlinks(draft.now(`${e}Blinks`));
      const shown = logged.at(-1)?.rotationLeft ?? live[e].state.series.at(-1)?.current.rotationLeftDeg ?? 0;
      const blink: Blink = pending ?? { rotationLeft: shown, how: 'pedal', scaleReading: null, instrumentId: null, photo: null };
      draft.set(`${e}Blinks`, writeBlinks([...logged, blink]));
      draft.set(`${e}Turn`, '');
      return true;
    },
    /** Keeps readings off pictures as the next of the series. */
    logPhotos: (e: Eye, blinks: readonly Blink[]): void => draft.set(`${e}Blinks`, writeBlinks([...readBlinks(draft.now(`${e}Blinks`)), ...blinks])),
    dropBlink: (e: Eye): void => draft.set(`${e}Blinks`, writeBlinks(live[e].logged.slice(0, -1))),
    readAnew: (e: Eye): void => draft.set(`${e}Fresh`, 'yes'),
  };
}

/** What is being read on both eyes, and the commands that log and record it. */
export function useReadings() {
  const t = useTranslations('onEye');
  const { record, run } = useVisit();
  const [asked, setAsked] = useState(false);
  const state = useLive();
  const { bothOn, together, lostTogether, ...both } = useSightTogether(state);
  const { draft, live, on, typed, vertexMm } = state;
  const notation = record.session.settings.acuity;
  const recordReadings = async (): Promise<boolean> => {
    setAsked(true);
    const faults = typed.flatMap((e) => faultyField(draft.body, e, on(e), notation) ?? []);
    const fault = faults[0] ?? (both.faulty ? 'both-va' : null);
    if (fault !== null) {
      document.getElementById(fault)?.focus();
      return false;
    }
    const reading = (e: Eye) => readingOf(draft.body, e, live[e], { vertexMm, notation });
    const done = await run('recordOnEye', { right: reading('right'), left: reading('left'), both: both.toRecord }, t('recorded'));
    if (done?.ok !== true) return false;
    draft.clear();
    setAsked(false);
    return true;
  };
  return {
    ...state,
    ...turnCommands(state, () => setAsked(true)),
    asked,
    waiting: typed.length > 0 || both.waiting,
    bothOn,
    together,
    lostTogether,
    setFinding: (e: Eye, sign: LensSignId, text: string): void => draft.set(findingKey(e, sign), text),
    findingText: (e: Eye, sign: LensSignId): string => draft.body[findingKey(e, sign)] ?? '',
    recordReadings,
  };
}
export type Readings = ReturnType<typeof useReadings>;
